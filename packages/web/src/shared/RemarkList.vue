<script setup lang="ts">
import type { Remark } from '@unhurried/core/document'
import { Check } from 'lucide-vue-next'
import { nextTick, ref, shallowRef } from 'vue'
import { useReview } from '../stores/review.ts'
import { remarkLook } from './remarkLooks.ts'

/** Remarks, numbered as they are over the picture: each can be answered and closed. */
defineProps<{ remarks: readonly { readonly remark: Remark; readonly frame: number }[]; withFrames?: boolean }>()
const emit = defineEmits<{ goTo: [frame: number] }>()
const review = useReview()
const answering = ref('')
const answer = ref('')
const field = shallowRef<HTMLInputElement | null>(null)
const lookOf = (remark: Remark) => {
  const { colour } = remarkLook(
    review.remarks.map(one => one.remark),
    remark.by,
  )
  return { '--who': colour }
}

async function ask({ id }: Remark): Promise<void> {
  answering.value = id
  answer.value = ''
  await nextTick()
  field.value?.focus()
}
function keep(remark: Remark): void {
  review.answer(remark, answer.value)
  answering.value = ''
  field.value?.blur()
}
defineExpose({ ask })
</script>

<template>
  <ol class="remarks">
    <li v-for="({ remark, frame }, i) in remarks" :key="remark.id" :class="{ closed: remark.closed }">
      <p class="head">
        <b class="number" :style="lookOf(remark)">{{ i + 1 }}</b>
        <span class="who">{{ remark.name }}</span>
        <button v-if="withFrames" class="plain word" @click="emit('goTo', frame)">frame {{ frame + 1 }}</button>
        <span v-if="remark.closed" class="soft state"><Check :size="13" aria-hidden="true" /> closed</span>
      </p>
      <p class="text">{{ remark.text || 'a sketch' }}</p>
      <p v-for="(one, n) in remark.answers" :key="n" class="text answer">
        <b>{{ one.name }}</b> {{ one.text }}
      </p>
      <form v-if="answering === remark.id" @submit.prevent="keep(remark)">
        <input
          :ref="element => (field = element as HTMLInputElement | null)"
          v-model="answer"
          type="text"
          maxlength="500"
          aria-label="Answer"
          @keydown.escape.stop="answering = ''"
        />
        <button class="plain word">keep</button>
      </form>
      <p v-else-if="review.me" class="acts">
        <button class="plain word" @click="ask(remark)">answer</button>
        <button class="plain word" @click="review.close(remark)">{{ remark.closed ? 'open again' : 'close' }}</button>
        <button v-if="review.mayRemove(remark)" class="plain word" @click="review.remove(remark)">take away</button>
      </p>
    </li>
  </ol>
</template>

<style scoped>
.remarks {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  padding: 6px 0;
  border-top: 1px solid var(--rule-faint);
}

li:first-child {
  border-top: 0;
}

.head {
  display: flex;
  align-items: center;
  gap: 7px;
}

.number {
  display: inline-grid;
  place-items: center;
  min-width: 20px;
  height: 20px;
  border-radius: 4px;
  background: var(--who);
  color: #fff;
  font-size: 12.5px;
}

.closed .number {
  background: none;
  box-shadow: inset 0 0 0 1.5px var(--who);
  color: var(--ink);
}

.who {
  flex: 1;
  font-size: 12.5px;
  font-weight: 700;
}

.state {
  display: inline-flex;
  align-items: center;
  gap: 3px;
  font-size: 12px;
}

.text {
  margin: 2px 0 0 27px;
  font-size: 13.5px;
  line-height: 1.35;
  overflow-wrap: anywhere;
}

.closed .text {
  color: var(--soft);
}

.answer {
  padding-left: 8px;
  border-left: 2px solid var(--rule);
}

.acts {
  display: flex;
  gap: 10px;
  margin-left: 23px;
}

.word {
  min-height: 24px;
  padding: 2px 4px;
  color: var(--green);
  font-size: 12.5px;
}

form {
  display: flex;
  gap: 6px;
  margin: 4px 0 0 27px;
}

input {
  flex: 1;
  min-width: 0;
  padding: 3px 8px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}
</style>
