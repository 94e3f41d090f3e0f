<script setup lang="ts">
import { ElSlider } from 'element-plus'
import WordChoice from '../shared/WordChoice.vue'
import { TAKES, type Takes } from '../strokes/edits.ts'
import { settingsOf } from './tool.ts'
import { Rubbing } from './tracked.ts'

/** Settings of a tip that takes something off. */
const props = defineProps<{ name: string }>()
const rubbing = settingsOf(props.name, Rubbing)
const TAKES_WORDS: Record<Takes, string> = { all: 'all', line: 'lines', shape: 'paint' }
const TAKEN = TAKES.map(value => ({ value, words: TAKES_WORDS[value] }))
</script>

<template>
  <p class="setting">
    width <b>{{ rubbing.width }} px</b>
  </p>
  <ElSlider
    :model-value="rubbing.width"
    :min="1"
    :max="80"
    :show-tooltip="false"
    aria-label="Width"
    @update:model-value="width => (rubbing = { ...rubbing, width: Number(width) })"
  />
  <p class="choices">
    takes off
    <WordChoice
      label="Takes off"
      :options="TAKEN"
      :model-value="rubbing.takes"
      @update:model-value="takes => (rubbing = { ...rubbing, takes })"
    />
  </p>
</template>

<style scoped>
.choices {
  display: flex;
  gap: 4px;
  align-items: baseline;
}

.setting {
  display: flex;
  justify-content: space-between;
  color: var(--ink);
}
</style>
