<script setup lang="ts">
import { inverse, map, type Matrix, type Point } from '@unhurried/core/geometry'
import { computed } from 'vue'
import { arrowOf } from '../keys/arrows.ts'

/** A place over the paper that is dragged, or moved with the arrow keys; places in paper pixels. */
export interface PaperHandle {
  readonly id: string
  readonly name: string
  /** how it is seen */
  readonly look: string
  readonly at: Point
  readonly drag: (to: Point) => void
  /** the hand has let go, or was lost */
  readonly done?: () => void
  readonly lost?: () => void
}

const props = defineProps<{ matrix: Matrix; handles: readonly PaperHandle[] }>()
const seen = computed(() => props.handles.map(handle => ({ handle, ...map(props.matrix, handle.at) })))
let held: { id: string; pointer: number } | null = null

function down(event: PointerEvent, id: string): void {
  held = { id, pointer: event.pointerId }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function move(event: PointerEvent, handle: PaperHandle): void {
  const back = inverse(props.matrix)
  const frame = (event.currentTarget as Element).closest('svg')?.getBoundingClientRect()
  if (held?.pointer !== event.pointerId || held.id !== handle.id || !back || !frame) return
  handle.drag(map(back, { x: event.clientX - frame.left, y: event.clientY - frame.top }))
}
function letGo(then?: () => void): void {
  if (held) then?.()
  held = null
}

/** Arrow keys move a handle by a pixel of the paper, with Shift by ten; the desk does not hear of them. */
function nudge(event: KeyboardEvent, { at, drag, done }: PaperHandle): void {
  const by = arrowOf(event)
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  const step = event.shiftKey ? 10 : 1
  drag({ x: at.x + step * by.x, y: at.y + step * by.y })
  done?.()
}
</script>

<template>
  <svg v-if="seen.length" class="handles">
    <g
      v-for="{ handle, x, y } in seen"
      :key="handle.id"
      :class="handle.look"
      tabindex="0"
      role="button"
      :aria-label="`${handle.name}, or move it with the arrow keys`"
      @pointerdown="event => down(event, handle.id)"
      @pointermove="event => move(event, handle)"
      @pointerup="letGo(handle.done)"
      @pointercancel="letGo(handle.lost)"
      @keydown="event => nudge(event, handle)"
    >
      <title>{{ handle.name }}</title>
      <circle class="reach" :cx="x" :cy="y" r="12" />
      <circle class="dot" :cx="x" :cy="y" r="6" />
    </g>
  </svg>
</template>

<style scoped>
.handles {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

g {
  pointer-events: all;
  touch-action: none;
  cursor: move;
}

.reach {
  fill: transparent;
}

.dot {
  fill: var(--paper);
  stroke: var(--soft);
  stroke-width: 1.6;
}

.level {
  cursor: ns-resize;
}

.horizon .dot {
  stroke: var(--future);
}

.ground .dot {
  stroke: var(--rust);
}

.path .dot {
  stroke: #8a5a86;
  stroke-width: 2;
}

.guide .dot {
  stroke: #5f7a3c;
  stroke-width: 2;
}
.followed .dot {
  stroke: var(--soft);
  stroke-width: 2;
}

.followed.chosen .dot {
  fill: transparent;
  stroke: var(--rust);
}
</style>
