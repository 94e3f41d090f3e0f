<script setup lang="ts">
import { besideTiming, holdsOf, readingInWords } from '@unhurried/core/clip'
import { clipEnds, exposures, framesOfReading, type FilmClip } from '@unhurried/core/document'
import { counted } from '@unhurried/core/time'
import { computed } from 'vue'
import { useClips } from '../../../stores/clips.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'

/** Where a clip changes its picture: as a plot whose line can be moved, as a strip of drawings, in words; and taken as a timing. */
const props = defineProps<{ clip: FilmClip; times: readonly number[] }>()
const shot = useShot()
const desk = useDesk()
const clips = useClips()
const read = computed(() => (clips.read?.clip === props.clip.id ? clips.read : null))
const [WIDTH, HEIGHT] = [194, 54]
/** Changes are of very different sizes: each ten times larger is as much higher. */
const LEAST = 0.1
const most = computed(() => Math.max(10, ...(read.value?.reading.changes ?? [])))
const up = (amount: number) => Math.max(0, Math.log(amount / LEAST) / Math.log(most.value / LEAST)) * HEIGHT
const amountAt = (height: number) => LEAST * (most.value / LEAST) ** (height / HEIGHT)
const step = computed(() => WIDTH / Math.max(1, read.value?.reading.changes.length ?? 1))
const bars = computed(() =>
  (read.value?.reading.changes ?? []).map((amount, i) => ({ x: i * step.value, height: up(amount), i })),
)
const starts = computed(() => new Set(read.value?.reading.starts ?? []))
const strip = computed(() => {
  const { reading } = read.value ?? {}
  if (!reading) return []
  return holdsOf(reading).map((frames, i) => ({
    x: (reading.starts[i] ?? 0) * step.value,
    width: frames * step.value,
    odd: i % 2 === 1,
  }))
})
/** The picture that lies under the frame one stands on. */
const here = computed(() => {
  const number = clips.numberUnder(props.clip, desk.frame)
  return number === null || !read.value ? null : number - read.value.first
})
const slider = computed(() => (read.value ? up(read.value.reading.threshold) : 0))
const timesRead = computed(() => props.times.slice(read.value?.first ?? 0))

/** The timing of the layer in the hand beside that of the clip, over the frames under which it lies. */
const beside = computed(() => {
  const { document, take } = shot
  if (!document || !take || !read.value) return null
  const { fps } = document.format
  const to = Math.min(take.length, clipEnds(props.clip, fps))
  const theirs = framesOfReading(props.clip, fps, read.value.reading, timesRead.value).filter(frame => frame < to)
  const own = exposures(take, desk.timedLayer)
    .map(run => run.start)
    .filter(start => start >= props.clip.from && start < to)
  return own.length === 0 ? null : { ...besideTiming(theirs, own), own }
})
const ownStrip = computed(() => {
  const first = read.value?.first ?? 0
  const at = (beside.value?.own ?? []).map(frame => (clips.numberUnder(props.clip, frame) ?? first) - first)
  const end = read.value?.reading.changes.length ?? 0
  return at.map((picture, i) => ({
    x: picture * step.value,
    width: Math.max(0, (at[i + 1] ?? end) - picture) * step.value,
    odd: i % 2 === 1,
  }))
})
const FEW = 4
const late = (by: number) => `${counted(Math.abs(by), 'frame')} ${by > 0 ? 'later' : 'earlier'}`
const differences = computed(() => {
  const { pairs, onlyTheirs, onlyOwn } = beside.value ?? { pairs: [], onlyTheirs: [], onlyOwn: [] }
  return [
    ...pairs.filter(pair => pair.by !== 0).map(pair => ({ frame: pair.own, words: `yours ${late(pair.by)}` })),
    ...onlyTheirs.map(frame => ({ frame, words: 'none of yours' })),
    ...onlyOwn.map(frame => ({ frame, words: 'none of its' })),
  ].sort((a, b) => a.frame - b.frame)
})
const layerName = computed(() => shot.document?.layers[desk.timedLayer]?.name ?? '')
</script>

<template>
  <p v-if="clips.progress !== null" class="told" role="status">
    looking through it, {{ Math.round(clips.progress * 100) }} %
  </p>
  <p v-else-if="!read" class="acts">
    <button
      class="plain word"
      title="How many drawings it has, on ones, twos or threes, and where it holds"
      @click="clips.look(clip)"
    >
      read its timing
    </button>
  </p>
  <template v-else>
    <p class="told">{{ readingInWords(read.reading) }}</p>
    <svg
      :viewBox="`0 0 ${WIDTH} ${HEIGHT + (beside ? 30 : 16)}`"
      role="img"
      aria-label="How much each picture differs from the one before; above the line a drawing begins"
    >
      <rect
        v-for="bar in bars"
        :key="bar.i"
        :x="bar.x"
        :y="HEIGHT - bar.height"
        :width="Math.max(0.6, step - 0.4)"
        :height="bar.height"
        :class="{ begins: starts.has(bar.i) }"
      />
      <line x1="0" :x2="WIDTH" :y1="HEIGHT - slider" :y2="HEIGHT - slider" class="line" />
      <rect
        v-for="one in strip"
        :key="`s${one.x}`"
        :x="one.x"
        :y="HEIGHT + 4"
        :width="Math.max(0.5, one.width - 0.5)"
        height="10"
        rx="1.5"
        class="drawing"
        :class="{ odd: one.odd }"
      />
      <rect
        v-for="one in ownStrip"
        :key="`o${one.x}`"
        :x="one.x"
        :y="HEIGHT + 18"
        :width="Math.max(0.5, one.width - 0.5)"
        height="10"
        rx="1.5"
        class="own"
        :class="{ odd: one.odd }"
      />
      <line
        v-if="here !== null && here >= 0"
        :x1="(here + 0.5) * step"
        :x2="(here + 0.5) * step"
        y1="0"
        :y2="HEIGHT + (beside ? 30 : 16)"
        class="here"
      />
    </svg>
    <template v-if="beside">
      <p class="told">
        Below, {{ layerName }}:
        {{
          differences.length === 0
            ? 'it changes where the clip does.'
            : `${beside.pairs.length - beside.pairs.filter(pair => pair.by !== 0).length} of its ${beside.own.length} drawings begin with the clip’s.`
        }}
      </p>
      <p v-if="differences.length" class="acts told">
        <button
          v-for="one in differences.slice(0, FEW)"
          :key="`${one.frame} ${one.words}`"
          class="plain differs"
          :title="`Go to frame ${one.frame + 1}`"
          @click="desk.goTo(one.frame)"
        >
          {{ one.frame + 1 }}: {{ one.words }}
        </button>
        <span v-if="differences.length > FEW" class="soft">and {{ differences.length - FEW }} more</span>
      </p>
    </template>
    <label class="wide">
      <span>new from</span>
      <input
        type="range"
        min="0"
        :max="HEIGHT"
        step="0.25"
        :value="slider"
        aria-label="How much has to change for a new drawing"
        @input="event => clips.threshold(amountAt(Number((event.target as HTMLInputElement).value)))"
      />
    </label>
    <p class="acts">
      <button
        class="plain word"
        title="Finds the line again from the changes themselves"
        @click="clips.threshold(null)"
      >
        find it
      </button>
      <button
        v-if="here !== null && here > 0"
        class="plain word"
        :title="
          'The picture under this frame ' + (starts.has(here) ? 'goes on with the one before' : 'begins a drawing')
        "
        @click="clips.correct(here)"
      >
        {{ starts.has(here) ? 'no new drawing here' : 'a new drawing here' }}
      </button>
      <button
        v-if="shot.mayDraw"
        class="plain word"
        title="A take in which this layer changes where the clip does"
        @click="clips.takeTiming(clip, read.reading, timesRead)"
      >
        take its timing
      </button>
    </p>
  </template>
</template>

<style scoped src="./fields.css"></style>
<style scoped>
svg {
  display: block;
  width: 100%;
  margin: 3px 0;
}

rect {
  fill: var(--rule);
}

.begins {
  fill: var(--ink);
}

.drawing {
  fill: var(--past);
}

.drawing.odd {
  fill: var(--hold);
}

.own {
  fill: var(--future);
}

.own.odd {
  opacity: 0.55;
}

.differs {
  min-height: 22px;
  padding: 0 2px;
  color: var(--rust);
  font-size: 12px;
}

.line {
  stroke: var(--rust);
  stroke-dasharray: 3 2;
}

.here {
  stroke: var(--green);
  stroke-width: 1.5;
}

.wide {
  grid-template-columns: auto minmax(0, 1fr);
}

input[type='range'] {
  padding: 0;
  accent-color: var(--rust);
}
</style>
