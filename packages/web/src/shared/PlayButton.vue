<script setup lang="ts">
import { Play, Square } from 'lucide-vue-next'

/** Play and stop, with the clock (or how many frames were dropped) under it. */
defineProps<{ playing: boolean; tip: string; shown: number; dropped: number; clock: string }>()
const emit = defineEmits<{ press: [] }>()
</script>

<template>
  <div class="playing">
    <button class="play" :aria-label="playing ? 'Stop' : 'Play'" :title="tip" @click="emit('press')">
      <Square v-if="playing" :size="16" fill="currentColor" aria-hidden="true" />
      <Play v-else :size="18" fill="currentColor" aria-hidden="true" />
    </button>
    <span class="now" :data-shown="shown" :data-dropped="dropped" :class="{ rust: playing && dropped > 0 }">{{
      playing && dropped ? `${dropped} dropped` : clock
    }}</span>
    <slot />
  </div>
</template>

<style scoped>
.playing {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 4px;
  min-width: 70px;
}

.play {
  display: grid;
  place-items: center;
  width: 42px;
  height: 42px;
  border: 0;
  border-radius: 50%;
  background: var(--green);
  color: var(--on-green);
  cursor: pointer;
}

.play:hover {
  background: var(--green-deep);
}

.playing :deep(.speed) {
  margin-top: -4px;
  font-size: 11px;
  color: var(--soft);
}

.playing :deep(.speed.rust) {
  color: var(--rust);
}

.now {
  font-size: 11.5px;
  color: var(--soft);
  white-space: nowrap;
}
</style>
