<script setup lang="ts">
import { Check, Minus, Printer } from 'lucide-vue-next'
import { counted } from '@unhurried/core/time'
import { computed } from 'vue'
import type { Measuring } from './useMeasuring.ts'

/** What is asked of the shot, and what came of it. */
const props = defineProps<{ measuring: Measuring }>()
defineEmits<{ print: [] }>()
const all = computed(() => props.measuring.states.value.reduce((sum, one) => sum + one.count, 0))
const told = (count: number, meant: number) =>
  [count > 0 ? counted(count, 'finding') : 'nothing found', meant > 0 ? `${meant} meant so` : '']
    .filter(Boolean)
    .join(', ')
</script>

<template>
  <nav class="checks" aria-label="Checks">
    <button
      class="plain check"
      :class="{ on: measuring.check.value === null }"
      :aria-pressed="measuring.check.value === null"
      @click="measuring.choose(null)"
    >
      <b class="name">everything</b>
      <b class="count">{{ all || '' }}</b>
      <span class="hush">{{ all ? counted(all, 'finding') : 'nothing found' }}</span>
    </button>
    <button
      v-for="one in measuring.asked.value"
      :key="one.name"
      class="plain check"
      :class="{ on: measuring.check.value === one.name, silent: one.silent }"
      :aria-pressed="measuring.check.value === one.name"
      :title="`${one.asks} (${one.silent || told(one.count, one.meant)})`"
      @click="measuring.choose(one.name)"
    >
      <span class="name">{{ one.words }}</span>
      <b v-if="one.count" class="count">{{ one.count }}</b>
      <component :is="one.silent ? Minus : Check" v-else class="count" :size="14" aria-hidden="true" />
      <span class="soft state" :class="{ hush: !one.silent && !one.meant }">{{
        one.silent || told(one.count, one.meant)
      }}</span>
    </button>
    <details v-if="measuring.unasked.value.length > 0" class="unasked">
      <summary>{{ measuring.unasked.value.length }} not asked of this shot</summary>
      <button
        v-for="one in measuring.unasked.value"
        :key="one.name"
        class="plain check silent"
        :class="{ on: measuring.check.value === one.name }"
        :aria-pressed="measuring.check.value === one.name"
        @click="measuring.choose(one.name)"
      >
        <span class="name">{{ one.words }}</span>
        <span class="soft state">{{ one.asks }}</span>
      </button>
    </details>
    <button class="plain on-paper" @click="$emit('print')">
      <Printer :size="14" aria-hidden="true" /> a report on paper
    </button>
  </nav>
</template>

<style scoped>
.checks {
  display: flex;
  flex-direction: column;
  padding: 12px 8px;
  overflow-y: auto;
  background: var(--edge);
  border-right: 1px solid var(--rule);
}

.check {
  display: grid;
  flex: none;
  grid-template-columns: 1fr auto;
  gap: 0 8px;
  padding: 3px 10px;
  text-align: left;
}

.check.on {
  background: var(--green-wash);
}

.name {
  font-size: 14.5px;
}

.on .name {
  font-weight: 700;
  color: var(--green);
}

.unasked {
  flex: none;
  margin-top: 6px;
}

.unasked summary {
  padding: 5px 10px;
  color: var(--soft);
  font-size: 13px;
  cursor: pointer;
}

.unasked .check {
  width: 100%;
}

.on-paper {
  display: flex;
  flex: none;
  align-items: center;
  gap: 7px;
  margin-top: 10px;
  padding: 5px 10px;
  color: var(--green);
  font-size: 13px;
}

.count {
  color: var(--rust);
  align-self: center;
}

svg.count {
  color: var(--green);
}

.silent .name,
.silent svg.count {
  color: var(--soft);
}

.state {
  grid-column: 1 / -1;
  font-size: 12px;
}
</style>
