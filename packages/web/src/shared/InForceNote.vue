<script setup lang="ts">
import { X } from 'lucide-vue-next'
import { useInForce } from '../stores/inForce.ts'

/** Everything that is switched on only to look, each with its way back. */
const inForce = useInForce()
</script>

<template>
  <aside v-if="inForce.list.length" aria-label="Still in force" class="in-force-note">
    <h2>
      still in force
      <button v-if="inForce.list.length > 1" class="plain" @click="inForce.clear">all back</button>
    </h2>
    <button
      v-for="one in inForce.list"
      :key="one.id"
      class="plain"
      title="For looking only: take it back"
      @click="one.back"
    >
      {{ one.words }}<X :size="13" aria-label="take it back" />
    </button>
  </aside>
</template>

<style scoped>
.in-force-note {
  z-index: 3;
  display: flex;
  flex-direction: column;
  align-items: stretch;
  padding: 6px 10px 7px;
  border-radius: 8px;
  background: var(--edge);
  border: 1px dashed var(--past);
  font-size: 12.5px;
}

h2 {
  display: flex;
  justify-content: space-between;
  gap: 14px;
  font: 500 13px var(--serif);
  color: var(--soft);
}

h2 .plain {
  font: 12px var(--sans);
  color: var(--green);
}

.in-force-note > .plain {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  margin: 0 -4px;
}
</style>
