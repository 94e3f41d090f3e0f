<script setup lang="ts">
import {
  addBeats,
  exposures,
  firstFrameOf,
  isAnimated,
  layersInOrder,
  moveBeat,
  pinKey,
  readPins,
  removeBeat,
  renameBeat,
  type Beat,
} from '@unhurried/core/document'
import {
  counted,
  framesPerBeat,
  readLength,
  secondsLabel,
  tappedBeats,
  tappedTempo,
  tempoBeats,
} from '@unhurried/core/time'
import { X } from 'lucide-vue-next'
import { ElInput, ElInputNumber, ElOption, ElSelect } from 'element-plus'
import { computed, ref } from 'vue'
import { newId } from '../../local/ids.ts'
import { useShot } from '../../stores/shot.ts'
import { oneLine } from '../../words/oneLine.ts'
import TextField from '../../shared/TextField.vue'

/** Accents that keys can be pinned to: typed, tapped, or from a tempo. */
const shot = useShot()
const fps = computed(() => shot.document?.format.fps ?? 24)
const length = computed(() => shot.take?.length ?? 1)
const beats = computed(() => Object.values(shot.document?.beats ?? {}).sort((a, b) => a.frame - b.frame))
const pins = computed(() => (shot.document && shot.take ? readPins(shot.document, shot.take) : []))

/** Keys that can be pinned, in the order of frames. */
const keys = computed(() => {
  const { document, take } = shot
  if (!document || !take) return []
  return layersInOrder(document)
    .filter(isAnimated)
    .flatMap(layer =>
      [...new Set(exposures(take, layer.id).map(run => run.drawing as string))].flatMap(id => {
        const drawing = shot.drawing(id)
        return drawing?.role === 'key' ? [{ drawing, frame: firstFrameOf(take, drawing) ?? 0, layer: layer.name }] : []
      }),
    )
})
const pinned = (beat: Beat) => pins.value.filter(pin => pin.beat === beat.id)

const name = ref('')
const at = ref('')
const reading = computed(() => (at.value.trim() ? readLength(at.value, fps.value) : null))
/** A frame is typed as it is counted, from 1; a time from 0. */
const typedFrame = computed(() => {
  const r = reading.value
  if (!r?.ok) return null
  return r.unit === 'frames' ? r.frames - 1 : r.frames
})

const added = (frames: readonly number[], word: string) =>
  shot.document ? addBeats(shot.document, frames, word, newId) : []

function addTyped(): void {
  if (typedFrame.value === null) return
  shot.commit('beat', added([typedFrame.value], oneLine(name.value) || 'beat'))
  at.value = ''
  name.value = ''
}

const tempo = ref(120)
const apart = computed(() => framesPerBeat(Math.max(1, tempo.value || 1), fps.value))
const addTempo = () =>
  shot.commit('beats of a tempo', added(tempoBeats(tempo.value, fps.value, 0, length.value), 'beat'))

const taps = ref<number[]>([])
const tapped = computed(() => tappedBeats(taps.value, fps.value, 0).filter(frame => frame < length.value))
function tap(event: Event): void {
  taps.value = [...taps.value, event.timeStamp]
}
function keepTaps(): void {
  shot.commit('tapped beats', added(tapped.value, 'tap'))
  taps.value = []
}
const tapTempo = computed(() => tappedTempo(taps.value))

function move(beat: Beat, frame: number): void {
  if (shot.document && frame !== beat.frame) shot.carryOut(`move ${beat.name}`, moveBeat(shot.document, beat.id, frame))
}

function pin(beat: Beat, drawing: string): void {
  const { take, document } = shot
  if (!take || !document) return
  shot.commit('pin a key', pinKey(take.id, drawing, beat.id))
  bring(beat)
}
/** Brings pinned keys to their beat. */
function bring(beat: Beat): void {
  if (shot.document) shot.carryOut(`keys to ${beat.name}`, moveBeat(shot.document, beat.id, beat.frame))
}
function unpin(drawing: string): void {
  if (shot.take) shot.commit('unpin a key', pinKey(shot.take.id, drawing, null))
}
function remove(beat: Beat): void {
  if (shot.document) shot.commit(`remove ${beat.name}`, removeBeat(shot.document, beat.id))
}
function rename(beat: Beat, name: string): void {
  shot.commit('name of a beat', renameBeat(beat, name))
}
const free = computed(() => keys.value.filter(key => !pins.value.some(p => p.drawing === key.drawing.id)))
const off = (n: number) => (n === 0 ? 'on it' : `${Math.abs(n)} ${n > 0 ? 'late' : 'early'}`)
</script>

<template>
  <section aria-label="Beats">
    <h2>Beats</h2>
    <ul v-if="beats.length">
      <li v-for="beat in beats" :key="beat.id">
        <ElInputNumber
          :model-value="beat.frame + 1"
          size="small"
          :min="1"
          :max="length"
          :controls="false"
          :disabled="!shot.mayDraw"
          :aria-label="`Frame of ${beat.name}`"
          @change="(n: number | undefined) => n && move(beat, n - 1)"
        />
        <span class="soft time">{{ secondsLabel(beat.frame, fps) }}</span>
        <TextField
          class="name"
          :text="beat.name"
          :most="80"
          :disabled="!shot.mayDraw"
          label="Name of the beat"
          @done="name => rename(beat, name)"
        />
        <span class="pins">
          <span v-for="p in pinned(beat)" :key="p.drawing" class="pin">
            <b class="sheet-number key">{{ shot.drawing(p.drawing)?.number }}</b>
            <button
              v-if="p.offFrames && shot.mayDraw"
              class="plain rust"
              title="Bring the key to the beat; its inbetweens follow"
              @click="bring(beat)"
            >
              {{ off(p.offFrames) }}
            </button>
            <span v-else class="ok">{{ off(p.offFrames) }}</span>
            <button v-if="shot.mayDraw" class="plain" aria-label="Unpin" @click="unpin(p.drawing)">
              <X :size="12" />
            </button>
          </span>
          <ElSelect
            v-if="shot.mayDraw && free.length && !pinned(beat).length"
            :model-value="undefined"
            placeholder="pin a key"
            size="small"
            class="choose"
            :aria-label="`Pin a key to ${beat.name}`"
            @change="(id: string) => pin(beat, id)"
          >
            <ElOption
              v-for="key in free"
              :key="key.drawing.id"
              :value="key.drawing.id"
              :label="`${key.drawing.number}, frame ${key.frame + 1}`"
            />
          </ElSelect>
        </span>
        <button v-if="shot.mayDraw" class="plain" :aria-label="`Remove ${beat.name}`" @click="remove(beat)">
          <X :size="14" />
        </button>
      </li>
    </ul>
    <p v-else class="soft small">
      Where the hits land. A key pinned to a beat moves with it, and its inbetweens follow.
    </p>
    <template v-if="shot.mayDraw">
      <form class="line" @submit.prevent="addTyped">
        <ElInput
          v-model="at"
          size="small"
          class="when"
          placeholder="13 or 0.5 s"
          aria-label="New beat: frame or time"
        />
        <ElInput
          v-model="name"
          size="small"
          class="name"
          placeholder="lands"
          maxlength="80"
          aria-label="New beat: name"
        />
        <button class="plain word" :disabled="typedFrame === null">add</button>
        <span v-if="typedFrame !== null" class="soft small">frame {{ typedFrame + 1 }}</span>
        <span v-else-if="reading" class="rust small">a frame or a time</span>
      </form>
      <div class="line">
        <button class="plain tap" @pointerdown="tap" @keydown.enter.prevent="tap" @keydown.space.prevent="tap">
          tap here
        </button>
        <template v-if="taps.length">
          <span class="small"
            >{{ counted(tapped.length, 'beat')
            }}<template v-if="tapTempo">, {{ tapTempo.toFixed(0) }} a minute</template></span
          >
          <button class="plain word" @click="keepTaps">keep</button>
          <button class="plain soft" @click="taps = []">forget</button>
        </template>
      </div>
      <div class="line">
        <ElInputNumber
          v-model="tempo"
          size="small"
          :min="20"
          :max="400"
          :controls="false"
          aria-label="Beats a minute"
        />
        <span class="small"
          >a minute: <b>{{ apart.toFixed(1) }}</b> frames apart</span
        >
        <button class="plain word" @click="addTempo">set these beats</button>
      </div>
    </template>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  max-height: 190px;
  overflow: auto;
}

li,
.line {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 2px 0;
}

.el-input-number {
  flex: none;
  width: 52px;
}

.time {
  font-size: 12px;
  width: 46px;
}

.name {
  flex: 1;
  min-width: 60px;
}

.when {
  flex: none;
  width: 92px;
}

.choose {
  width: 92px;
}

.pins,
.pin {
  display: flex;
  align-items: center;
  gap: 3px;
  font-size: 12px;
}

.ok {
  color: var(--green);
}

.tap {
  border: 1px dashed var(--past);
  border-radius: 8px;
  padding: 4px 14px;
  touch-action: manipulation;
}

.tap:active {
  background: var(--green-wash);
}

.plain {
  line-height: 1;
}
</style>
