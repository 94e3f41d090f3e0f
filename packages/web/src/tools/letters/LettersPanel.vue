<script setup lang="ts">
import { ElSlider } from 'element-plus'
import { computed } from 'vue'
import { FACE_WORDS, FACES, LETTERS } from '../../strokes/letters.ts'
import { useLetters } from '../../stores/letters.ts'
import WordChoice from '../../shared/WordChoice.vue'

/** What is written, and how: the settings of the letters in the hand. */
const letters = useLetters()
const STYLES = {
  plain: 'sans',
  'plain-bold': 'sans bold',
  book: 'serif',
  'book-italic': 'serif italic',
  'book-heavy': 'serif bold',
}
const faces = FACES.map(value => ({ value, words: FACE_WORDS[value], look: STYLES[value] }))
const missing = computed(() => letters.shaped?.missing ?? [])
</script>

<template>
  <div class="letters">
    <textarea
      :value="letters.settings.text"
      rows="2"
      :maxlength="LETTERS.most"
      aria-label="Letters to write"
      placeholder="what is to be written"
      @input="event => letters.set({ text: (event.target as HTMLTextAreaElement).value })"
    />
    <WordChoice
      label="Typeface"
      :options="faces"
      :model-value="letters.settings.face"
      @update:model-value="face => letters.set({ face })"
    />
    <p class="row">
      <span
        >size <b>{{ Math.round(letters.settings.sizePx) }} px</b></span
      >
      <ElSlider
        :model-value="letters.settings.sizePx"
        :min="LETTERS.least"
        :max="400"
        :show-tooltip="false"
        aria-label="Size of the letters"
        @update:model-value="sizePx => letters.set({ sizePx: sizePx as number })"
      />
    </p>
    <p class="row">
      <span
        >apart <b>{{ Math.round(letters.settings.spacing * 100) }} %</b></span
      >
      <ElSlider
        :model-value="letters.settings.spacing"
        :min="0"
        :max="LETTERS.loosest"
        :step="0.01"
        :show-tooltip="false"
        aria-label="Space between letters"
        @update:model-value="spacing => letters.set({ spacing: spacing as number })"
      />
    </p>
    <WordChoice
      label="Letters are"
      :options="[
        { value: false, words: 'painted' },
        { value: true, words: 'lines with the pen in the hand' },
      ]"
      :model-value="letters.settings.outlined"
      @update:model-value="outlined => letters.set({ outlined })"
    />
    <p v-if="letters.broken" class="rust">The typeface could not be fetched. It is tried again with the next change.</p>
    <p v-else-if="missing.length" class="rust">This typeface has no {{ missing.join(' ') }}.</p>
    <p v-else class="soft">
      Press on the paper, lay the letters where they belong, let go. They stay strokes like others.
    </p>
  </div>
</template>

<style scoped>
.letters {
  display: flex;
  flex-direction: column;
  gap: 8px;
}

textarea {
  resize: vertical;
  padding: 6px 8px;
  border: 1px solid var(--rule);
  border-radius: 6px;
  background: var(--paper);
  color: var(--ink);
  font: 15px/1.35 var(--serif);
}

.row {
  display: grid;
  grid-template-columns: 96px 1fr;
  align-items: center;
  gap: 12px;
  padding-right: 10px;
}
</style>
