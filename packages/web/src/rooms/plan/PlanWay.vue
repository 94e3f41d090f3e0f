<script setup lang="ts">
import { WAYS, workWay, type WayOfWorking } from '@unhurried/core/document'
import { useShot } from '../../stores/shot.ts'

const shot = useShot()
const WORDS: Record<WayOfWorking, readonly [string, string]> = {
  'pose-to-pose': ['pose to pose', 'Keys first, then breakdowns, then halves and halves of halves.'],
  'straight-ahead': ['straight ahead', 'One after the other, with only the drawing before showing through.'],
  mixed: ['mixed', 'Keys and breakdowns first, then straight ahead between them.'],
  surest: ['surest first', 'The drawing where the leading mark is fastest, then its neighbours, outwards.'],
}
</script>

<template>
  <section aria-label="Way of working">
    <h2>Way of working</h2>
    <div role="radiogroup" aria-label="Way of working">
      <button
        v-for="way in WAYS"
        :key="way"
        class="way"
        role="radio"
        :aria-checked="shot.document?.way === way"
        :class="{ on: shot.document?.way === way }"
        :disabled="!shot.mayDraw"
        @click="shot.commit(WORDS[way][0], workWay(way))"
      >
        <b>{{ WORDS[way][0] }}</b>
        <span class="soft">{{ WORDS[way][1] }}</span>
      </button>
    </div>
    <p class="soft small">The queue on the desk asks for drawings in this order.</p>
  </section>
</template>

<style scoped>
.way {
  display: block;
  width: 100%;
  padding: 6px 10px;
  margin: 0 0 3px;
  border: 0;
  border-left: 2px solid transparent;
  background: none;
  text-align: left;
  font-size: 13px;
  cursor: pointer;
}

.way:hover:not(:disabled) {
  background: var(--green-wash);
}

.way.on {
  border-color: var(--green);
  background: var(--green-wash);
}

.way b,
.way span {
  display: block;
}
</style>
