<script setup lang="ts">
import { useDevicePixelRatio } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { paintDrawing } from '../paint/paint.ts'
import { drawingOf, sightOf } from '../strokes/setAside.ts'
import { strokeBook } from '../paint/strokes.ts'
import type { Parked } from '../local/database.ts'
import { useShot } from '../stores/shot.ts'

/** The strokes of something set aside, on the paper they were drawn on. */
const props = defineProps<{ parked: Parked }>()
const shot = useShot()
const canvas = ref<HTMLCanvasElement | null>(null)
const { pixelRatio } = useDevicePixelRatio()
const [WIDTH, HEIGHT] = [176, 104]
const drawing = computed(() => drawingOf(props.parked))

function paint(): void {
  const brush = canvas.value?.getContext('2d')
  const { document } = shot
  if (!brush || !document || !drawing.value) return
  const { samples } = props.parked
  const book = strokeBook({ bytes: id => samples.get(id) ?? shot.strokeBytes(id) })
  const { left, top, right, bottom } = sightOf(drawing.value, book, document.format)
  const scale = Math.min(WIDTH / (right - left), HEIGHT / (bottom - top)) * pixelRatio.value
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.clearRect(0, 0, brush.canvas.width, brush.canvas.height)
  const [w, h] = [(right - left) * scale, (bottom - top) * scale]
  brush.setTransform(
    scale,
    0,
    0,
    scale,
    (brush.canvas.width - w) / 2 - left * scale,
    (brush.canvas.height - h) / 2 - top * scale,
  )
  brush.fillStyle = document.format.paper
  brush.fillRect(0, 0, document.format.width, document.format.height)
  paintDrawing(brush, drawing.value, e => document.swatches[e.swatch]?.colour ?? '#2f2c28', book)
}
onMounted(paint)
watch(() => [props.parked, pixelRatio.value], paint, { flush: 'post' })
</script>

<template>
  <canvas
    v-if="drawing"
    ref="canvas"
    :width="WIDTH * pixelRatio"
    :height="HEIGHT * pixelRatio"
    :style="{ width: `${WIDTH}px`, height: `${HEIGHT}px` }"
    aria-hidden="true"
  />
  <span v-else class="none soft" :style="{ width: `${WIDTH}px`, height: `${HEIGHT}px` }">no strokes</span>
</template>

<style scoped>
canvas,
.none {
  display: block;
  flex: none;
  background: var(--desk);
  border-radius: 4px;
}

.none {
  display: grid;
  place-items: center;
  font-size: 13px;
}
</style>
