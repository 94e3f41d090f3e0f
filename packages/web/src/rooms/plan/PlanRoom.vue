<script setup lang="ts">
import PlanBeats from './PlanBeats.vue'
import PlanBudget from './PlanBudget.vue'
import PlanDestinations from './PlanDestinations.vue'
import PlanFormat from './PlanFormat.vue'
import PlanNotes from './PlanNotes.vue'
import PlanStudy from './PlanStudy.vue'
import PlanSamples from './PlanSamples.vue'
import PlanSound from './sound/PlanSound.vue'
import PlanWay from './PlanWay.vue'
import { useKeys } from '../../keys/listen.ts'
import { useShelves } from '../../stores/shelves.ts'
import { useShot } from '../../stores/shot.ts'

const shot = useShot()
const bitmaps = useShelves().remote
const may = () => shot.mayDraw
useKeys([
  { id: 'undo', words: 'undo', group: 'Hand', keys: ['q', 'ctrl+z'], can: may, run: shot.undo },
  { id: 'redo', words: 'redo', group: 'Hand', keys: ['shift+q', 'ctrl+shift+z', 'ctrl+y'], can: may, run: shot.redo },
])
</script>

<template>
  <main class="plan" aria-label="Plan">
    <div class="column">
      <PlanFormat />
      <PlanWay />
      <PlanBudget />
      <PlanStudy />
    </div>
    <div class="column wide">
      <PlanSamples />
      <PlanSound />
      <div class="pair">
        <PlanBeats />
        <PlanNotes />
      </div>
      <PlanDestinations :bitmaps="bitmaps" />
    </div>
  </main>
</template>

<style scoped>
.plan {
  display: grid;
  grid-template-columns: 286px minmax(0, 1fr);
  min-height: 0;
  overflow: auto;
  background: var(--edge);
}

.column {
  padding: 4px 24px 24px;
}

.wide {
  border-left: 1px solid var(--rule);
}

.plan :deep(section) {
  padding: 14px 0 16px;
}

.column > :deep(section + section),
.column > .pair,
.column > .pair + :deep(section) {
  border-top: 1px solid var(--rule);
}

.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 30px;
}

.plan :deep(h2) {
  font: 500 17px var(--serif);
  margin-bottom: 6px;
}

.plan :deep(.label) {
  font-size: 12.5px;
  color: var(--soft);
  white-space: nowrap;
}

.plan :deep(.word) {
  color: var(--green);
  margin-left: -4px;
  white-space: nowrap;
}

.plan :deep(.small) {
  font-size: 12.5px;
}

@media (width < 1160px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
}
</style>
