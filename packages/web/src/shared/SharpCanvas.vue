<script setup lang="ts">
import { useDevicePixelRatio } from '@vueuse/core'
import { ref, watchEffect } from 'vue'

/**
 * A picture as sharp as the screen is. `paint` gets a brush in screen pixels on a clear canvas, and is asked again whenever
 * something it looked at has changed.
 */
const props = defineProps<{ width: number; height: number; paint: (brush: CanvasRenderingContext2D) => void }>()
const canvas = ref<HTMLCanvasElement | null>(null)
const { pixelRatio } = useDevicePixelRatio()

watchEffect(
  () => {
    const brush = canvas.value?.getContext('2d')
    if (!brush) return
    const [width, height] = [props.width * pixelRatio.value, props.height * pixelRatio.value].map(Math.round)
    // Pictures that move are painted often: only another size makes the canvas anew.
    if (brush.canvas.width !== width || brush.canvas.height !== height) Object.assign(brush.canvas, { width, height })
    else brush.clearRect(0, 0, width as number, height as number)
    brush.save()
    brush.scale(pixelRatio.value, pixelRatio.value)
    props.paint(brush)
    brush.restore()
  },
  { flush: 'post' },
)
</script>

<template>
  <canvas ref="canvas" :style="{ width: `${width}px`, height: `${height}px` }" aria-hidden="true" />
</template>
