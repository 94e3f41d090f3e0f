<script setup lang="ts">
import { computed } from 'vue'
import { paintDrawing } from '../paint/paint.ts'
import { drawingOf, sightOf } from '../strokes/setAside.ts'
import { strokeBook } from '../paint/strokes.ts'
import type { Parked } from '../local/database.ts'
import { useShot } from '../stores/shot.ts'
import SharpCanvas from './SharpCanvas.vue'

/** The strokes of something set aside, on the paper they were drawn on. */
const props = defineProps<{ parked: Parked }>()
const shot = useShot()
const [WIDTH, HEIGHT] = [176, 104]
const drawing = computed(() => drawingOf(props.parked))

function paint(brush: CanvasRenderingContext2D): void {
  const { document } = shot
  if (!document || !drawing.value) return
  const { samples } = props.parked
  const book = strokeBook({ bytes: id => samples.get(id) ?? shot.strokeBytes(id) })
  const { left, top, right, bottom } = sightOf(drawing.value, book, document.format)
  const scale = Math.min(WIDTH / (right - left), HEIGHT / (bottom - top))
  brush.translate(WIDTH / 2, HEIGHT / 2)
  brush.scale(scale, scale)
  brush.translate(-(left + right) / 2, -(top + bottom) / 2)
  brush.fillStyle = document.format.paper
  brush.fillRect(0, 0, document.format.width, document.format.height)
  paintDrawing(brush, drawing.value, e => document.swatches[e.swatch]?.colour ?? '#2f2c28', book)
}
</script>

<template>
  <SharpCanvas v-if="drawing" class="picture" :width="WIDTH" :height="HEIGHT" :paint="paint" />
  <span v-else class="none soft" :style="{ width: `${WIDTH}px`, height: `${HEIGHT}px` }">no strokes</span>
</template>

<style scoped>
.picture,
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
