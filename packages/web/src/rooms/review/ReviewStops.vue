<script setup lang="ts">
import type { Stop } from '@unhurried/core/document'
import { Check, Minus, PencilLine } from 'lucide-vue-next'
import { ref } from 'vue'
import { useInSight } from '../../shared/inSight.ts'
import { useReview } from '../../stores/review.ts'
import { useShot } from '../../stores/shot.ts'
import type { Looking } from './useLooking.ts'

/** Every frame on which something is new, and whether it was looked at as it is. */
const props = defineProps<{ looking: Looking }>()
const shot = useShot()
const review = useReview()
const list = ref<HTMLElement | null>(null)
const SAYS = {
  never: { icon: Minus, words: 'not looked at yet' },
  changed: { icon: PencilLine, words: 'drawn on since' },
  seen: { icon: Check, words: 'looked at' },
}
const stateOf = ({ drawings }: Stop) => {
  const states = drawings.map(review.stateOf)
  return states.includes('never') ? 'never' : states.includes('changed') ? 'changed' : 'seen'
}
/** What lies on top, and most likely moves, is told first. */
const whatOf = ({ drawings }: Stop) =>
  [...drawings]
    .reverse()
    .map(({ number, layer }) => `${shot.document?.layers[layer]?.name ?? ''} ${number}`)
    .join(', ')
const remarksOn = (stop: Stop) => {
  const ids = new Set(stop.drawings.map(({ id }) => id))
  return review.open.filter(({ remark, frame }) => frame === stop.frame || ids.has(remark.drawing ?? '')).length
}
useInSight(list, props.looking.stop)
</script>

<template>
  <nav class="stops" aria-label="Drawings to look at">
    <p class="head">
      <b>{{ review.stops.length - review.left.length }}</b> of {{ review.stops.length }} looked at
    </p>
    <progress :value="review.stops.length - review.left.length" :max="Math.max(1, review.stops.length)" />
    <ol ref="list">
      <li v-for="stop in review.stops" :key="stop.frame">
        <button
          class="plain stop"
          :class="[stateOf(stop), { on: stop === looking.stop.value }]"
          :aria-current="stop === looking.stop.value ? 'true' : undefined"
          :title="`Frame ${stop.frame + 1}: ${whatOf(stop)} (${SAYS[stateOf(stop)].words})`"
          @click="looking.goTo(stop)"
        >
          <component :is="SAYS[stateOf(stop)].icon" :size="14" aria-hidden="true" />
          <span class="frame">{{ stop.frame + 1 }}</span>
          <span class="what">{{ whatOf(stop) }}</span>
          <b v-if="remarksOn(stop)" class="remarks" :title="`${remarksOn(stop)} open remarks`">{{ remarksOn(stop) }}</b>
          <span class="hush">{{ SAYS[stateOf(stop)].words }}</span>
        </button>
      </li>
    </ol>
  </nav>
</template>

<style scoped>
.stops {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--edge);
  border-right: 1px solid var(--rule);
}

.head {
  padding: 12px 16px 4px;
  font-size: 13px;
}

progress {
  width: calc(100% - 32px);
  height: 5px;
  margin: 0 16px 8px;
  border: 0;
  border-radius: 3px;
  background: var(--rule-faint);
  appearance: none;
}

progress::-webkit-progress-bar {
  border-radius: 3px;
  background: var(--rule-faint);
}

progress::-webkit-progress-value {
  border-radius: 3px;
  background: var(--green);
}

ol {
  flex: 1;
  margin: 0;
  padding: 0 8px 12px;
  overflow-y: auto;
  list-style: none;
}

.stop {
  display: grid;
  grid-template-columns: 18px 30px minmax(0, 1fr) auto;
  align-items: center;
  gap: 4px;
  width: 100%;
  min-height: 28px;
  padding: 2px 8px;
  text-align: left;
  font-size: 13.5px;
}

.stop svg {
  color: var(--rust);
}

.stop.seen svg {
  color: var(--green);
}

.frame {
  font-variant-numeric: tabular-nums;
  color: var(--soft);
  font-size: 12.5px;
}

.what {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.stop.seen .what {
  color: var(--soft);
}

.stop.on {
  background: var(--green-wash);
}

.stop.on .what {
  color: var(--ink);
  font-weight: 700;
}

.remarks {
  min-width: 18px;
  padding: 0 4px;
  border-radius: 4px;
  background: var(--rust-wash);
  color: var(--rust);
  text-align: center;
  font-size: 12px;
}
</style>
