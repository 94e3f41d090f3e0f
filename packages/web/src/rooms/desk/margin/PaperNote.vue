<script setup lang="ts">
import { setScale } from '@unhurried/core/document'
import { distance } from '@unhurried/core/geometry'
import { cutInWords } from '@unhurried/core/work'
import { computed } from 'vue'
import type { Commands } from '../commands.ts'
import { CELLS, CROP_NAMES, freshArc, GRID_PX, MOST_ARCS, type PaperAids } from '../../../paint/aids.ts'
import { useSight } from '../../../stores/sight.ts'
import { DIMS } from '../../../stores/settings.ts'
import { useMeasure } from '../../../stores/measure.ts'
import { useShot } from '../../../stores/shot.ts'
import { useStands } from '../../../stores/stands.ts'
import { TONES } from '../../../paint/stand.ts'
import NumberField from '../../../shared/NumberField.vue'
import { scaleInWords } from '../../../words/lengths.ts'
import WordChoice from '../../../shared/WordChoice.vue'

/** Lines over the paper to draw by, and how it is seen. */
defineProps<{ commands: Commands }>()
const sight = useSight()
const shot = useShot()
const measure = useMeasure()
const stands = useStands()
const height = computed(() => shot.document?.format.height ?? 720)
const set = (patch: Partial<PaperAids>) => (sight.aids = { ...sight.aids, ...patch })

const SWITCHES = [
  { name: 'safe', words: 'safe margin' },
  { name: 'thirds', words: 'thirds' },
  { name: 'rulers', words: 'rulers' },
  { name: 'room', words: 'head room' },
] as const
const lines = computed(() => [
  { name: 'grid' as const, words: 'grid of', fresh: GRID_PX.fresh, least: GRID_PX.least, most: GRID_PX.most },
  { name: 'cells' as const, words: 'squares across', fresh: CELLS.fresh, least: CELLS.least, most: CELLS.most },
  { name: 'horizon' as const, words: 'horizon at', fresh: Math.round(height.value * 0.45), least: -9999, most: 9999 },
  { name: 'ground' as const, words: 'ground at', fresh: Math.round(height.value * 0.85), least: -9999, most: 9999 },
])

const DIM_WORDS: Record<(typeof DIMS)[number], string> = { 0: 'as it is', 0.3: 'darker', 0.55: 'dark' }
const dims = DIMS.map(value => ({ value, words: DIM_WORDS[value] }))
const tones = TONES.map(value => ({
  value,
  words: value === null ? 'colours' : value === 0 ? 'greys' : `${value} tones`,
}))
const crops = [null, ...CROP_NAMES].map(value => ({
  value,
  words: value === null ? 'no' : value === 'frame' ? 'frame' : cutInWords(value),
}))
function addArc(): void {
  const { document } = shot
  if (!document) return
  set({ arcs: [...sight.aids.arcs, freshArc(document.format, measure.reading?.path?.points ?? [])] })
}

/** A length from foot to top, in the middle of the paper to begin with; told in metres, it gives the shot its scale. */
function toggleLength(): void {
  const { document } = shot
  if (!document) return
  const { width, height: high } = document.format
  const at = (share: number) => ({ x: Math.round(width / 2), y: Math.round(high * share) })
  set({ length: sight.aids.length ? null : [at(0.85), at(0.35)] })
}
const lengthPx = computed(() => (sight.aids.length ? distance(...sight.aids.length) : 0))
const metres = computed(() => {
  const scale = shot.document?.scale
  return scale && lengthPx.value ? Math.round((lengthPx.value / scale) * 100) / 100 : null
})
function takeMetres(typed: number | null): void {
  if (typed === null) shot.commit('no scale', setScale(1, null))
  else if (typed > 0 && lengthPx.value >= 1) shot.commit('scale', setScale(lengthPx.value, typed))
}
const scaleWords = computed(() =>
  shot.document?.scale ? scaleInWords(shot.document.scale, shot.document.format.fps) : '',
)

function take(name: 'grid' | 'cells' | 'horizon' | 'ground', typed: number | null, least: number, most: number): void {
  if (typed !== null && typed >= least && typed <= most) set({ [name]: typed })
}
</script>

<template>
  <div>
    <p class="switches">
      <button
        v-for="{ name, words } in SWITCHES"
        :key="name"
        class="plain"
        :class="{ on: sight.aids[name] }"
        :aria-pressed="sight.aids[name]"
        @click="set({ [name]: !sight.aids[name] })"
      >
        {{ words }}
      </button>
      <button
        class="plain"
        :class="{ on: sight.beside.on }"
        :aria-pressed="sight.beside.on"
        :title="
          commands.tip('beside', 'The loop runs small beside the paper, and has each stroke as soon as it is drawn')
        "
        @click="commands.get('beside').run()"
      >
        loop beside
      </button>
    </p>
    <p v-for="{ name, words, fresh, least, most } in lines" :key="name" class="line">
      <button
        class="plain"
        :class="{ on: sight.aids[name] !== null }"
        :aria-pressed="sight.aids[name] !== null"
        @click="set({ [name]: sight.aids[name] === null ? fresh : null })"
      >
        {{ words }}
      </button>
      <template v-if="sight.aids[name] !== null">
        <NumberField
          :value="Math.round(sight.aids[name] ?? 0)"
          :take="typed => take(name, typed, least, most)"
          :least="least"
          :most="most"
          :label="name === 'cells' ? words : `${words}, px`"
        />
        <span v-if="name !== 'cells'" class="soft">px</span>
      </template>
    </p>
    <p class="line">
      <button
        class="plain"
        :class="{ on: sight.aids.length !== null }"
        :aria-pressed="sight.aids.length !== null"
        title="Lay it along something whose height is known, and say how tall it is: gravity and flights then follow"
        @click="toggleLength"
      >
        length of
      </button>
      <template v-if="sight.aids.length !== null">
        <NumberField
          :value="metres"
          :take="takeMetres"
          :step="0.1"
          open="–"
          label="Length, metres"
          :disabled="!shot.mayDraw"
        />
        <span class="soft">m</span>
      </template>
    </p>
    <p v-if="scaleWords" class="soft scale">{{ scaleWords }}</p>
    <p class="line arcs">
      <button
        v-for="(_, i) in sight.aids.arcs"
        :key="i"
        class="plain on"
        :title="`Take arc ${i + 1} off the paper`"
        @click="set({ arcs: sight.aids.arcs.filter((_arc, k) => k !== i) })"
      >
        arc {{ i + 1 }} ×
      </button>
      <button
        v-if="sight.aids.arcs.length < MOST_ARCS"
        class="plain"
        title="An arc to draw along, with its quarters; it begins on the way of the drawings around you"
        @click="addArc"
      >
        add an arc
      </button>
    </p>
    <p class="cut">
      <span class="soft">cut</span>
      <WordChoice
        label="Cut the picture"
        :options="crops"
        :model-value="sight.aids.crop"
        @update:model-value="crop => set({ crop })"
      />
    </p>
    <p class="cut" title="Only how the paper is seen here: a white sheet does not glare at night">
      <span class="soft">seen</span>
      <WordChoice v-model="sight.dim" label="How bright the paper is seen" :options="dims" />
    </p>
    <p class="cut" title="Paper and what stands beside it in one tone, to compare how light and dark they are">
      <span class="soft">in</span>
      <WordChoice v-model="stands.tones" label="In how many tones the paper is seen" :options="tones" />
    </p>
  </div>
</template>

<style scoped>
.scale {
  margin: -2px 0 2px;
  font-size: 12px;
}

.switches {
  display: flex;
  flex-wrap: wrap;
  gap: 0 2px;
  margin: 4px -4px 2px;
}

.plain {
  font-size: 12.5px;
  border-radius: 0;
  border-bottom: 2px solid transparent;
  padding: 1px 4px;
  color: var(--soft);
}

.cut {
  display: flex;
  align-items: baseline;
  font-size: 12.5px;
}

.on {
  border-color: var(--green);
  color: var(--ink);
  font-weight: 700;
}

.line {
  display: flex;
  align-items: center;
  gap: 4px;
  margin-left: -4px;
  min-height: 25px;
}

.arcs {
  flex-wrap: wrap;
}

input {
  width: 58px;
  padding: 1px 4px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  text-align: right;
}
</style>
