<script setup lang="ts">
import type { Ratio } from '@unhurried/core/chart'
import { computed } from 'vue'
import type { Commands } from '../keys/commands.ts'
import { useDesk } from '../stores/desk.ts'
import { useShot } from '../stores/shot.ts'
import SheetNumber from './SheetNumber.vue'

defineProps<{ commands: Commands }>()
const shot = useShot()
const desk = useDesk()
const WORDS: Record<Ratio, string> = {
  '1/2': 'half-way between',
  '1/3': 'a third of the way from',
  '2/3': 'two thirds of the way from',
}
const next = computed(() => desk.queue[0] ?? null)
const later = computed(() => desk.queue.slice(1, 4))
const hasCharts = computed(() => Object.keys(shot.document?.charts ?? {}).length > 0)
</script>

<template>
  <section aria-label="Queue">
    <h2>next to draw</h2>
    <button
      v-if="next"
      class="next"
      title="Go there, with the two drawings it lies between on the light table (E)"
      @click="commands.get('next').run()"
    >
      <span
        ><b><SheetNumber :number="next.drawing.number" :role="next.drawing.role" /></b>, {{ WORDS[next.ratio] }}
        <SheetNumber :number="next.left.number" :role="next.left.role" /> {{ next.ratio === '1/2' ? 'and' : 'to' }}
        <SheetNumber :number="next.right.number" :role="next.right.role"
      /></span>
      <span class="then">
        <span v-if="later.length" class="soft">then {{ later.map(item => item.drawing.number).join(', then ') }}</span>
        <kbd>E</kbd>
      </span>
    </button>
    <p v-else-if="hasCharts" class="soft">All that the charts ask for is drawn.</p>
    <p v-else class="soft">
      Draw two keys, choose a spacing on the rail above, and press <i>make the drawings</i>: what to draw next is then
      told here.
    </p>
  </section>
</template>

<style scoped>
.next {
  display: block;
  width: 100%;
  margin-top: 8px;
  padding: 9px 11px;
  border: 0;
  border-radius: 8px;
  background: var(--green-wash);
  text-align: left;
  line-height: 1.55;
  cursor: pointer;
}

.next:hover {
  background: #d3e1d1;
}

.next b {
  color: var(--green);
}

.then {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
}

p {
  margin-top: 5px;
  font-size: 13px;
}
</style>
