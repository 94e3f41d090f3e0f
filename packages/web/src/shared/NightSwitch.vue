<script setup lang="ts">
import { Lamp, LampDesk } from 'lucide-vue-next'
import { useHabits } from '../stores/habits.ts'

/** Turns the lamp down, or up again. */
const habits = useHabits()
</script>

<template>
  <button
    class="plain night"
    :aria-pressed="habits.night"
    :title="habits.night ? 'Day desk' : 'Night desk'"
    aria-label="Night desk"
    @click="habits.night = !habits.night"
  >
    <component :is="habits.night ? LampDesk : Lamp" :size="17" :stroke-width="1.6" aria-hidden="true" />
  </button>
</template>

<style scoped>
.night {
  line-height: 0;
  color: var(--soft);
}
</style>
