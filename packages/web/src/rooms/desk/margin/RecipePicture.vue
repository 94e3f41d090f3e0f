<script setup lang="ts">
import { figureOf, planWith, RECIPES, type RecipeName } from '@unhurried/core/motion'
import { useDevicePixelRatio, useIntervalFn, usePreferredReducedMotion } from '@vueuse/core'
import { onMounted, ref, watch } from 'vue'
import { constructionOn } from '../../../paint/construction.ts'

/** A recipe as it comes, small and moving on twos; still where motion is reduced. */
const props = defineProps<{ recipe: RecipeName }>()
const SIZE = { width: 92, height: 52 }
/** the paper it is worked out on */
const PAPER = { width: 640, height: 360, fps: 24, exposure: 2 }
const canvas = ref<HTMLCanvasElement | null>(null)
const { pixelRatio } = useDevicePixelRatio()
const motion = usePreferredReducedMotion()
const plan = planWith(props.recipe, RECIPES[props.recipe].defaults(PAPER), PAPER)
let frame = 0

function paint(): void {
  const brush = canvas.value?.getContext('2d')
  if (!brush) return
  const scale = SIZE.width / PAPER.width
  brush.setTransform(pixelRatio.value, 0, 0, pixelRatio.value, 0, 0)
  brush.clearRect(0, 0, SIZE.width, SIZE.height)
  brush.strokeStyle = getComputedStyle(brush.canvas).color
  brush.lineWidth = 1.1
  figureOf(props.recipe, plan, frame, constructionOn(brush, [scale, 0, 0, scale, 0, 0]))
}
const { pause, resume } = useIntervalFn(
  () => {
    frame = (frame + PAPER.exposure) % plan.frames
    paint()
  },
  (1000 * PAPER.exposure) / PAPER.fps,
  { immediate: false },
)
onMounted(() => {
  paint()
  watch(motion, now => (now === 'reduce' ? pause() : resume()), { immediate: true })
})
watch(pixelRatio, paint, { flush: 'post' })
</script>

<template>
  <canvas
    ref="canvas"
    :width="SIZE.width * pixelRatio"
    :height="SIZE.height * pixelRatio"
    :style="{ width: `${SIZE.width}px`, height: `${SIZE.height}px` }"
    aria-hidden="true"
  />
</template>
