<script setup lang="ts" generic="T extends string | number | boolean | null">
/** One of a few words to choose from. */
const chosen = defineModel<T>({ required: true })
defineProps<{
  label: string
  options: readonly { readonly value: T; readonly words: string; readonly tip?: string; readonly look?: string }[]
}>()
</script>

<template>
  <span class="words" role="radiogroup" :aria-label="label">
    <button
      v-for="{ value, words, tip, look } in options"
      :key="String(value)"
      class="choice"
      role="radio"
      :aria-checked="chosen === value"
      :class="[{ on: chosen === value }, look]"
      :title="tip"
      @click="chosen = value"
    >
      {{ words }}
    </button>
  </span>
</template>

<style scoped>
.words {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 2px;
}

.serif {
  font-family: var(--serif);
}

.bold {
  font-weight: 700;
}

.italic {
  font-style: italic;
}
</style>
