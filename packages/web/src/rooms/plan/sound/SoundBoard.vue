<script setup lang="ts">
import { poseFrames, wordsInOrder } from '@unhurried/core/document'
import { frameOfMoment } from '@unhurried/core/sound'
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useShot } from '../../../stores/shot.ts'
import { useSound } from '../../../stores/sound.ts'
import SoundTrack from './SoundTrack.vue'
import WordsLane from './WordsLane.vue'

/** All tracks over the frames of the take: where they lie, beats and poses above them, words below. Pressed anywhere, that frame is heard. */
const props = defineProps<{ here: number; chosen: string | null; sensitivity: number }>()
const emit = defineEmits<{ choose: [id: string]; go: [frame: number] }>()
const shot = useShot()
const sound = useSound()
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
    return frame === null || frame >= length.value || taken.has(frame) ? [] : [{ ...onset, frame }]
  })
})

const frameAt = (event: PointerEvent): number => {
  const box = board.value?.getBoundingClientRect()
  return box ? Math.floor(((event.clientX - box.left) / box.width) * length.value) : 0
}
const within = (frame: number) => Math.max(0, Math.min(length.value - 1, frame))

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
    <SoundTrack
      v-for="one in sound.sounds"
      :key="one.id"
      :track="one"
      :chosen="one.id === chosen"
      :onsets="one.id === chosen ? onsets : []"
      :length="length"
      :frame-at="frameAt"
      @choose="emit('choose', one.id)"
    />
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
