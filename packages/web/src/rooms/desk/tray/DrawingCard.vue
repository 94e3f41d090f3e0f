<script setup lang="ts">
import type { Drawing } from '@unhurried/core/document'
import { onMounted, ref, watch } from 'vue'
import { drawnIn, type BitmapShelf } from '../../../paint/bitmaps.ts'
import { useSight } from '../../../stores/sight.ts'
import { useShot } from '../../../stores/shot.ts'

const props = defineProps<{ drawing: Drawing | null; bitmaps: BitmapShelf }>()
const shot = useShot()
const sight = useSight()
const canvas = ref<HTMLCanvasElement | null>(null)
const [WIDTH, HEIGHT, DENSITY] = [88, 54, 2]

function paint(): void {
  const brush = canvas.value?.getContext('2d')
  if (!brush || !shot.document) return
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.clearRect(0, 0, WIDTH * DENSITY, HEIGHT * DENSITY)
  if (!props.drawing) return
  const { width, height } = shot.document.format
  const scale = Math.min(WIDTH / width, HEIGHT / height) * DENSITY
  brush.setTransform(scale, 0, 0, scale, (WIDTH * DENSITY - width * scale) / 2, (HEIGHT * DENSITY - height * scale) / 2)
  props.bitmaps.draw(brush, props.drawing, drawnIn(sight.colours), scale)
}

onMounted(paint)
watch(() => [props.drawing, shot.document?.format, sight.colours], paint)
</script>

<template>
  <canvas
    ref="canvas"
    :style="{ background: shot.document?.format.paper }"
    :width="WIDTH * DENSITY"
    :height="HEIGHT * DENSITY"
    aria-hidden="true"
  />
  <span class="nr">{{ drawing?.number ?? '' }}</span>
</template>

<style scoped>
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}

.nr {
  position: absolute;
  left: 5px;
  top: 1px;
  font-size: 11px;
  color: var(--soft);
}
</style>
