<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import { useAsking } from '../../../stores/asking.ts'
import { useSight } from '../../../stores/sight.ts'

/** What the desk answers to the last act on the sheet, in a line; and what it asks where an act does not fit. */
const asking = useAsking()
const sight = useSight()
const box = ref<HTMLElement | null>(null)
const typed = ref('')

watch(
  () => asking.question,
  async now => {
    if (!now) return
    typed.value = now.field ? String(now.field.now) : ''
    await nextTick()
    const first = box.value?.querySelector<HTMLElement>('input, button')
    first?.focus()
    if (first instanceof HTMLInputElement) first.select()
  },
)

function close(): void {
  asking.drop()
  ;(document.activeElement as HTMLElement | null)?.blur()
}

/** A number beyond what there is is taken as the last there is. */
function takeNumber(): void {
  const field = asking.question?.field
  const n = Math.round(Number(typed.value))
  if (!field || !typed.value.trim() || !Number.isFinite(n)) return
  close()
  field.take(Math.max(field.least, Math.min(field.most, n)))
}
</script>

<template>
  <div ref="box" class="answer" :class="{ asks: asking.question }" @keydown.esc.stop="close">
    <p v-show="asking.answer && !asking.question && sight.flippedTo === null" class="line" role="status">
      {{ asking.answer }}
    </p>
    <section v-if="asking.question" class="question" :aria-label="asking.question.label">
      <p class="what">{{ asking.question.label }}</p>
      <p v-if="asking.question.why" class="why">{{ asking.question.why }}</p>
      <form v-if="asking.question.field" @submit.prevent="takeNumber">
        <label>
          {{ asking.question.field.words }}
          <input
            v-model="typed"
            inputmode="numeric"
            :aria-label="`${asking.question.label}: ${asking.question.field.words}`"
          />
        </label>
        <span class="soft">{{ asking.question.field.least }}–{{ asking.question.field.most }}</span>
        <button class="strong" type="submit">go</button>
      </form>
      <ul v-else>
        <li v-for="choice in asking.question.choices" :key="choice.words">
          <button class="plain way" @click="choice.take()">{{ choice.words }}</button>
        </li>
      </ul>
      <button class="plain soft" @click="close">leave it as it is</button>
    </section>
  </div>
</template>

<style scoped>
.answer {
  z-index: 6;
  max-width: min(560px, 96%);
  margin: 9px 14px;
  pointer-events: none;
  font-size: 13px;
}

.line {
  width: fit-content;
  padding: 2px 9px;
  border-radius: 6px;
  background: color-mix(in srgb, var(--desk) 82%, transparent);
  color: var(--soft);
}

.question {
  width: fit-content;
  min-width: 260px;
  padding: 10px 14px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: var(--edge);
  box-shadow: 0 6px 22px rgb(40 36 30 / 14%);
  pointer-events: auto;
}

.what {
  font: 500 16px var(--serif);
}

.why {
  max-width: 46ch;
  margin: 2px 0 6px;
  color: var(--soft);
}

ul {
  list-style: none;
  margin-bottom: 4px;
}

.way {
  padding: 4px 6px;
  margin-left: -6px;
  color: var(--green);
  font-weight: 700;
  text-align: left;
}

form {
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 6px 0;
}

input {
  width: 74px;
  margin-left: 6px;
  padding: 5px 8px;
  border: 1px solid var(--rule);
  border-radius: 6px;
  background: var(--paper, #fdfaf3);
  color: var(--ink);
  font-variant-numeric: tabular-nums;
}
</style>
