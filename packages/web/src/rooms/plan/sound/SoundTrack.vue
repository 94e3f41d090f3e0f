<script setup lang="ts">
import type { Sound } from '@unhurried/core/document'
import { endsOn, type Onset } from '@unhurried/core/sound'
import { computed } from 'vue'
import WaveCanvas from '../../../shared/WaveCanvas.vue'
import { useShot } from '../../../stores/shot.ts'
import { useSoundActs } from '../../../stores/soundActs.ts'

/** One track over the frames of the take: dragged, trimmed at its ends, moved by arrow keys; where it sets in is taken as a beat by a press. */
const props = defineProps<{
  track: Sound
  chosen: boolean
  onsets: readonly (Onset & { readonly frame: number })[]
  /** frames of the take */
  length: number
  frameAt: (event: PointerEvent) => number
}>()
const emit = defineEmits<{ choose: [] }>()
const shot = useShot()
const acts = useSoundActs()
const fps = computed(() => shot.document?.format.fps ?? 24)
const share = (frames: number) => `${(100 * frames) / props.length}%`
const within = (frame: number) => Math.max(0, Math.min(props.length - 1, frame))

type Part = 'all' | 'start' | 'end'
/** what the hand has: a track or an end of it, where it took hold, and where the track lay then */
let held: { sound: Sound; part: Part; at: number } | null = null
function take(event: PointerEvent, part: Part): void {
  emit('choose')
  if (event.button !== 0 || !shot.mayDraw) return
  held = { sound: props.track, part, at: props.frameAt(event) }
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
function move(event: PointerEvent): void {
  if (!held) return
  const now = props.track
  const by = props.frameAt(event) - held.at
  const end = endsOn(held.sound, fps.value)
  if (held.part === 'all') acts.change(now, { from: within(held.sound.from + by) }, true)
  else if (held.part === 'start') acts.trimStart(now, held.sound.from + by)
  else acts.trimEnd(now, end + by)
}
const letGo = () => (held = null)
function key(event: KeyboardEvent): void {
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  acts.change(props.track, { from: within(props.track.from + by * (event.shiftKey ? 10 : 1)) }, true)
}
</script>

<template>
  <div class="track" :class="{ muted: track.muted }">
    <div
      class="card"
      :class="{ on: chosen }"
      :style="{ left: share(track.from), width: share(track.use * fps) }"
      tabindex="0"
      role="button"
      :aria-pressed="chosen"
      :aria-label="`${track.name}, from frame ${track.from + 1}: arrow keys move it`"
      @pointerdown.self="event => take(event, 'all')"
      @pointermove="move"
      @pointerup="letGo"
      @pointercancel="letGo"
      @keydown="event => key(event)"
      @focus="emit('choose')"
    >
      <WaveCanvas class="fill" :sounds="[track]" :from="track.from" :to="track.from + track.use * fps" />
      <span class="name">{{ track.name }}</span>
      <i class="end left" @pointerdown.stop="event => take(event, 'start')" />
      <i class="end right" @pointerdown.stop="event => take(event, 'end')" />
    </div>
    <button
      v-for="onset in onsets"
      :key="onset.seconds"
      class="onset"
      tabindex="-1"
      :style="{ left: share(onset.frame + 0.5), height: `${8 + 12 * onset.strength}px` }"
      :title="`Sets in on frame ${onset.frame + 1}: take it as a beat`"
      :aria-label="`Take frame ${onset.frame + 1} as a beat`"
      @click="acts.takeBeats(track, [onset.seconds], 'accent')"
    />
  </div>
</template>

<style scoped>
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
</style>
