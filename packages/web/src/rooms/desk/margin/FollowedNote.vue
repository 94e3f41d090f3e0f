<script setup lang="ts">
import { BY_HAND, setCeiling, stepsOfSeen, usualStepOf, type ClipPoint } from '@unhurried/core/document'
import { X } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import NumberField from '../../../shared/NumberField.vue'
import { useClipPoints } from '../../../stores/clipPoints.ts'
import { useClips } from '../../../stores/clips.ts'
import { useShot } from '../../../stores/shot.ts'
import { pxInWords } from '../../../words/lengths.ts'
import { oneLine } from '../../../words/oneLine.ts'
import { useDesk } from '../../../stores/desk.ts'
import MovementTable from './MovementTable.vue'

/** Points that are followed through the clip: put, seen how surely, their spacing, and their way as a guide. */
const shot = useShot()
const desk = useDesk()
const clips = useClips()
const points = useClipPoints()
const fresh = ref('')
const clip = computed(() => clips.one)
const busy = computed(() => points.following)
const share = computed(() => (busy.value ? Math.min(1, (busy.value.seen.length - 1) / Math.max(1, busy.value.of)) : 0))

function ask(): void {
  // One that is not named is called by its number.
  const taken = new Set(points.all.map(point => point.name))
  const numbered = Array.from({ length: taken.size + 1 }, (_, i) => `point ${i + 1}`).find(name => !taken.has(name))
  points.asks = oneLine(fresh.value) || (numbered ?? 'point')
  fresh.value = ''
}

/** How far it usually goes a frame of the shot, to a tenth of a pixel. */
const usualHere = computed(() => {
  const step = shot.document && points.one ? usualStepOf(shot.document, points.one) : null
  return step === null ? null : Math.max(0.1, Math.round(step * 10) / 10)
})

const sureInWords = (point: ClipPoint) => {
  const sure = points.sureHere(point)
  if (sure === null) return 'not seen here'
  return sure === BY_HAND ? 'put by hand' : `${Math.round(sure * 100)} % alike`
}
const lost = (point: ClipPoint) => (busy.value?.point.id === point.id ? null : points.lostOn(point))

/** The steps of the chosen point as bars, the one that leads to the present picture marked. */
const [WIDTH, HEIGHT] = [194, 40]
const steps = computed(() => (clip.value && points.one ? stepsOfSeen(clip.value, points.one) : []))
const most = computed(() => Math.max(0.01, ...steps.value))
const wide = computed(() => WIDTH / Math.max(1, steps.value.length))
const hereIndex = computed(() => {
  const number = clip.value && clips.numberUnder(clip.value, desk.frame)
  const s = number === null || !clip.value ? undefined : clips.openedOf(clip.value)?.times.value[number]
  return s === undefined ? -1 : (points.one?.places.findIndex(place => Math.abs(place.s - s) < 0.002) ?? -1)
})
const spacing = computed(() => {
  const moved = steps.value.filter(step => step >= 0.35).sort((a, b) => a - b)
  if (moved.length === 0) return 'It does not move.'
  const usual = moved[moved.length >> 1] as number
  const here = steps.value[hereIndex.value - 1]
  const now = here === undefined ? '' : `${pxInWords(here)} px to here; `
  return `${now}usually ${pxInWords(usual)} px a picture, at most ${pxInWords(most.value)}`
})

/** Where it lies, pixels of the paper: for those who put it by numbers. */
const at = computed(() => (points.one ? points.seenHere(points.one) : null))
function putBy(field: 'x' | 'y', value: number | null): void {
  if (points.one && at.value && value !== null) void points.put(points.one, { ...at.value, [field]: value })
}
/** A point that is not seen here is put where the clip's middle is, and moved from there. */
function putHere(point: ClipPoint): void {
  points.chosen = point.id
  points.asks = point.id
}
</script>

<template>
  <p v-if="!clip" class="soft told">
    A nose, a heel, the tip of a reed is followed through a clip: its path, its spacing, when it sets out and arrives,
    and its way as a guide for your own drawings. Bring a clip in first.
  </p>
  <div v-else class="fields">
    <ul v-if="points.all.length">
      <li v-for="point in points.all" :key="point.id" :class="{ on: point.id === points.one?.id }">
        <button
          class="plain name"
          :aria-pressed="point.id === points.one?.id"
          title="Shows its spacing"
          @click="points.chosen = point.id"
        >
          {{ point.name }}
        </button>
        <span class="soft">{{ sureInWords(point) }}</span>
        <button
          v-if="shot.mayDraw && !busy"
          class="plain soft x"
          :aria-label="`Remove the followed point ${point.name}`"
          @click="points.remove(point)"
        >
          <X :size="13" />
        </button>
        <p v-if="lost(point) !== null" class="why lost">
          lost from
          <button class="plain" title="Go there" @click="desk.goTo(lost(point)!)">frame {{ lost(point)! + 1 }}</button>
          on
          <button v-if="shot.mayDraw" class="plain word" title="Then press where it is" @click="putHere(point)">
            put it here
          </button>
        </p>
      </li>
    </ul>
    <p v-if="busy" class="told" role="status">
      following {{ busy.point.name }}, {{ Math.round(share * 100) }} %
      <button class="plain word" @click="points.callOff()">stop</button>
    </p>
    <form v-else-if="shot.mayDraw" @submit.prevent="ask">
      <input
        v-model="fresh"
        type="text"
        class="fresh"
        placeholder="nose, heel, tip of a reed …"
        maxlength="80"
        aria-label="Name of a point to follow"
      />
      <button class="plain word" title="Then press on the paper where it is">follow</button>
    </form>
    <template v-if="points.one && steps.length">
      <svg
        :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
        role="img"
        :aria-label="`How far ${points.one.name} goes with each picture: ${spacing}`"
      >
        <rect
          v-for="(step, i) in steps"
          :key="i"
          :x="i * wide"
          :y="HEIGHT - (step / most) * HEIGHT"
          :width="Math.max(0.6, wide - 0.5)"
          :height="(step / most) * HEIGHT"
          :class="{ here: i === hereIndex - 1 }"
        />
      </svg>
      <p class="told">{{ spacing }}</p>
      <template v-if="at && !busy">
        <label v-for="field in ['x', 'y'] as const" :key="field">
          <span>{{ field === 'x' ? 'it lies, right' : 'and down' }}</span>
          <NumberField
            :value="Math.round(at[field] * 10) / 10"
            :take="n => putBy(field, n)"
            :step="1"
            :disabled="!shot.mayDraw"
            :label="`${points.one.name}: ${field === 'x' ? 'to the right' : 'down'}, px`"
          />
          <span class="soft">px</span>
        </label>
      </template>
      <p v-if="shot.mayDraw && !busy" class="acts">
        <button
          class="plain word"
          title="Its path and ticks on your paper, for the layer in the hand; every step as far, or so many times as far"
          @click="points.asGuide(points.one)"
        >
          its way as a guide
        </button>
        <button
          v-if="usualHere !== null"
          class="plain word"
          title="Whatever of yours goes farther a frame than it usually does is told among the findings"
          @click="shot.commit('ceiling of steps', setCeiling(usualHere))"
        >
          its usual step as my ceiling
        </button>
      </p>
    </template>
    <MovementTable v-if="points.tracks.length" :tracks="points.tracks" />
  </div>
</template>

<style scoped src="./fields.css"></style>
<style scoped src="./named.css"></style>
<style scoped>
li {
  flex-wrap: wrap;
}

.lost {
  flex-basis: 100%;
  font-size: 12px;
}

.lost button {
  color: var(--rust);
  font-weight: 700;
}

input.fresh {
  flex: 1;
  width: 0;
  text-align: left;
}

svg {
  display: block;
  width: 100%;
  margin: 4px 0 2px;
}

rect {
  fill: var(--past);
}

rect.here {
  fill: var(--rust);
}
</style>
