<script setup lang="ts">
import { poseFrames, wordsInOrder, type Sound } from '@unhurried/core/document'
import { endsOn, frameOfMoment } from '@unhurried/core/sound'
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import WaveCanvas from '../../../shared/WaveCanvas.vue'
import { useShot } from '../../../stores/shot.ts'
import { useSound } from '../../../stores/sound.ts'
import { useSoundActs } from '../../../stores/soundActs.ts'
import WordsLane from './WordsLane.vue'

/** All tracks over the frames of the take: where they lie, beats and poses above them, words below. Pressed anywhere, that frame is heard. */
const props = defineProps<{ here: number; chosen: string | null; sensitivity: number }>()
const emit = defineEmits<{ choose: [id: string]; go: [frame: number] }>()
const shot = useShot()
const sound = useSound()
const acts = useSoundActs()
const board = ref<HTMLElement | null>(null)
const { width } = useElementSize(board)
const fps = computed(() => shot.document?.format.fps ?? 24)
const length = computed(() => shot.take?.length ?? 1)
const share = (frames: number) => `${(100 * frames) / length.value}%`
const beats = computed(() => Object.values(shot.document?.beats ?? {}).filter(beat => beat.frame < length.value))
const poses = computed(() => (shot.document && shot.take ? [...new Set(poseFrames(shot.document, shot.take))] : []))
const words = computed(() => (shot.document ? wordsInOrder(shot.document) : []))
/** Frames with a number under the board: every second, or so many seconds that they have room. */
const marks = computed(() => {
  const every = [1, 2, 5, 10, 30, 60].find(s => (width.value * s * fps.value) / length.value > 44) ?? 120
  return Array.from({ length: Math.ceil(length.value / (every * fps.value)) }, (_, i) => i * every * fps.value)
})
/** Moments at which the chosen track sets in, as frames; not those that are beats already. */
const onsets = computed(() => {
  const one = sound.sounds.find(other => other.id === props.chosen)
  if (!one || !shot.mayDraw) return []
  const taken = new Set(beats.value.map(beat => beat.frame))
  return sound.onsets(one.media, props.sensitivity).flatMap(onset => {
    const frame = frameOfMoment(one, fps.value, onset.seconds)
    return frame === null || frame >= length.value || taken.has(frame) ? [] : [{ ...onset, frame, sound: one }]
  })
})

const frameAt = (event: PointerEvent): number => {
  const box = board.value?.getBoundingClientRect()
  return box ? Math.floor(((event.clientX - box.left) / box.width) * length.value) : 0
}
const within = (frame: number) => Math.max(0, Math.min(length.value - 1, frame))

type Part = 'all' | 'start' | 'end'
/** what the hand has: a track or an end of it, where it took hold, and where the track lay then */
let held: { sound: Sound; part: Part; at: number } | null = null
function take(event: PointerEvent, one: Sound, part: Part): void {
  emit('choose', one.id)
  if (event.button !== 0 || !shot.mayDraw) return
  held = { sound: one, part, at: frameAt(event) }
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
function move(event: PointerEvent): void {
  const now = held && sound.sounds.find(other => other.id === held?.sound.id)
  if (!held || !now) return
  const by = frameAt(event) - held.at
  const end = endsOn(held.sound, fps.value)
  if (held.part === 'all') acts.change(now, { from: within(held.sound.from + by) }, true)
  else if (held.part === 'start') acts.trimStart(now, held.sound.from + by)
  else acts.trimEnd(now, end + by)
}
const letGo = () => (held = null)
function key(event: KeyboardEvent, one: Sound): void {
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  acts.change(one, { from: within(one.from + by * (event.shiftKey ? 10 : 1)) }, true)
}

let isGoing = false
function goTo(event: PointerEvent): void {
  if (event.button !== 0) return
  isGoing = true
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  emit('go', within(frameAt(event)))
}
function goOn(event: PointerEvent): void {
  const frame = within(frameAt(event))
  if (isGoing && frame !== props.here) emit('go', frame)
}
</script>

<template>
  <div ref="board" class="board">
    <div
      class="lane"
      title="Press to hear a frame"
      @pointerdown="goTo"
      @pointermove="goOn"
      @pointerup="isGoing = false"
      @pointercancel="isGoing = false"
    >
      <i
        v-for="pose in poses"
        :key="`p${pose}`"
        class="pose"
        :style="{ left: share(pose + 0.5) }"
        title="A key comes into sight"
      />
      <i
        v-for="beat in beats"
        :key="beat.id"
        class="beat"
        :style="{ left: share(beat.frame + 0.5) }"
        :title="`Beat: ${beat.name}`"
      />
    </div>
    <div v-for="one in sound.sounds" :key="one.id" class="track" :class="{ muted: one.muted }">
      <div
        class="card"
        :class="{ on: one.id === chosen }"
        :style="{ left: share(one.from), width: share(one.use * fps) }"
        tabindex="0"
        role="button"
        :aria-pressed="one.id === chosen"
        :aria-label="`${one.name}, from frame ${one.from + 1}: arrow keys move it`"
        @pointerdown.self="event => take(event, one, 'all')"
        @pointermove="move"
        @pointerup="letGo"
        @pointercancel="letGo"
        @keydown="event => key(event, one)"
        @focus="emit('choose', one.id)"
      >
        <WaveCanvas class="fill" :sounds="[one]" :from="one.from" :to="one.from + one.use * fps" />
        <span class="name">{{ one.name }}</span>
        <i class="end left" @pointerdown.stop="event => take(event, one, 'start')" />
        <i class="end right" @pointerdown.stop="event => take(event, one, 'end')" />
      </div>
      <template v-if="one.id === chosen">
        <button
          v-for="onset in onsets"
          :key="onset.seconds"
          class="onset"
          tabindex="-1"
          :style="{ left: share(onset.frame + 0.5), height: `${8 + 12 * onset.strength}px` }"
          :title="`Sets in on frame ${onset.frame + 1}: take it as a beat`"
          :aria-label="`Take frame ${onset.frame + 1} as a beat`"
          @click="acts.takeBeats(onset.sound, [onset.seconds], 'accent')"
        />
      </template>
    </div>
    <WordsLane
      v-if="words.length"
      :words="words"
      :length="length"
      :frame-at="frameAt"
      @go="frame => emit('go', frame)"
    />
    <div class="ruler" aria-hidden="true">
      <span v-for="mark in marks" :key="mark" :style="{ left: share(mark) }">{{ mark + 1 }}</span>
    </div>
    <i class="here" :style="{ left: share(here), width: share(1) }" />
  </div>
</template>

<style scoped>
.board {
  position: relative;
  margin: 4px 0 8px;
  user-select: none;
}

.lane {
  position: relative;
  height: 20px;
  border-bottom: 1px solid var(--rule);
  cursor: ew-resize;
  touch-action: none;
}

.pose,
.beat {
  position: absolute;
  top: 5px;
  width: 9px;
  height: 9px;
  margin-left: -5px;
  pointer-events: none;
}

.pose {
  border: 1.6px solid var(--ink);
  border-radius: 50%;
}

.beat {
  top: 6px;
  width: 7px;
  height: 7px;
  margin-left: -4px;
  background: var(--rust);
  transform: rotate(45deg);
}

.track {
  position: relative;
  height: 44px;
  margin: 4px 0;
  background: var(--desk);
  border-radius: 6px;
  overflow: hidden;
}

.card {
  position: absolute;
  inset: 0 auto;
  min-width: 10px;
  overflow: hidden;
  background: var(--paper);
  border: 1px solid var(--rule);
  border-radius: 6px;
  cursor: grab;
  touch-action: none;
}

.card.on {
  border-color: var(--green);
}

.card:focus-visible {
  outline: 2px solid var(--green);
  outline-offset: -2px;
}

.muted .card {
  opacity: 0.5;
}

.fill {
  position: absolute;
  inset: 2px 0;
}

.name {
  position: absolute;
  left: 10px;
  top: 1px;
  font-size: 11.5px;
  color: var(--soft);
  pointer-events: none;
}

.end {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 8px;
  cursor: col-resize;
}

.end::after {
  content: '';
  position: absolute;
  inset: 30% 3px;
  border-radius: 2px;
  background: var(--past);
}

.left {
  left: 0;
}

.right {
  right: 0;
}

.onset {
  position: absolute;
  bottom: 0;
  width: 9px;
  margin-left: -5px;
  padding: 0;
  border: 0;
  background: linear-gradient(var(--rust), var(--rust)) center / 2px 100% no-repeat;
  cursor: copy;
  opacity: 0.75;
}

.onset:hover {
  opacity: 1;
  background-size: 5px 100%;
}

.ruler {
  position: relative;
  height: 15px;
  font-size: 11px;
  color: var(--soft);
}

.ruler span {
  position: absolute;
  padding-left: 3px;
  border-left: 1px solid var(--rule);
}

.here {
  position: absolute;
  top: 0;
  bottom: 15px;
  min-width: 2px;
  background: var(--mark);
  border-left: 1.5px solid var(--green);
  pointer-events: none;
}
</style>
