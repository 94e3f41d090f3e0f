<script setup lang="ts">
import type { Sample } from '@unhurried/core/geometry'
import { useDevicePixelRatio } from '@vueuse/core'
import { onMounted, ref, watch } from 'vue'
import { inked, paintInked } from '../../paint/nibs.ts'
import type { PenSettings } from '../../strokes/pens.ts'

/** One stroke of a pen, from light to firm and back, as large as on the paper (wide ones smaller). */
const props = defineProps<{ pen: PenSettings; colour: string; width: number; height: number }>()
const canvas = ref<HTMLCanvasElement | null>(null)
const { pixelRatio } = useDevicePixelRatio()

function paint(): void {
  const brush = canvas.value?.getContext('2d')
  if (!brush) return
  const { width, height, pen } = props
  const samples = Array.from({ length: 60 }, (_, i): Sample => {
    const t = i / 59
    return {
      x: 12 + t * (width - 24),
      y: height / 2 - Math.sin(t * 2 * Math.PI) * height * 0.2,
      pressure: 0.12 + 0.88 * Math.sin(t * Math.PI) ** 1.3,
    }
  })
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.clearRect(0, 0, brush.canvas.width, brush.canvas.height)
  brush.setTransform(pixelRatio.value, 0, 0, pixelRatio.value, 0, 0)
  paintInked(brush, inked(samples, 'line', Math.min(pen.width, height * 0.6), pen.nib), props.colour)
}
onMounted(paint)
watch(() => [props.pen, props.colour, pixelRatio.value], paint, { flush: 'post' })
</script>

<template>
  <canvas
    ref="canvas"
    :width="Math.round(width * pixelRatio)"
    :height="Math.round(height * pixelRatio)"
    :style="{ width: `${width}px`, height: `${height}px` }"
    aria-hidden="true"
  />
</template>
