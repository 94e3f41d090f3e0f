<script setup lang="ts">
import { nextTick } from 'vue'

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

async function typed(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement
  const text = field.value.trim()
  const number = text === '' ? null : Number(text)
  if (number === null || Number.isFinite(number)) props.take(number)
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
    :value="value ?? ''"
    :placeholder="open"
    :disabled="disabled"
    :aria-label="label"
    @change="typed"
    @keydown.enter="leave"
  />
</template>
