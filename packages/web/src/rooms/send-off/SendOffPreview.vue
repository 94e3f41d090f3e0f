<script setup lang="ts">
import type { LoopRange } from '@unhurried/core/time'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { makePlayback } from '../../paint/playback.ts'
import { paintFrame } from '../../send/pictures.ts'
import { useShot } from '../../stores/shot.ts'

const props = defineProps<{ range: LoopRange; paper: boolean; width: number; height: number }>()
const shot = useShot()
const canvas = ref<HTMLCanvasElement | null>(null)
const still = matchMedia('(prefers-reduced-motion: reduce)').matches
let frame = props.range.from

function show(next: number): void {
  frame = next
  const brush = canvas.value?.getContext('2d')
  if (brush && shot.document && shot.take) paintFrame(brush, shot.document, shot.take, next, shot.book, props)
}

const playback = makePlayback({ show })
const fps = computed(() => shot.document?.format.fps ?? 24)
const start = () => playback.start(frame, fps.value, props.range, true)

onMounted(() => (still ? show(props.range.from) : start()))
onBeforeUnmount(playback.stop)
watch(
  () => ({ ...props }),
  () => {
    const ran = playback.playing.value
    playback.stop()
    requestAnimationFrame(() => (ran ? start() : show(props.range.from)))
  },
)
</script>

<template>
  <figure>
    <canvas
      ref="canvas"
      :width="width"
      :height="height"
      :class="{ clear: !paper }"
      aria-label="The shot as it will be sent"
    />
    <figcaption>
      <button class="plain" @click="playback.playing.value ? playback.stop() : start()">
        {{ playback.playing.value ? 'pause' : 'play' }}
      </button>
      <span class="soft">as it will be sent, {{ width }} × {{ height }}</span>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  max-width: 100%;
  max-height: 100%;
  min-height: 0;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  gap: 8px;
  justify-items: center;
}

canvas {
  display: block;
  max-width: 100%;
  max-height: min(100%, 640px);
  min-height: 0;
  object-fit: contain;
  box-shadow: 0 2px 12px rgb(90 74 48 / 16%);
}

canvas.clear {
  background: repeating-conic-gradient(#efe9dc 0 25%, #fbf8f0 0 50%) 0 0 / 18px 18px;
}

figcaption {
  display: flex;
  gap: 12px;
  align-items: center;
}

figcaption .plain {
  color: var(--green);
  font-weight: 700;
}
</style>
