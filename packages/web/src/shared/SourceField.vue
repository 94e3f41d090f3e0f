<script setup lang="ts">
import { LIMITS } from '@unhurried/core/document'
import { oneLine } from '../words/oneLine.ts'

/** Whose work something is, in a line; empty where it is one's own. */
defineProps<{ source: string; label: string; placeholder: string; disabled?: boolean }>()
const emit = defineEmits<{ said: [source: string] }>()
</script>

<template>
  <input
    type="text"
    :value="source"
    :maxlength="LIMITS.sourceLength"
    :disabled="disabled"
    :placeholder="placeholder"
    :aria-label="label"
    @change="event => emit('said', oneLine((event.target as HTMLInputElement).value))"
    @keydown.enter="event => (event.target as HTMLElement).blur()"
  />
</template>

<style scoped>
input {
  min-width: 0;
  min-height: 26px;
  padding: 1px 7px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}
</style>
