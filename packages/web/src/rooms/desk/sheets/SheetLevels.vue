<script setup lang="ts">
import type { Levels } from '@unhurried/core/sheets'
import { computed, ref } from 'vue'
import type { Sheet, Sheets } from './useSheets.ts'

/** What counts as paper, and what as ink at its fullest, once the light is evened out. */
const props = defineProps<{ sheets: Sheets; sheet: Sheet }>()
const all = ref(true)
const levels = computed(() => props.sheet.levels)
function set(patch: Partial<Levels>): void {
  const next = { ...levels.value, ...patch }
  if (next.black >= next.white - 4) return
  void props.sheets.level(props.sheet, next, all.value)
}
const numberOf = (event: Event) => Number((event.target as HTMLInputElement).value)
</script>

<template>
  <div class="levels">
    <p>
      The light is evened out: paper is as bright everywhere.
      {{ sheet.taken.corners ? 'The sheet was found on its ground; what lies beyond it is left out.' : '' }}
    </p>
    <label>
      <span>paper from</span>
      <input
        type="range"
        min="40"
        max="254"
        step="1"
        :value="levels.white"
        @change="set({ white: numberOf($event) })"
      />
      <span class="n">{{ levels.white }}</span>
    </label>
    <label>
      <span>ink full at</span>
      <input type="range" min="0" max="230" step="1" :value="levels.black" @change="set({ black: numberOf($event) })" />
      <span class="n">{{ levels.black }}</span>
    </label>
    <label class="tick"><input v-model="all" type="checkbox" /> for all photographs</label>
    <button class="plain word" @click="set(sheet.taken.levels)">as they were found</button>
    <p class="soft">Hold the picture to see it as it was photographed.</p>
  </div>
</template>

<style scoped>
.levels {
  display: grid;
  gap: 8px;
  font-size: 13px;
}

label {
  display: grid;
  grid-template-columns: 74px minmax(0, 1fr) 30px;
  align-items: center;
  gap: 8px;
}

.tick {
  grid-template-columns: auto 1fr;
}

.n {
  text-align: right;
  font-variant-numeric: tabular-nums;
}

input {
  accent-color: var(--green);
}

.word {
  justify-self: start;
  min-height: 26px;
  padding: 0;
  color: var(--green);
}
</style>
