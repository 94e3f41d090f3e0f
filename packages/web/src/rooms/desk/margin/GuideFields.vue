<script setup lang="ts">
import type { Guide, GuideNumber } from '@unhurried/core/document'
import { computed, ref } from 'vue'
import type { Field } from '../../../recipes/recipe.ts'
import { deskOf } from '../../../recipes/table.ts'
import { useGuideActs } from '../acts/guideActs.ts'

/** The numbers of a guide: its three main ones, the rest folded. What cannot be taken says why, and is put back. */
const props = defineProps<{ guide: Guide; disabled: boolean }>()
const acts = useGuideActs()
const recipe = computed(() => deskOf(props.guide))
const whole = ref(false)
const why = ref('')
const shown = computed(() =>
  Object.entries(recipe.value.fields).filter(
    (entry): entry is [string, Field] =>
      entry[1] !== undefined && (whole.value || recipe.value.main.includes(entry[0])),
  ),
)
const places = 1e4
const asRead = (field: Field, value: GuideNumber | undefined): string =>
  field.kind === 'number' && typeof value === 'number'
    ? String(Math.round(value * (field.times ?? 1) * places) / places)
    : ''

function take(name: string, value: GuideNumber): void {
  why.value = acts.change(props.guide, { [name]: value }) ?? ''
}
function typed(event: Event, name: string, field: Extract<Field, { kind: 'number' }>): void {
  const input = event.target as HTMLInputElement
  const text = input.value.trim()
  const number = Number(text) / (field.times ?? 1)
  if (text === '' && field.open) take(name, null)
  else if (text !== '' && Number.isFinite(number)) take(name, number)
  input.value = asRead(field, props.guide.numbers[name])
}
</script>

<template>
  <div class="fields">
    <label v-for="[name, field] in shown" :key="name">
      <span>{{ field.words }}</span>
      <template v-if="field.kind === 'number'">
        <input
          type="number"
          :step="field.step"
          :value="asRead(field, guide.numbers[name])"
          :placeholder="field.open ? '–' : ''"
          :disabled="disabled"
          @change="event => typed(event, name, field)"
          @keydown.enter="event => (event.target as HTMLElement).blur()"
        />
        <span class="soft">{{ guide.numbers[name] === null ? field.open : field.unit }}</span>
      </template>
      <select
        v-else
        :value="guide.numbers[name]"
        :disabled="disabled"
        @change="event => take(name, (event.target as HTMLSelectElement).value)"
      >
        <option v-for="[value, words] in field.options" :key="value" :value="value">{{ words }}</option>
      </select>
    </label>
    <p v-if="why" class="why" role="alert">{{ why }}</p>
    <button class="plain soft" :aria-expanded="whole" @click="whole = !whole">
      {{ whole ? 'fewer' : 'all numbers' }}
    </button>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 2px;
  font-size: 12.5px;
}

label {
  display: grid;
  grid-template-columns: 1fr 54px 62px;
  align-items: center;
  gap: 6px;
  min-height: 26px;
}

input,
select {
  min-height: 24px;
  padding: 1px 5px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  font-variant-numeric: tabular-nums;
}

input {
  text-align: right;
  appearance: textfield;
}

select {
  grid-column: 2 / 4;
}

.why {
  color: var(--rust);
}

button {
  justify-self: start;
  padding-left: 0;
}
</style>
