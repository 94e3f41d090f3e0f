<script setup lang="ts">
import NumberField from '../../shared/NumberField.vue'
import { KEEPS, type Keeps } from '../../strokes/figures.ts'
import { settingsOf } from '../tool.ts'
import { Round } from './settings.ts'

/** How rounds are pulled, and the body they are at rest. */
const round = settingsOf('round', Round)
const KEEPS_WORDS: Record<Keeps, string> = { free: 'free', area: 'area', volume: 'volume' }
const KEEPS_TIPS: Record<Keeps, string> = {
  free: 'From corner to corner',
  area: 'Pulled from its middle, its area kept: a flat shape squashed and stretched',
  volume: 'Pulled from its middle, its volume kept: a body as deep as it is wide',
}
function setRadius(radius: number | null): void {
  if (radius !== null && radius >= 1 && radius <= 4000) round.value = { ...round.value, radius }
}
</script>

<template>
  <div class="keeps" role="radiogroup" aria-label="Pulled">
    <button
      v-for="keeps in KEEPS"
      :key="keeps"
      class="beside"
      role="radio"
      :aria-checked="round.keeps === keeps"
      :class="{ on: round.keeps === keeps }"
      :title="KEEPS_TIPS[keeps]"
      @click="round = { ...round, keeps }"
    >
      {{ KEEPS_WORDS[keeps] }}
    </button>
    <label v-if="round.keeps !== 'free'" class="rest" title="Radius of the body at rest, in paper pixels">
      rest
      <NumberField :value="round.radius" :take="setRadius" :least="1" :most="4000" label="Radius at rest, px" />
    </label>
    <button
      class="beside"
      :aria-pressed="round.painted"
      :class="{ on: round.painted }"
      @click="round = { ...round, painted: !round.painted }"
    >
      painted
    </button>
  </div>
</template>

<style scoped>
.keeps {
  display: grid;
  grid-template-rows: repeat(3, auto);
  grid-auto-flow: column;
  gap: 1px 2px;
}

.rest {
  display: flex;
  align-items: center;
  gap: 4px;
  font-size: 11.5px;
  color: var(--soft);
}

.rest input {
  width: 38px;
  padding: 0 3px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  font-size: 11.5px;
  text-align: right;
}
</style>
