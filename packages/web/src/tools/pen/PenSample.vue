<script setup lang="ts">
import type { Sample } from '@unhurried/core/geometry'
import { inked, paintInked } from '../../paint/nibs.ts'
import SharpCanvas from '../../shared/SharpCanvas.vue'
import type { PenSettings } from '../../strokes/pens.ts'

/** One stroke of a pen, from light to firm and back, as large as on the paper (wide ones smaller). */
const props = defineProps<{ pen: PenSettings; colour: string; width: number; height: number }>()

function paint(brush: CanvasRenderingContext2D): void {
  const { width, height, pen } = props
  const samples = Array.from({ length: 60 }, (_, i): Sample => {
    const t = i / 59
    return {
      x: 12 + t * (width - 24),
      y: height / 2 - Math.sin(t * 2 * Math.PI) * height * 0.2,
      pressure: 0.12 + 0.88 * Math.sin(t * Math.PI) ** 1.3,
    }
  })
  paintInked(brush, inked(samples, 'line', Math.min(pen.width, height * 0.6), pen.nib), props.colour)
}
</script>

<template>
  <SharpCanvas :width="width" :height="height" :paint="paint" />
</template>
