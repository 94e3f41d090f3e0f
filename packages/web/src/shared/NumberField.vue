<script setup lang="ts">
import { nextTick, ref } from 'vue'

/**
 * A number that is changed when one is done with it; what is taken is for `take` to say, and what is not taken is put back. Left
 * empty it is null. Enter gives the keyboard back to the desk.
 */
const props = defineProps<{
  value: number | null
  take: (value: number | null) => void
  least?: number
  most?: number
  step?: number
  label?: string
  open?: string
  disabled?: boolean
}>()

/** What is being typed: it stays while something else about it changes. */
const typing = ref<string | null>(null)

async function typed(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement
  const text = field.value.trim()
  const number = text === '' ? null : Number(text)
  if (number === null || Number.isFinite(number)) props.take(number)
  typing.value = null
  await nextTick()
  field.value = String(props.value ?? '')
}
const leave = (event: Event) => (event.target as HTMLElement).blur()
</script>

<template>
  <input
    type="number"
    :min="least"
    :max="most"
    :step="step"
    :value="typing ?? value ?? ''"
    :placeholder="open"
    :disabled="disabled"
    :aria-label="label"
    @input="event => (typing = (event.target as HTMLInputElement).value)"
    @change="typed"
    @blur="typing = null"
    @keydown.enter="leave"
  />
</template>

<style scoped>
/* As it comes; whoever uses it may say otherwise. */
:where(input) {
  width: 52px;
  min-height: 24px;
  padding: 1px 5px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  font-variant-numeric: tabular-nums;
  text-align: right;
  appearance: textfield;
}

:where(input)::-webkit-inner-spin-button {
  appearance: none;
  margin: 0;
}
</style>
