<script setup lang="ts">
import { counted, secondsLabel } from '@unhurried/core/time'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { makePlayback } from '../../../paint/playback.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'
import { useSound } from '../../../stores/sound.ts'
import { useSoundActs } from '../../../stores/soundActs.ts'
import AccentsNote from './AccentsNote.vue'
import SoundBoard from './SoundBoard.vue'
import TrackFields from './TrackFields.vue'
import WordsNote from './WordsNote.vue'
import { useRecorder } from './recorder.ts'

/** The sounds of the shot on its frames: brought in or recorded, laid, trimmed, listened to, and read for where they set in. */
const shot = useShot()
const desk = useDesk()
const sound = useSound()
const acts = useSoundActs()
const chosen = ref<string | null>(null)
const one = computed(() => sound.sounds.find(other => other.id === chosen.value) ?? sound.sounds[0] ?? null)
const fps = computed(() => shot.document?.format.fps ?? 24)
const length = computed(() => shot.take?.length ?? 1)
const hasWords = computed(() => Object.keys(shot.document?.words ?? {}).length > 0)
const sensitivity = ref(0.5)

function choose(): void {
  const input = document.createElement('input')
  input.type = 'file'
  input.multiple = true
  input.accept = 'audio/*,video/*,.wav,.mp3,.ogg,.flac,.m4a'
  input.onchange = () =>
    void acts.bring(
      [...(input.files ?? [])].map(blob => ({ blob, name: blob.name })),
      desk.frame,
    )
  input.click()
}
function drop(event: DragEvent): void {
  const files = [...(event.dataTransfer?.files ?? [])]
  if (files.length && shot.mayDraw)
    void acts.bring(
      files.map(blob => ({ blob, name: blob.name })),
      desk.frame,
    )
}

const playFrame = ref<number | null>(null)
const playback = makePlayback({ show: frame => (playFrame.value = frame) })
async function toggle(): Promise<void> {
  if (playback.playing.value) return stop()
  const range = { from: 0, to: length.value }
  const from = desk.frame >= length.value - 1 ? 0 : desk.frame
  const clock = await sound.play(from, range, 1, false)
  playback.start(from, fps.value, range, false, clock)
}
function stop(): void {
  playback.stop()
  sound.stop()
}
watch(playback.playing, playing => {
  if (playing) return
  sound.stop()
  if (playFrame.value !== null) desk.goTo(playFrame.value)
  playFrame.value = null
})
const here = computed(() => playFrame.value ?? desk.frame)
function go(frame: number): void {
  stop()
  desk.goTo(frame)
  void sound.scrub(desk.frame)
}

const recorder = useRecorder(blob => acts.bring([{ blob, name: 'recorded here.webm' }], recordedFrom.value, true))
const recordedFrom = ref(0)
/** Recording begins with the film, so that one speaks to the picture. */
async function record(): Promise<void> {
  if (recorder.on.value) return recorder.stop()
  stop()
  recordedFrom.value = desk.frame
  await recorder.start()
}
onBeforeUnmount(() => {
  stop()
  recorder.stop()
})
</script>

<template>
  <section class="sound" aria-label="Sound" @dragover.prevent @drop.prevent="drop">
    <div class="head">
      <h2>Sound</h2>
      <template v-if="sound.sounds.length">
        <button class="plain word" :aria-pressed="playback.playing.value" @click="toggle">
          {{ playback.playing.value ? 'stop' : 'listen' }}
        </button>
        <span class="soft small time">{{ here + 1 }} · {{ secondsLabel(here, fps) }}</span>
      </template>
      <span class="gap" />
      <span v-if="acts.reading" class="soft small" role="status">reading {{ acts.reading }} …</span>
      <template v-if="shot.mayDraw">
        <button class="plain word" title="WAV, MP3, OGG, FLAC, M4A, or the sound of a clip" @click="choose">
          bring in a recording
        </button>
        <button v-if="recorder.may" class="plain word" :class="{ rust: recorder.on.value }" @click="record">
          {{ recorder.on.value ? `recording, ${recorder.seconds.value} s: stop` : 'record here' }}
        </button>
      </template>
    </div>
    <p v-if="recorder.why.value" class="rust small" role="alert">{{ recorder.why.value }}</p>
    <p v-if="!sound.sounds.length && !hasWords" class="soft small">
      A voice, music or steps to act to. It runs down beside the frames on the sheet, is heard when the film plays and
      frames are gone over, and its accents become beats.
    </p>
    <SoundBoard
      v-if="sound.sounds.length || hasWords"
      :here="here"
      :chosen="one?.id ?? null"
      :sensitivity="sensitivity"
      @choose="id => (chosen = id)"
      @go="go"
    />
    <template v-if="one">
      <TrackFields :key="one.id" :track="one" :several="counted(sound.sounds.length, 'track')" />
      <AccentsNote v-model="sensitivity" :track="one" />
    </template>
    <WordsNote v-if="sound.sounds.length || hasWords" :here="here" :playing="playback.playing.value" @listen="toggle" />
  </section>
</template>

<style scoped>
.sound :deep(input[type='number']) {
  width: 58px;
  min-height: 24px;
  padding: 1px 5px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  text-align: right;
}

.head {
  display: flex;
  align-items: baseline;
  gap: 12px;
}

.gap {
  flex: 1;
}

.time {
  min-width: 90px;
}
</style>
