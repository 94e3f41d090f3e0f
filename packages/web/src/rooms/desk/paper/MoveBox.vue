<script setup lang="ts">
import {
  distance,
  after,
  centreOf,
  IDENTITY,
  inverse,
  isEmptyBox,
  map,
  type Box,
  type Matrix,
  type Point,
} from '@unhurried/core/geometry'
import { useElementSize } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import { bentBox, movedBox, type BoxHandle } from '../../../strokes/boxMoves.ts'
import { useHands } from '../../../stores/hands.ts'
import type { Change } from '../../../strokes/gathered.ts'

/** A box on the paper that is moved and turned with the pointer; when it `shapes`, also scaled, skewed, bent, about a pivot. */
const props = defineProps<{
  /** paper to screen */
  matrix: Matrix
  box: Box
  /** where the box lies now, when it was moved before */
  laid?: Matrix | null
  shapes?: boolean
  fixed?: boolean
  /** what it turns about and bends from; its middle when there is none */
  pivot?: Point | null
  /** shown while nothing is dragged */
  note?: string
}>()
const emit = defineEmits<{ show: [change: Change | null]; move: [label: string, change: Change]; pivot: [at: Point] }>()

type Handle = BoxHandle | 'pivot'
const hands = useHands()
const by = ref<Matrix | null>(null)
const change = shallowRef<Change | null>(null)
const said = ref('')
let grip: { handle: Handle; from: Point; corner: Point; which: number; pointer: number } | null = null

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
const frame = ref<SVGSVGElement | null>(null)
const { width: frameWidth, height: frameHeight } = useElementSize(frame)
/** Handles are never under an edge of the paper. */
function inSight({ x, y }: Point): Point {
  const [w, h] = [frameWidth.value || Infinity, frameHeight.value || Infinity]
  return { x: Math.max(EDGE_PX, Math.min(w - EDGE_PX, x)), y: Math.max(EDGE_PX, Math.min(h - EDGE_PX, y)) }
}
const EDGE_PX = 12
/** On a thin box handles stand apart: the frame they lie on is at least so wide and high on the screen. */
const LEAST_PX = 46
const framed = computed(() => {
  const [a, b, , d] = shown.value as [Point, Point, Point, Point]
  const grow = (p: Point, q: Point) => {
    const length = distance(p, q)
    const more = Math.max(0, (LEAST_PX - length) / 2)
    return length === 0 ? { x: 0, y: 0 } : { x: ((q.x - p.x) / length) * more, y: ((q.y - p.y) / length) * more }
  }
  const [across, down] = [grow(a, b), grow(a, d)]
  const signs = [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ] as const
  return shown.value.map((p, i) => {
    const [u, v] = signs[i] as readonly [number, number]
    return inSight({ x: p.x + u * across.x + v * down.x, y: p.y + u * across.y + v * down.y })
  })
})
const sides = computed(() =>
  framed.value.map((p, i) => {
    const q = framed.value[(i + 1) % 4] ?? p
    return { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 }
  }),
)
const middle = computed(() => map(props.laid ?? IDENTITY, centreOf(props.box)))
const about = computed(() => props.pivot ?? middle.value)
const aboutShown = computed(() => map(props.matrix, map(by.value ?? IDENTITY, about.value)))
/** where the pivot is taken hold of: itself once it was laid somewhere, else a foot below the box */
const pivotGrip = computed(() => {
  if (props.pivot) return aboutShown.value
  const [a, b, c, d] = shown.value
  const foot = { x: ((c?.x ?? 0) + (d?.x ?? 0)) / 2, y: ((c?.y ?? 0) + (d?.y ?? 0)) / 2 }
  const down = { x: foot.x - ((a?.x ?? 0) + (b?.x ?? 0)) / 2, y: foot.y - ((a?.y ?? 0) + (b?.y ?? 0)) / 2 }
  const length = Math.hypot(down.x, down.y) || 1
  return inSight({ x: foot.x + (down.x / length) * 20, y: foot.y + (down.y / length) * 20 })
})
const knob = computed(() => {
  const [a, b, c, d] = framed.value
  const middle = { x: ((a?.x ?? 0) + (b?.x ?? 0)) / 2, y: ((a?.y ?? 0) + (b?.y ?? 0)) / 2 }
  const away = { x: (b?.x ?? 0) - (c?.x ?? 0), y: (b?.y ?? 0) - (c?.y ?? 0) }
  const length = Math.hypot(away.x, away.y) || 1
  const at = { x: middle.x + (away.x / length) * 26, y: middle.y + (away.y / length) * 26 }
  if (at.y >= EDGE_PX && at.x >= EDGE_PX) return { foot: middle, ...at }
  // There is no room above: it stands below, a little aside of the pivot.
  const foot = { x: ((c?.x ?? 0) * 3 + (d?.x ?? 0)) / 4, y: ((c?.y ?? 0) * 3 + (d?.y ?? 0)) / 4 }
  return { foot, ...inSight({ x: foot.x - (away.x / length) * 26, y: foot.y - (away.y / length) * 26 }) }
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
    which: corner,
    pointer: event.pointerId,
  }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}

function drag(event: PointerEvent): void {
  if (!grip || event.pointerId !== grip.pointer) return
  const to = toPaper(event)
  const { handle, from, corner, which } = grip
  if (handle === 'pivot') return emit('pivot', to)
  const drag = { handle, from, to, corner, side: which, about: about.value, free: event.shiftKey || hands.held.shift }
  const next =
    handle === 'turn' && (event.altKey || hands.held.alt) && props.shapes
      ? bentBox(props.box, props.pivot ?? null, from, to)
      : movedBox(props.box, drag)
  by.value = next.change.kind === 'map' ? next.change.by : null
  change.value = next.change
  said.value = next.said
  emit('show', next.change)
}

const WORDS: Record<Handle, string> = { move: 'shift', scale: 'scale', turn: 'turn', skew: 'skew', pivot: 'pivot' }

function up(event: PointerEvent): void {
  if (!grip || event.pointerId !== grip.pointer) return
  const done = change.value
  const label = done?.kind === 'bend' ? 'bend' : WORDS[grip.handle]
  cancel()
  if (done) emit('move', label, done)
}

function cancel(): void {
  grip = null
  by.value = null
  change.value = null
  emit('show', null)
}
</script>

<template>
  <svg v-if="!isEmptyBox(box)" ref="frame" class="gathered" @pointermove="drag" @pointerup="up" @pointercancel="cancel">
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
      <title>{{ shapes ? 'Turn; with Alt bend' : 'Turn' }}</title>
    </circle>
    <rect
      v-for="(p, i) in shapes ? framed : []"
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
    <rect
      v-for="(p, i) in shapes ? sides : []"
      :key="`side ${i}`"
      class="side"
      :x="p.x - (i % 2 ? 3 : 8)"
      :y="p.y - (i % 2 ? 8 : 3)"
      :width="i % 2 ? 6 : 16"
      :height="i % 2 ? 16 : 6"
      rx="3"
      @pointerdown="down($event, 'skew', i)"
      @pointermove="drag"
      @pointerup="up"
    >
      <title>Skew: this side moves along itself</title>
    </rect>
    <path
      v-if="shapes && !pivot"
      class="about"
      :d="`M${aboutShown.x - 5} ${aboutShown.y}h10M${aboutShown.x} ${aboutShown.y - 5}v10`"
    />
    <g
      v-if="shapes"
      class="pivot"
      :transform="`translate(${pivotGrip.x} ${pivotGrip.y})`"
      @pointerdown="down($event, 'pivot')"
      @pointermove="drag"
      @pointerup="up"
    >
      <circle r="9" class="reach" />
      <path d="M-7 0H7M0-7V7" />
      <circle r="3.2" />
      <title>Pivot: turns, mirrors and bends go about it; drag it to where that is</title>
    </g>
    <text v-if="change || note" class="said" :x="knob.x + 14" :y="knob.y + 4">{{ change ? said : note }}</text>
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

.side {
  fill: var(--paper);
  stroke: var(--green);
  stroke-width: 1.2;
  pointer-events: all;
  cursor: pointer;
}

.about {
  stroke: var(--rust);
  opacity: 0.7;
}

.pivot {
  fill: none;
  stroke: var(--rust);
  stroke-width: 1.4;
  pointer-events: all;
  cursor: move;
}

.pivot .reach {
  stroke: none;
  fill: transparent;
}

.said {
  fill: var(--green);
  font-weight: 700;
  paint-order: stroke;
  stroke: var(--desk);
  stroke-width: 4px;
}
</style>
