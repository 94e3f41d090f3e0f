<script setup lang="ts">
import type { Sound } from '@unhurried/core/document'
import { useDevicePixelRatio, useElementSize } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { paintWave, widest } from '../paint/wave.ts'
import { useHabits } from '../stores/habits.ts'
import { useSound } from '../stores/sound.ts'

/** The waveform of some sounds over a stretch of frames (from 0), as large as where it lies. */
const props = defineProps<{ sounds: readonly Sound[]; from: number; to: number; down?: boolean }>()
const sound = useSound()
const habits = useHabits()
const box = ref<HTMLElement | null>(null)
const canvas = ref<HTMLCanvasElement | null>(null)
const { width, height } = useElementSize(box)
const { pixelRatio } = useDevicePixelRatio()
const isReady = ref(false)
onMounted(() => (isReady.value = true))
/** changes whenever something else is to be seen */
const seen = computed(() => props.sounds.map(one => [one, sound.heard.get(one.media)?.state]))

function paint(): void {
  const sheet = canvas.value
  const pen = sheet?.getContext('2d')
  if (!sheet || !pen || width.value === 0 || height.value === 0) return
  const [w, h] = [Math.round(width.value * pixelRatio.value), Math.round(height.value * pixelRatio.value)]
  sheet.width = w
  sheet.height = h
  const swings = props.sounds
    .filter(one => !one.muted)
    .map(one => (from: number, to: number) => sound.swingOn(one, from, to))
  const room = {
    from: props.from,
    to: props.to,
    down: props.down,
    along: props.down ? h : w,
    across: props.down ? w : h,
  }
  paintWave(pen, widest(swings), room, getComputedStyle(sheet).color)
}
watch([seen, () => props.from, () => props.to, width, height, pixelRatio, isReady, () => habits.night], paint, {
  flush: 'post',
})
</script>

<template>
  <span ref="box" class="wave"><canvas ref="canvas" aria-hidden="true" /></span>
</template>

<style scoped>
.wave {
  display: block;
  position: relative;
  overflow: hidden;
  color: var(--past);
  pointer-events: none;
}

canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
</style>
