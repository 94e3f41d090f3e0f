<script setup lang="ts">
import { EASES, type EaseName, type Wish } from '@unhurried/core/chart'
import { canLieByHalves, placesBetween, sharesBetween, type PathKey } from '@unhurried/core/path'
import { computed } from 'vue'
import CurvePad from '../../../shared/CurvePad.vue'
import { chosenWish, EASE_WORDS, hasStrength } from '../../../stores/chart.ts'
import { useKit } from '../../../stores/kit.ts'

/** How the way of a layer from one place to the next (frames from 0, each place kept for `on`) is spaced: as a chart is, drawn or by halves. */
const props = defineProps<{
  from: PathKey
  to: number
  on: number
  shut: boolean
  space: (patch: Partial<Pick<PathKey, 'wish' | 'halves'>>) => void
}>()
const kit = useKit()

const frames = computed(() => props.to - props.from.frame)
const places = computed(() => placesBetween(frames.value, props.on))
const canHalve = computed(() => canLieByHalves(frames.value, props.on))
const at = computed(() => sharesBetween(props.from, frames.value, props.on))
const eases = computed(() => EASES.filter(ease => ease !== 'hand' || props.from.wish.ease === 'hand'))
const isWhole = computed(() => props.from.wish.ease !== 'even' || (props.from.halves && canHalve.value))
const wish = (patch: Partial<Wish>) => props.space({ wish: { ...props.from.wish, ...patch } })
const choose = (ease: EaseName) => props.space({ wish: chosenWish(props.from.wish, ease) })
const copy = () => (kit.chartInHand = { wish: props.from.wish, count: canHalve.value ? places.value : 0 })
/** A chart's halves come along; so many places as it has drawings there need not be. */
const lay = () => kit.chartInHand && props.space({ wish: kit.chartInHand.wish, halves: canHalve.value })
</script>

<template>
  <label>
    <span>to {{ to + 1 }}</span>
    <select
      :value="from.wish.ease"
      :disabled="shut"
      @change="event => choose((event.target as HTMLSelectElement).value as EaseName)"
    >
      <option v-for="ease in eases" :key="ease" :value="ease">{{ EASE_WORDS[ease] }}</option>
    </select>
  </label>
  <label v-if="hasStrength(from.wish.ease)">
    <span>by how much</span>
    <input
      type="range"
      min="0"
      max="1"
      step="0.05"
      :value="from.wish.strength"
      :disabled="shut"
      @change="event => wish({ strength: Number((event.target as HTMLInputElement).value) })"
    />
  </label>
  <CurvePad
    v-if="isWhole"
    :wish="from.wish"
    :places="at"
    high
    :joined="from.halves && canHalve"
    :editable="from.wish.ease === 'curve' && !shut"
    @drawn="points => wish({ points })"
  />
  <p v-if="from.wish.ease === 'curve' && !shut" class="soft told">Draw it: time to the right, way upwards.</p>
  <label
    v-if="canHalve"
    title="The places lie where drawings of a chart would, so that the layer keeps step with what is drawn"
  >
    <span>by halves, like drawings</span>
    <input
      type="checkbox"
      :checked="from.halves"
      :disabled="shut"
      @change="event => space({ halves: (event.target as HTMLInputElement).checked })"
    />
  </label>
  <label v-if="canHalve && from.halves">
    <span>thirds allowed</span>
    <input
      type="checkbox"
      :checked="from.wish.thirds"
      :disabled="shut"
      @change="event => wish({ thirds: (event.target as HTMLInputElement).checked })"
    />
  </label>
  <p class="acts">
    <button class="plain word" title="Takes this spacing in the hand, for a chart or another way" @click="copy">
      copy this chart
    </button>
    <button v-if="kit.chartInHand && !shut" class="plain word" @click="lay">lay the copied one here</button>
  </p>
</template>

<style scoped src="./fields.css"></style>
<style scoped>
label:has(input[type='range']) {
  grid-template-columns: auto minmax(0, 1fr);
}

label:has(input[type='checkbox']) {
  grid-template-columns: minmax(0, 1fr) auto;
}

input[type='range'] {
  padding: 0;
  accent-color: var(--green);
}
</style>
