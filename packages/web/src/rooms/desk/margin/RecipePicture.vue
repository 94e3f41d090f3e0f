<script setup lang="ts">
import { figureOf, planWith, RECIPES, type RecipeName } from '@unhurried/core/motion'
import { useIntervalFn, usePreferredReducedMotion } from '@vueuse/core'
import { ref, watch } from 'vue'
import { constructionOn } from '../../../paint/construction.ts'
import SharpCanvas from '../../../shared/SharpCanvas.vue'

/** A recipe as it comes, small and moving on twos; still where motion is reduced. */
const props = defineProps<{ recipe: RecipeName }>()
const SIZE = { width: 92, height: 52 }
/** the paper it is worked out on */
const PAPER = { width: 640, height: 360, fps: 24, exposure: 2 }
const motion = usePreferredReducedMotion()
const plan = planWith(props.recipe, RECIPES[props.recipe].defaults(PAPER), PAPER)
const frame = ref(0)

function paint(brush: CanvasRenderingContext2D): void {
  const scale = SIZE.width / PAPER.width
  brush.strokeStyle = getComputedStyle(brush.canvas).color
  brush.lineWidth = 1.1
  figureOf(props.recipe, plan, frame.value, constructionOn(brush, [scale, 0, 0, scale, 0, 0]))
}
const { pause, resume } = useIntervalFn(
  () => (frame.value = (frame.value + PAPER.exposure) % plan.frames),
  (1000 * PAPER.exposure) / PAPER.fps,
  { immediate: false },
)
watch(motion, now => (now === 'reduce' ? pause() : resume()), { immediate: true })
</script>

<template>
  <SharpCanvas v-bind="SIZE" :paint="paint" />
</template>
