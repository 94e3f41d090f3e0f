<script setup lang="ts">
import type { Drawing } from '@unhurried/core/document'
import { computed } from 'vue'
import { drawnIn, type BitmapShelf } from '../../../paint/bitmaps.ts'
import SharpCanvas from '../../../shared/SharpCanvas.vue'
import { useShot } from '../../../stores/shot.ts'
import { useSight } from '../../../stores/sight.ts'

/** One drawing alone on the paper of the shot. */
const props = defineProps<{ drawing: Drawing; bitmaps: BitmapShelf; width: number }>()
const shot = useShot()
const sight = useSight()
const format = computed(() => shot.document?.format ?? { width: 16, height: 9, paper: '#fdfaf3', fps: 24 })
const height = computed(() => Math.round((props.width * format.value.height) / format.value.width))

function paint(brush: CanvasRenderingContext2D): void {
  brush.fillStyle = format.value.paper
  brush.fillRect(0, 0, props.width, height.value)
  const scale = props.width / format.value.width
  brush.scale(scale, scale)
  props.bitmaps.draw(brush, props.drawing, drawnIn(sight.colours), brush.getTransform().a)
}
</script>

<template>
  <SharpCanvas class="picture" :width="width" :height="height" :paint="paint" />
</template>

<style scoped>
.picture {
  display: block;
  max-width: 100%;
  box-shadow: 0 1px 6px var(--shadow);
}
</style>
