<script setup lang="ts">
import WordChoice from '../../shared/WordChoice.vue'
import { settingsOf } from '../tool.ts'
import { Gathering } from './settings.ts'

const gathering = settingsOf('gather', Gathering)
const BY = [
  { value: 'loop', words: 'loop' },
  { value: 'box', words: 'box' },
] as const
const PARTS = [
  { value: false, words: 'whole' },
  { value: true, words: 'cut where it crosses' },
] as const
</script>

<template>
  <p class="choices">
    gather with a
    <WordChoice
      label="Gather by"
      :options="BY"
      :model-value="gathering.by"
      @update:model-value="by => (gathering = { ...gathering, by })"
    />
  </p>
  <p class="choices">
    strokes
    <WordChoice
      label="Gather strokes"
      :options="PARTS"
      :model-value="gathering.parts"
      @update:model-value="parts => (gathering = { ...gathering, parts })"
    />
  </p>
  <p class="soft">Shift adds to what is gathered, Alt takes away; a tap takes one stroke.</p>
</template>

<style scoped>
.choices {
  display: flex;
  gap: 4px;
  align-items: baseline;
}
</style>
