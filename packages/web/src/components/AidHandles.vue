<script setup lang="ts">
import { inverse, map, type Matrix } from '@unhurried/core/geometry'
import { computed } from 'vue'
import { useDesk } from '../stores/desk.ts'

/** Handles at the edge of the paper to drag the horizon and the ground by. */
const props = defineProps<{ matrix: Matrix }>()
const desk = useDesk()
const handles = computed(() =>
  (['horizon', 'ground'] as const).flatMap(name => {
    const y = desk.aids[name]
    return y === null ? [] : [{ name, ...map(props.matrix, { x: 0, y }) }]
  }),
)
let held: { name: 'horizon' | 'ground'; pointer: number } | null = null

function down(event: PointerEvent, name: 'horizon' | 'ground'): void {
  held = { name, pointer: event.pointerId }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function move(event: PointerEvent): void {
  const back = inverse(props.matrix)
  const frame = (event.currentTarget as Element).closest('svg')?.getBoundingClientRect()
  if (held?.pointer !== event.pointerId || !back || !frame) return
  const { y } = map(back, { x: event.clientX - frame.left, y: event.clientY - frame.top })
  desk.aids = { ...desk.aids, [held.name]: Math.round(y) }
}
</script>

<template>
  <svg v-if="handles.length" class="aids">
    <circle
      v-for="{ name, x, y } in handles"
      :key="name"
      :class="name"
      :cx="x"
      :cy="y"
      r="6"
      @pointerdown="event => down(event, name)"
      @pointermove="move"
      @pointerup="held = null"
      @pointercancel="held = null"
    >
      <title>{{ name }}: drag it</title>
    </circle>
  </svg>
</template>

<style scoped>
.aids {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

circle {
  pointer-events: all;
  cursor: ns-resize;
  touch-action: none;
  fill: var(--paper);
  stroke-width: 1.6;
}

.horizon {
  stroke: var(--future);
}

.ground {
  stroke: var(--rust);
}
</style>
