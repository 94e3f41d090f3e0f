<script setup lang="ts">
import type { Drawing } from '@unhurried/core/document'
import { useDevicePixelRatio } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { drawnIn, type BitmapShelf } from '../../../paint/bitmaps.ts'
import { useSight } from '../../../stores/sight.ts'
import { useShot } from '../../../stores/shot.ts'

/** One drawing alone on the paper of the shot. */
const props = defineProps<{ drawing: Drawing; bitmaps: BitmapShelf; width: number }>()
const shot = useShot()
const sight = useSight()
const canvas = ref<HTMLCanvasElement | null>(null)
const { pixelRatio } = useDevicePixelRatio()
const format = computed(() => shot.document?.format ?? { width: 16, height: 9, paper: '#fdfaf3', fps: 24 })
const height = computed(() => Math.round((props.width * format.value.height) / format.value.width))

function paint(): void {
  const brush = canvas.value?.getContext('2d')
  if (!brush) return
  const scale = (props.width * pixelRatio.value) / format.value.width
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.fillStyle = format.value.paper
  brush.fillRect(0, 0, brush.canvas.width, brush.canvas.height)
  brush.setTransform(scale, 0, 0, scale, 0, 0)
  props.bitmaps.draw(brush, props.drawing, drawnIn(sight.colours), scale)
}
onMounted(paint)
watch(() => [props.drawing, sight.colours, pixelRatio.value], paint, { flush: 'post' })
</script>

<template>
  <canvas
    ref="canvas"
    class="picture"
    :width="Math.round(width * pixelRatio)"
    :height="Math.round(height * pixelRatio)"
    :style="{ width: `${width}px`, height: `${height}px` }"
    aria-hidden="true"
  />
</template>

<style scoped>
.picture {
  display: block;
  max-width: 100%;
  box-shadow: 0 1px 6px var(--shadow);
}
</style>
