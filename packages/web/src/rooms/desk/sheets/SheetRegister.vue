<script setup lang="ts">
import { similarityOf } from '@unhurried/core/geometry'
import { PARTINGS, REGISTRATIONS, type Parting, type Registration } from '@unhurried/core/sheets'
import { counted } from '@unhurried/core/time'
import { computed } from 'vue'
import NumberField from '../../../shared/NumberField.vue'
import WordChoice from '../../../shared/WordChoice.vue'
import type { LaidPart, Sheet, Sheets } from './useSheets.ts'

/** What the drawings of the sheets are, and by what they are laid on one another; with what was found, and put right by hand. */
const props = defineProps<{ sheets: Sheets; sheet: Sheet; drawing: LaidPart | null; step: 'drawings' | 'lay' }>()
const emit = defineEmits<{ key: [key: string] }>()
const PARTED: Record<Parting, string> = {
  whole: 'each sheet one',
  rows: 'in rows',
  cells: 'in rows of cells',
  loose: 'loose, anywhere',
}
const LAID: Record<Registration, { words: string; tip: string }> = {
  'one another': { words: 'one another', tip: 'What is drawn stays where it is: words, a face that shivers' },
  'a region': {
    words: 'a region',
    tip: 'The drawing moves, and something of it stays: a head, a post; drag a box over it',
  },
  'peg holes': { words: 'peg holes', tip: 'The drawing moves; the holes of the paper say where it was' },
  crosses: { words: 'crosses', tip: 'The drawing moves; crosses near the edges say where it was' },
  edges: { words: 'the paper’s edges', tip: 'The drawing moves; the edges of the sheet say where it was' },
  'as they lie': { words: 'nothing', tip: 'Middle on middle' },
}
const partings = PARTINGS.map(value => ({ value, words: PARTED[value] }))
const registrations = REGISTRATIONS.map(value => ({ value, ...LAID[value] }))
const DEGREES = 180 / Math.PI
const hundredth = (n: number) => Math.round(n * 100) / 100 + 0

const all = computed(() => props.sheets.drawings.value)
const place = computed(() => all.value.findIndex(one => one.key === props.drawing?.key))
const told = computed(() => {
  const found = props.drawing?.told
  if (!found) return ''
  if (place.value === 0) return 'All others are laid on this one.'
  if (found.lost) return 'It could not be laid so: it lies in the middle. Put it right by hand, or choose another way.'
  const { turnRad, scale } = similarityOf(found.matrix)
  const by = `turned ${hundredth(turnRad * DEGREES)}°, ${hundredth(scale * 100)} % as large`
  if (found.marks)
    return `${counted(found.marks.count, 'mark')} brought together, at most ${hundredth(found.marks.offPx)} px off: ${by}`
  return found.alike === null ? by : `${Math.round(found.alike * 100)} % of the ink on ink: ${by}`
})
const NUDGES = [
  { field: 'x', words: 'right', unit: 'px', step: 1 },
  { field: 'y', words: 'down', unit: 'px', step: 1 },
  { field: 'turnRad', words: 'turned', unit: '°', step: 0.1 },
  { field: 'scale', words: 'as large', unit: '×', step: 0.01 },
] as const
function nudge(field: 'x' | 'y' | 'turnRad' | 'scale', value: number | null): void {
  if (!props.drawing || value === null) return
  const kept = field === 'turnRad' ? value / DEGREES : field === 'scale' ? Math.max(0.2, Math.min(5, value)) : value
  props.sheets.nudge(props.drawing.key, { [field]: kept })
}
const SIDES = [
  { side: 'left', words: 'from the left' },
  { side: 'top', words: 'from above' },
  { side: 'right', words: 'to the right' },
  { side: 'bottom', words: 'down to' },
] as const
function setSide(side: (typeof SIDES)[number]['side'], value: number | null): void {
  const { region } = props.sheets
  if (!region.value || value === null) return
  const next = { ...region.value, [side]: value }
  if (next.right - next.left >= LEAST_REGION && next.bottom - next.top >= LEAST_REGION) props.sheets.setRegion(next)
}
const LEAST_REGION = 8
const go = (by: 1 | -1) => {
  const next = all.value[place.value + by]
  if (next) emit('key', next.key)
}
</script>

<template>
  <div class="register">
    <template v-if="step === 'drawings'">
      <WordChoice
        :model-value="sheets.parting.value"
        label="How drawings are told apart"
        :options="partings"
        @update:model-value="sheets.setParting"
      />
      <p>
        <b>{{ counted(sheet.boxes.length, 'drawing') }}</b> on this sheet, {{ all.length }} altogether.
        <template v-if="sheet.boxes.length === 0">Drag a box round one.</template>
      </p>
      <p class="soft">Drag over the sheet to put a box round a drawing; press × to leave one out.</p>
      <button v-if="sheet.byHand" class="plain word" @click="sheets.findAgain(sheet)">find them again</button>
    </template>
    <template v-else>
      <p class="soft">laid on</p>
      <WordChoice
        :model-value="sheets.by.value"
        label="By what they are laid on one another"
        :options="registrations"
        @update:model-value="sheets.setBy"
      />
      <p v-if="sheet.inked && ['peg holes', 'crosses'].includes(sheets.by.value)" class="soft">
        {{ counted(sheet.inked.marks, 'mark') }} found on this sheet.
      </p>
      <template v-if="sheets.region.value">
        <p class="soft">Drag a box over what stays, while the first drawing is seen.</p>
        <label v-for="{ side, words } in SIDES" :key="side">
          <span>{{ words }}</span>
          <NumberField
            :value="Math.round(sheets.region.value[side])"
            :take="n => setSide(side, n)"
            :step="5"
            :label="`The region, ${words}, px`"
          />
          <span class="soft">px</span>
        </label>
      </template>
      <template v-if="drawing">
        <p class="which">
          <button class="plain" :disabled="place <= 0" aria-label="The drawing before" @click="go(-1)">‹</button>
          <b>drawing {{ place + 1 }} of {{ all.length }}</b>
          <button class="plain" :disabled="place >= all.length - 1" aria-label="The drawing after" @click="go(1)">
            ›
          </button>
        </p>
        <p :class="{ why: drawing.told?.lost && place > 0 }">{{ told }}</p>
        <label v-for="{ field, words, unit, step: by } in NUDGES" :key="field">
          <span>{{ words }}</span>
          <NumberField
            :value="hundredth(field === 'turnRad' ? drawing.nudge.turnRad * DEGREES : drawing.nudge[field])"
            :take="n => nudge(field, n)"
            :step="by"
            :label="`By hand, ${words}, ${unit}`"
          />
          <span class="soft">{{ unit }}</span>
        </label>
        <p class="soft">Arrow keys over the picture move it by a pixel, with Shift by ten.</p>
      </template>
    </template>
  </div>
</template>

<style scoped>
.register {
  display: grid;
  gap: 7px;
  font-size: 13px;
}

.which {
  display: flex;
  align-items: center;
  gap: 6px;
}

.which button {
  min-width: 26px;
  min-height: 26px;
}

label {
  display: grid;
  grid-template-columns: 70px 64px 1fr;
  align-items: center;
  gap: 6px;
}

label :deep(input) {
  min-height: 24px;
  padding: 1px 5px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  text-align: right;
}

.why {
  color: var(--rust);
}

.word {
  justify-self: start;
  min-height: 26px;
  padding: 0;
  color: var(--green);
}
</style>
