<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'

/** A picture as it is, so many pixels wide. */
const props = defineProps<{ bitmap: ImageBitmap; width: number }>()
const canvas = ref<HTMLCanvasElement | null>(null)
function paint(): void {
  const to = canvas.value
  if (!to || props.bitmap.width === 0) return
  to.width = props.width
  to.height = Math.max(1, Math.round((props.width * props.bitmap.height) / props.bitmap.width))
  const brush = to.getContext('2d')
  if (!brush) return
  brush.imageSmoothingQuality = 'high'
  brush.drawImage(props.bitmap, 0, 0, to.width, to.height)
}
onMounted(paint)
watch(() => props.bitmap, paint)
</script>

<template>
  <canvas ref="canvas" aria-hidden="true" />
</template>

<style scoped>
canvas {
  display: block;
  max-width: 100%;
  border: 1px solid var(--rule);
}
</style>
