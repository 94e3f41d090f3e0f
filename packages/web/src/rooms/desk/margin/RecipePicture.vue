<script setup lang="ts">
import { after, centreOf, IDENTITY } from '@unhurried/core/geometry'
import { figureOf, planWith, type RecipeName, type RecipeShot } from '@unhurried/core/motion'
import { layingsOn } from '@unhurried/core/path'
import { usePreferredReducedMotion, useRafFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { constructionOn } from '../../../paint/construction.ts'
import { planBox } from '../../../paint/planBox.ts'
import SharpCanvas from '../../../shared/SharpCanvas.vue'

/** A movement, small and moving as it would be shown; still where motion is reduced. */
const props = defineProps<{ recipe: RecipeName; numbers: object; shot: RecipeShot; width: number; height: number }>()
const MARGIN_PX = 3
const motion = usePreferredReducedMotion()
const plan = computed(() => planWith(props.recipe, props.numbers, props.shot))
const frame = ref(0)

/** The paper as large as lets the whole movement be seen. */
const box = computed(() => planBox(props.recipe, plan.value))
const matrix = computed(() => {
  const [wide, high] = [Math.max(1, box.value.right - box.value.left), Math.max(1, box.value.bottom - box.value.top)]
  const scale = Math.min((props.width - 2 * MARGIN_PX) / wide, (props.height - 2 * MARGIN_PX) / high)
  const middle = centreOf(box.value)
  return [scale, 0, 0, scale, props.width / 2 - scale * middle.x, props.height / 2 - scale * middle.y] as const
})
function paint(brush: CanvasRenderingContext2D): void {
  brush.strokeStyle = getComputedStyle(brush.canvas).color
  brush.lineWidth = 0.8
  const at = frame.value % plan.value.frames
  const { path } = plan.value
  const { left, right } = box.value
  for (const one of path ? layingsOn(path, at, right, left, right) : [IDENTITY])
    figureOf(props.recipe, plan.value, at, constructionOn(brush, after(one, matrix.value), null, false))
}
/** So often it is looked at: a dozen of them move beside the paper, and must not cost it anything. */
const LOOKED_AT_FPS = 12
/** The last frame is held for a moment where it does not loop. */
const REST_S = 0.6
const { pause, resume } = useRafFn(
  ({ timestamp }) => {
    const { frames, loops } = plan.value
    const rest = loops ? 0 : Math.round(REST_S * props.shot.fps)
    const now = Math.floor((timestamp * props.shot.fps) / 1000) % (frames + rest)
    frame.value = Math.min(frames - 1, now)
  },
  { immediate: false, fpsLimit: LOOKED_AT_FPS },
)
watch(motion, now => (now === 'reduce' ? pause() : resume()), { immediate: true })
</script>

<template>
  <SharpCanvas :width="width" :height="height" :paint="paint" />
</template>
