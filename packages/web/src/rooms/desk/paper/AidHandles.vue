<script setup lang="ts">
import { inverse, map, type Matrix, type Point } from '@unhurried/core/geometry'
import { computed } from 'vue'
import { useSight } from '../../../stores/sight.ts'

/** Handles to drag the horizon and the ground by, at the edge of the paper, and arcs by their ends and their top. */
const props = defineProps<{ matrix: Matrix }>()
const sight = useSight()

interface Handle {
  readonly id: string
  readonly name: string
  readonly kind: 'level' | 'arc'
  readonly at: Point
  readonly drag: (to: Point) => void
}

const levels = computed(() =>
  (['horizon', 'ground'] as const).flatMap((name): Handle[] => {
    const y = sight.aids[name]
    const drag = (to: Point) => (sight.aids = { ...sight.aids, [name]: Math.round(to.y) })
    return y === null ? [] : [{ id: name, name: `${name}: drag it`, kind: 'level', at: { x: 0, y }, drag }]
  }),
)
const arcs = computed(() =>
  sight.aids.arcs.flatMap((arc, i) =>
    arc.map((at, j): Handle => {
      const drag = ({ x, y }: Point) => {
        const moved = arc.map((p, k) => (k === j ? { x: Math.round(x), y: Math.round(y) } : p))
        sight.aids = { ...sight.aids, arcs: sight.aids.arcs.map((other, k) => (k === i ? moved : other)) }
      }
      const name = `arc ${i + 1}: drag its ${['start', 'top', 'end'][j]}`
      return { id: `${i} ${j}`, name, kind: 'arc', at, drag }
    }),
  ),
)
const handles = computed(() =>
  [...levels.value, ...arcs.value].map(handle => ({ ...handle, ...map(props.matrix, handle.at) })),
)
let held: { id: string; pointer: number } | null = null

function down(event: PointerEvent, id: string): void {
  held = { id, pointer: event.pointerId }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function move(event: PointerEvent, handle: Handle): void {
  const back = inverse(props.matrix)
  const frame = (event.currentTarget as Element).closest('svg')?.getBoundingClientRect()
  if (held?.pointer !== event.pointerId || held.id !== handle.id || !back || !frame) return
  handle.drag(map(back, { x: event.clientX - frame.left, y: event.clientY - frame.top }))
}

const ARROWS: Record<string, Point> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
}
/** Arrow keys move a handle by a pixel of the paper, with Shift by ten; the desk does not hear of them. */
function nudge(event: KeyboardEvent, { at, drag }: Handle): void {
  const by = ARROWS[event.key]
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  const step = event.shiftKey ? 10 : 1
  drag({ x: at.x + step * by.x, y: at.y + step * by.y })
}
</script>

<template>
  <svg v-if="handles.length" class="aids">
    <circle
      v-for="handle in handles"
      :key="handle.id"
      :class="[handle.kind, handle.id]"
      :cx="handle.x"
      :cy="handle.y"
      r="6"
      tabindex="0"
      role="button"
      :aria-label="`${handle.name}, or move it with the arrow keys`"
      @pointerdown="event => down(event, handle.id)"
      @pointermove="event => move(event, handle)"
      @pointerup="held = null"
      @pointercancel="held = null"
      @keydown="event => nudge(event, handle)"
    >
      <title>{{ handle.name }}</title>
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
  touch-action: none;
  fill: var(--paper);
  stroke-width: 1.6;
}

.level {
  cursor: ns-resize;
}

.arc {
  cursor: move;
  stroke: var(--soft);
}

.horizon {
  stroke: var(--future);
}

.ground {
  stroke: var(--rust);
}
</style>
