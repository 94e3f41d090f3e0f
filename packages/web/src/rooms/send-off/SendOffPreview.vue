<script setup lang="ts">
import type { Box } from '@unhurried/core/geometry'
import type { LoopRange } from '@unhurried/core/time'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { makePlayback } from '../../paint/playback.ts'
import { layClip, paintFrame } from '../../send/pictures.ts'
import { useClips } from '../../stores/clips.ts'
import { useShot } from '../../stores/shot.ts'
import { useSound } from '../../stores/sound.ts'

/** `audible`: one's own sounds go out with it, and can be heard here; nothing is heard before somebody asks for it */
const props = defineProps<{
  range: LoopRange
  paper: boolean
  width: number
  height: number
  part: Box
  audible: boolean
  withClips: boolean
}>()
const shot = useShot()
const sound = useSound()
const clips = useClips()
const canvas = ref<HTMLCanvasElement | null>(null)
const still = matchMedia('(prefers-reduced-motion: reduce)').matches
let frame = props.range.from

function show(next: number): void {
  frame = next
  const brush = canvas.value?.getContext('2d')
  if (!brush || !shot.document || !shot.take) return
  const under = props.withClips ? clips.picturesUnder(clips.toSend, next, playback.playing.value) : []
  paintFrame(brush, shot.document, shot.take, next, shot.book, props, (to, base) => {
    for (const { clip, bitmap } of under) layClip(to, base, clip, bitmap)
  })
}

const playback = makePlayback({ show })
const fps = computed(() => shot.document?.format.fps ?? 24)
const own = computed(() => sound.sounds.filter(one => one.mine && !one.muted && one.gain > 0))
const canBeHeard = computed(() => props.audible && own.value.length > 0)
const heard = ref(false)
/** only the newest of what was asked to be played is */
let asked = 0
async function start(): Promise<void> {
  const mine = ++asked
  const clock =
    heard.value && canBeHeard.value
      ? await sound.play(frame, props.range, 1, true, own.value)
      : (sound.stop(), undefined)
  if (mine === asked) playback.start(frame, fps.value, props.range, true, clock)
}
function stop(): void {
  asked++
  playback.stop()
  sound.stop()
}
function listen(): void {
  heard.value = !heard.value
  playback.stop()
  void start()
}

// A picture of a clip comes when it is wanted.
watch(
  () => clips.come,
  () => props.withClips && !playback.playing.value && show(frame),
)
onMounted(() => (still ? show(props.range.from) : void start()))
onBeforeUnmount(stop)
watch(
  () => ({ ...props }),
  () => {
    const ran = playback.playing.value
    stop()
    requestAnimationFrame(() => (ran ? void start() : show(props.range.from)))
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
      <button class="plain" @click="playback.playing.value ? stop() : start()">
        {{ playback.playing.value ? 'pause' : 'play' }}
      </button>
      <button v-if="canBeHeard" class="plain" :aria-pressed="heard" @click="listen">
        {{ heard ? 'silent' : 'hear it' }}
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
