<script setup lang="ts">
import PlanBeats from '../components/PlanBeats.vue'
import PlanBudget from '../components/PlanBudget.vue'
import PlanDestinations from '../components/PlanDestinations.vue'
import PlanFormat from '../components/PlanFormat.vue'
import PlanNotes from '../components/PlanNotes.vue'
import PlanSamples from '../components/PlanSamples.vue'
import PlanWay from '../components/PlanWay.vue'
import { bitmapShelf } from '../desk/bitmaps.ts'
import { useShot } from '../stores/shot.ts'

const shot = useShot()
const bitmaps = bitmapShelf(shot.book)
</script>

<template>
  <main class="plan" aria-label="Plan">
    <PlanFormat class="format" />
    <PlanSamples class="samples" />
    <PlanBudget class="budget" />
    <PlanBeats class="beats" />
    <PlanNotes class="notes" />
    <PlanWay class="way" />
    <PlanDestinations class="destinations" :bitmaps="bitmaps" />
  </main>
</template>

<style scoped>
.plan {
  display: grid;
  grid-template-columns: minmax(230px, 290px) minmax(0, 1fr) minmax(0, 1fr);
  grid-template-areas:
    'format samples samples'
    'way beats notes'
    'budget destinations destinations';
  grid-template-rows: auto auto 1fr;
  gap: 0;
  min-height: 0;
  overflow: auto;
  padding: 6px 26px 30px;
}

.plan > :deep(section) {
  padding: 14px 26px 16px 0;
}

.plan > :deep(section + section) {
  border-top: 0;
}

.plan :deep(h2) {
  font: 500 17px var(--serif);
  margin-bottom: 6px;
}

.plan :deep(.label) {
  font-size: 12.5px;
  color: var(--soft);
}

.plan :deep(.word) {
  color: var(--green);
  margin-left: -4px;
  white-space: nowrap;
}

.plan :deep(.small) {
  font-size: 12.5px;
}

.format {
  grid-area: format;
}

.samples {
  grid-area: samples;
}

.budget {
  grid-area: budget;
}

.beats {
  grid-area: beats;
}

.notes {
  grid-area: notes;
}

.way {
  grid-area: way;
}

.destinations {
  grid-area: destinations;
}

.samples,
.beats,
.notes,
.destinations {
  padding-left: 26px;
  border-left: 1px solid var(--rule);
}

.way,
.beats,
.notes,
.budget,
.destinations {
  border-top: 1px solid var(--rule);
}
</style>
