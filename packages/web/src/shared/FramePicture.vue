<script setup lang="ts">
import { laidOn, type Take } from '@unhurried/core/document'
import { useDevicePixelRatio } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { drawnIn, SILHOUETTE, type BitmapShelf } from '../paint/bitmaps.ts'
import { layDown } from '../paint/laid.ts'
import { colouredBy, lookOf, type Looks } from '../paint/looks.ts'
import { seenAt, type Seeing } from './frames.ts'
import { useSight } from '../stores/sight.ts'
import { useShot } from '../stores/shot.ts'

/** One frame of a take, painted at a width in screen pixels. While playing, `paint` shows any other frame at once. */
const props = defineProps<{
  take: Take
  frame: number
  width: number
  bitmaps: BitmapShelf
  seeing?: Seeing
  /** layers shown weaker or tinted, for looking */
  looks?: Looks
}>()
const shot = useShot()
const sight = useSight()
const canvas = ref<HTMLCanvasElement | null>(null)
const { pixelRatio } = useDevicePixelRatio()
const format = computed(() => shot.document?.format ?? { width: 16, height: 9, paper: '#fdfaf3', fps: 24 })
const height = computed(() => Math.max(1, Math.round((props.width * format.value.height) / format.value.width)))
const PLAIN: Seeing = { only: 'all', layer: null, silhouettes: false, hidden: new Set() }

let hasShown = false
function paint(frame: number): void {
  const element = canvas.value
  const brush = element?.getContext('2d')
  if (!element || !brush || !shot.document || props.width < 1) return
  const scale = (props.width * pixelRatio.value) / format.value.width
  const seeing = props.seeing ?? PLAIN
  const seen = seenAt(shot.document, props.take, frame, seeing).map(({ drawing, animated }) => {
    const { opacity, tint } = lookOf(props.looks ?? {}, drawing.layer)
    const look = seeing.silhouettes && animated ? SILHOUETTE : drawnIn(colouredBy(sight.colours, tint))
    return { drawing, look, opacity }
  })
  // Until all of a frame is painted the one before it stays; the very first begins with what there is.
  const coming = seen.filter(({ drawing, look }) => !props.bitmaps.isReady(drawing, look, scale))
  if (coming.length > 0 && hasShown) return
  hasShown ||= coming.length === 0
  const [w, h] = [Math.round(props.width * pixelRatio.value), Math.round(height.value * pixelRatio.value)]
  if (element.width !== w) element.width = w
  if (element.height !== h) element.height = h
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.fillStyle = format.value.paper
  brush.fillRect(0, 0, w, h)
  for (const { drawing, look, opacity } of seen) {
    brush.globalAlpha = opacity
    const maps = laidOn(shot.document, props.take, drawing.layer, frame, () => props.bitmaps.boxOf(drawing))
    layDown(brush, [scale, 0, 0, scale, 0, 0], maps, () => props.bitmaps.draw(brush, drawing, look, scale))
  }
  brush.globalAlpha = 1
}

const now = () => paint(props.frame)
onMounted(now)
watch(
  () => [
    props.take,
    props.frame,
    props.width,
    props.seeing,
    props.looks,
    shot.document,
    sight.colours,
    pixelRatio.value,
    props.bitmaps.painted.value,
  ],
  now,
  {
    flush: 'post',
  },
)
defineExpose({ paint })
</script>

<template>
  <canvas ref="canvas" :style="{ width: `${width}px`, height: `${height}px` }" aria-hidden="true" />
</template>

<style scoped>
canvas {
  display: block;
  box-shadow: 0 1px 6px rgb(90 74 48 / 18%);
}
</style>
