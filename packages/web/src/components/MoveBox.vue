<script setup lang="ts">
import {
  after,
  centreOf,
  IDENTITY,
  inverse,
  isEmptyBox,
  map,
  rotation,
  scaling,
  translation,
  type Box,
  type Matrix,
  type Point,
} from '@unhurried/core/geometry'
import { computed, ref } from 'vue'

/** A box on the paper that is moved, turned and (unless told otherwise) scaled with the pointer. */
const props = defineProps<{
  /** paper to screen */
  matrix: Matrix
  box: Box
  /** where the box lies now, when it was moved before */
  laid?: Matrix | null
  scales?: boolean
  fixed?: boolean
}>()
const emit = defineEmits<{ show: [by: Matrix | null]; move: [label: string, by: Matrix] }>()

type Handle = 'move' | 'scale' | 'turn'
const by = ref<Matrix | null>(null)
const said = ref('')
let grip: { handle: Handle; from: Point; corner: Point; pointer: number } | null = null

const corners = computed<Point[]>(() => {
  const { left, top, right, bottom } = props.box
  return [
    { x: left, y: top },
    { x: right, y: top },
    { x: right, y: bottom },
    { x: left, y: bottom },
  ]
})
const laid = computed(() => after(props.laid ?? IDENTITY, by.value ?? IDENTITY))
const onScreen = (p: Point) => map(props.matrix, map(laid.value, p))
const shown = computed(() => corners.value.map(onScreen))
const knob = computed(() => {
  const [a, b, c] = shown.value
  const middle = { x: ((a?.x ?? 0) + (b?.x ?? 0)) / 2, y: ((a?.y ?? 0) + (b?.y ?? 0)) / 2 }
  const away = { x: (b?.x ?? 0) - (c?.x ?? 0), y: (b?.y ?? 0) - (c?.y ?? 0) }
  const length = Math.hypot(away.x, away.y) || 1
  return { foot: middle, x: middle.x + (away.x / length) * 26, y: middle.y + (away.y / length) * 26 }
})

function toPaper(event: PointerEvent): Point {
  const frame = (event.currentTarget as Element).closest('svg')?.getBoundingClientRect()
  const back = inverse(props.matrix)
  const p = { x: event.clientX - (frame?.left ?? 0), y: event.clientY - (frame?.top ?? 0) }
  return back ? map(back, p) : p
}

function down(event: PointerEvent, handle: Handle, corner = 0): void {
  if (props.fixed) return
  grip = {
    handle,
    from: toPaper(event),
    corner: map(props.laid ?? IDENTITY, corners.value[(corner + 2) % 4] as Point),
    pointer: event.pointerId,
  }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}

function mapFor(to: Point, free: boolean): { by: Matrix; said: string } {
  const { handle, from, corner } = grip as NonNullable<typeof grip>
  const middle = map(props.laid ?? IDENTITY, centreOf(props.box))
  if (handle === 'move') {
    const [dx, dy] = [to.x - from.x, to.y - from.y]
    return { by: translation(dx, dy), said: `${dx.toFixed(0)}, ${dy.toFixed(0)} px` }
  }
  if (handle === 'turn') {
    const angle = Math.atan2(to.y - middle.y, to.x - middle.x) - Math.atan2(from.y - middle.y, from.x - middle.x)
    return { by: rotation(angle, middle), said: `${((angle * 180) / Math.PI).toFixed(1)}°` }
  }
  const share = (axis: 'x' | 'y') => {
    const span = from[axis] - corner[axis]
    const s = Math.abs(span) < 1 ? 1 : (to[axis] - corner[axis]) / span
    return Math.abs(s) < 0.02 ? 0.02 : s
  }
  const [sx, sy] = [share('x'), share('y')]
  const even = Math.max(
    0.02,
    Math.hypot(to.x - corner.x, to.y - corner.y) / (Math.hypot(from.x - corner.x, from.y - corner.y) || 1),
  )
  const [kx, ky] = free ? [sx, sy] : [even, even]
  return { by: scaling(kx, ky, corner), said: `${(kx * 100).toFixed(0)} × ${(ky * 100).toFixed(0)} %` }
}

function drag(event: PointerEvent): void {
  if (!grip || event.pointerId !== grip.pointer) return
  const next = mapFor(toPaper(event), event.shiftKey)
  by.value = next.by
  said.value = next.said
  emit('show', next.by)
}

const WORDS: Record<Handle, string> = { move: 'shift', scale: 'scale', turn: 'turn' }

function up(event: PointerEvent): void {
  if (!grip || event.pointerId !== grip.pointer) return
  const done = by.value
  const label = WORDS[grip.handle]
  cancel()
  if (done) emit('move', label, done)
}

function cancel(): void {
  grip = null
  by.value = null
  emit('show', null)
}
</script>

<template>
  <svg v-if="!isEmptyBox(box)" class="gathered" @pointermove="drag" @pointerup="up" @pointercancel="cancel">
    <polygon
      class="body"
      :points="shown.map(p => `${p.x},${p.y}`).join(' ')"
      @pointerdown="down($event, 'move')"
      @pointermove="drag"
      @pointerup="up"
    />
    <line class="stem" :x1="knob.foot.x" :y1="knob.foot.y" :x2="knob.x" :y2="knob.y" />
    <circle
      class="knob"
      :cx="knob.x"
      :cy="knob.y"
      r="6"
      @pointerdown="down($event, 'turn')"
      @pointermove="drag"
      @pointerup="up"
    >
      <title>Turn</title>
    </circle>
    <rect
      v-for="(p, i) in scales ? shown : []"
      :key="i"
      class="corner"
      :x="p.x - 5"
      :y="p.y - 5"
      width="10"
      height="10"
      rx="2"
      @pointerdown="down($event, 'scale', i)"
      @pointermove="drag"
      @pointerup="up"
    >
      <title>Scale; with Shift width and height apart</title>
    </rect>
    <text v-if="by" class="said" :x="knob.x + 14" :y="knob.y + 4">{{ said }}</text>
  </svg>
</template>

<style scoped>
.gathered {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

.body {
  fill: rgb(60 106 85 / 5%);
  stroke: var(--green);
  stroke-dasharray: 5 4;
  pointer-events: all;
  cursor: move;
}

.stem {
  stroke: var(--green);
}

.knob,
.corner {
  fill: var(--paper);
  stroke: var(--green);
  stroke-width: 1.5;
  pointer-events: all;
  cursor: pointer;
}

.said {
  fill: var(--green);
  font-weight: 700;
  paint-order: stroke;
  stroke: var(--desk);
  stroke-width: 4px;
}
</style>
