<script setup lang="ts">
import { layersInOrder } from '@unhurried/core/document'
import { computed } from 'vue'
import { useDesk } from '../../../stores/desk.ts'
import { useLamp } from '../../../stores/lamp.ts'
import { useShot } from '../../../stores/shot.ts'

/** Other layers whose drawings show through besides those of the layer in the hand, each with its own share of strength. */
const shot = useShot()
const desk = useDesk()
const lamp = useLamp()
const FRESH_SHARE = 0.6
const others = computed(() =>
  shot.document ? [...layersInOrder(shot.document)].reverse().filter(layer => layer.id !== desk.layerId) : [],
)
</script>

<template>
  <div v-if="others.length" class="layers" role="group" aria-label="Other layers on the light table">
    <span>also of</span>
    <span v-for="{ id, name } in others" :key="id" class="layer">
      <button
        class="plain"
        :class="{ on: lamp.lit[id] }"
        :aria-pressed="lamp.lit[id] !== undefined"
        :title="`Drawings of ${name} show through too`"
        :aria-label="`Also of ${name}`"
        @click="lamp.setLit(id, lamp.lit[id] ? 0 : FRESH_SHARE)"
      >
        {{ name }}
      </button>
      <input
        v-if="lamp.lit[id]"
        type="range"
        min="0.1"
        max="1"
        step="0.1"
        :value="lamp.lit[id]"
        :aria-label="`How strongly ${name} shows through`"
        @input="event => lamp.setLit(id, Number((event.target as HTMLInputElement).value))"
      />
    </span>
  </div>
</template>

<style scoped>
.layers {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 1px 4px;
  margin-top: 5px;
  font-size: 13px;
  color: var(--soft);
}

.layer {
  display: inline-flex;
  align-items: center;
  gap: 2px;
  max-width: 100%;
}

.plain {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: var(--soft);
}

.on {
  color: var(--ink);
  font-weight: 700;
}

input {
  width: 58px;
  accent-color: var(--green);
}
</style>
