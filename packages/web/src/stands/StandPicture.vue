<script setup lang="ts">
import {
  after,
  inverse,
  map,
  rotation,
  scaleOf,
  scaling,
  translation,
  type Matrix,
  type Point,
} from '@unhurried/core/geometry'
import { fitted, heightLine } from '@unhurried/core/models'
import { useDevicePixelRatio } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import PaperHandles, { type PaperHandle } from '../shared/PaperHandles.vue'
import SharpCanvas from '../shared/SharpCanvas.vue'
import { useSight } from '../stores/sight.ts'
import { useStands } from '../stores/stands.ts'
import type { Seen } from './sources.ts'
import { ZOOM, type Stand } from '../paint/stand.ts'

/** What stands beside the paper: brought nearer, shifted, turned; with heights, a grid of proportions, and its two points. */
const props = defineProps<{
  stand: Stand
  seen: Seen | null | undefined
  width: number
  height: number
  name: string
  /** a press tells a place of the picture, instead of shifting it */
  asks: boolean
  /** whether its two points are seen and can be put elsewhere */
  points: boolean
}>()
const emit = defineEmits<{ place: [at: Point]; low: [at: Point]; high: [at: Point]; done: []; lost: [] }>()
const stands = useStands()
const sight = useSight()
const { pixelRatio } = useDevicePixelRatio()
/** While the next picture is on its way, the one before stays. */
const shown = shallowRef<Seen | null>(null)
watch(
  () => props.seen,
  seen => {
    if (seen !== undefined) shown.value = seen
  },
  { immediate: true },
)

const middle = computed<Point>(() => ({ x: props.width / 2, y: props.height / 2 }))
/** From pixels of the picture to those of the window. */
const matrix = computed<Matrix>(() => {
  const { zoom, turnDeg, mirrored, panX, panY } = props.stand
  const { widthPx, heightPx } = shown.value ?? { widthPx: 16, heightPx: 9 }
  const fit = fitted(widthPx, heightPx, { width: props.width, height: props.height })
  const near = after(fit, scaling(mirrored ? -zoom : zoom, zoom, middle.value))
  return after(after(near, rotation((turnDeg * Math.PI) / 180, middle.value)), translation(panX, panY))
})
function paint(brush: CanvasRenderingContext2D): void {
  const seen = shown.value
  if (!seen) return
  brush.imageSmoothingQuality = 'high'
  brush.transform(...matrix.value)
  seen.paint(brush, scaleOf(matrix.value) * pixelRatio.value)
}

const change = (patch: Partial<Omit<Stand, 'key'>>) => stands.change(props.stand.key, patch)
function zoomBy(by: number, at: Point = middle.value): void {
  const { zoom, panX, panY } = props.stand
  const next = Math.max(ZOOM.least, Math.min(ZOOM.most, zoom * by))
  const share = next / zoom
  // What lies under the pointer stays there.
  const stays = (pan: number, place: number, half: number) => place - half - share * (place - half - pan)
  change({ zoom: next, panX: stays(panX, at.x, middle.value.x), panY: stays(panY, at.y, middle.value.y) })
}
const turnBy = (deg: number) => change({ turnDeg: (props.stand.turnDeg + deg) % 360 })
defineExpose({ zoomBy, turnBy })

const room = ref<HTMLElement | null>(null)
function placeOf(event: PointerEvent | WheelEvent): Point {
  const box = room.value?.getBoundingClientRect()
  return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
}
let held: { readonly pointer: number; readonly from: Point; readonly pan: Point } | null = null
function down(event: PointerEvent): void {
  const at = placeOf(event)
  if (props.asks) {
    const back = inverse(matrix.value)
    if (back) emit('place', map(back, at))
    return
  }
  held = { pointer: event.pointerId, from: at, pan: { x: props.stand.panX, y: props.stand.panY } }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function move(event: PointerEvent): void {
  if (held?.pointer !== event.pointerId) return
  const at = placeOf(event)
  change({ panX: held.pan.x + at.x - held.from.x, panY: held.pan.y + at.y - held.from.y })
}
function wheel(event: WheelEvent): void {
  if (event.shiftKey) turnBy(Math.sign(event.deltaY || event.deltaX) * 3)
  else zoomBy(Math.exp(-event.deltaY * 0.0015), placeOf(event))
}
const KEYS: Record<string, () => void> = {
  ArrowLeft: () => change({ panX: props.stand.panX + 16 }),
  ArrowRight: () => change({ panX: props.stand.panX - 16 }),
  ArrowUp: () => change({ panY: props.stand.panY + 16 }),
  ArrowDown: () => change({ panY: props.stand.panY - 16 }),
  '+': () => zoomBy(1.25),
  '-': () => zoomBy(0.8),
  Enter: () => emit('place', map(inverse(matrix.value) ?? matrix.value, middle.value)),
}
function key(event: KeyboardEvent): void {
  const act = KEYS[event.key]
  if (!act || event.ctrlKey || event.altKey || event.metaKey || (event.key === 'Enter' && !props.asks)) return
  event.preventDefault()
  event.stopPropagation()
  act()
}

/** Heights of the model sheet, right across the window. */
const heights = computed(() => {
  const one = shown.value?.view
  if (!one) return []
  const { low, high } = one.view
  return one.model.heights.flatMap(height => {
    const line = heightLine(low, high, height.share, 4 * Math.max(one.view.widthPx, one.view.heightPx))
    if (!line) return []
    const [from, to] = line.map(point => map(matrix.value, point)) as [Point, Point]
    const label = map(matrix.value, { x: 0, y: low.y + height.share * (high.y - low.y) })
    return [{ id: height.id, name: height.name, from, to, label: { x: Math.max(4, label.x + 4), y: label.y - 3 } }]
  })
})
/** The grid that lies over the paper too, in as many parts. */
const grid = computed(() => {
  const seen = shown.value
  const { cells } = sight.aids
  if (!seen || !cells) return []
  const side = seen.widthPx / cells
  const rows = Math.ceil(seen.heightPx / side - 1e-6)
  const line = (a: Point, b: Point) => [map(matrix.value, a), map(matrix.value, b)] as const
  return [
    ...Array.from({ length: cells + 1 }, (_, i) => line({ x: i * side, y: 0 }, { x: i * side, y: seen.heightPx })),
    ...Array.from({ length: rows + 1 }, (_, i) => {
      const y = Math.min(seen.heightPx, i * side)
      return line({ x: 0, y }, { x: seen.widthPx, y })
    }),
  ]
})
const handles = computed<PaperHandle[]>(() => {
  const view = shown.value?.view?.view
  if (!view || !props.points) return []
  const end = { done: () => emit('done'), lost: () => emit('lost') }
  return [
    { id: 'low', name: 'Low point: the sole', look: 'ground', at: view.low, drag: to => emit('low', to), ...end },
    { id: 'high', name: 'High point: the crown', look: 'horizon', at: view.high, drag: to => emit('high', to), ...end },
  ]
})
</script>

<template>
  <div
    ref="room"
    class="picture"
    :class="{ asks, empty: !shown }"
    tabindex="0"
    role="group"
    :aria-label="`${name}: arrow keys shift it, + and − bring it nearer`"
    :style="{ width: `${width}px`, height: `${height}px` }"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="held = null"
    @pointercancel="held = null"
    @wheel.prevent="wheel"
    @keydown="key"
  >
    <SharpCanvas
      :width="width"
      :height="height"
      :paint="paint"
      :style="{
        filter: `${stand.bright ? `brightness(${1 + 2 * stand.bright})` : ''} ${stands.filter}`.trim() || 'none',
      }"
    />
    <svg v-if="grid.length || heights.length" aria-hidden="true">
      <line
        v-for="([from, to], i) in grid"
        :key="`g${i}`"
        class="cell"
        :x1="from.x"
        :y1="from.y"
        :x2="to.x"
        :y2="to.y"
      />
      <g v-for="one in heights" :key="one.id" class="height">
        <line :x1="one.from.x" :y1="one.from.y" :x2="one.to.x" :y2="one.to.y" />
        <text :x="one.label.x" :y="one.label.y">{{ one.name }}</text>
      </g>
    </svg>
    <PaperHandles :matrix="matrix" :handles="handles" @pointerdown.stop />
  </div>
</template>

<style scoped>
.picture {
  position: relative;
  overflow: hidden;
  background: var(--paper);
  cursor: grab;
  touch-action: none;
}

.picture.asks {
  cursor: crosshair;
}

.picture:focus-visible {
  outline-offset: -2px;
}

.empty {
  background: var(--desk);
}

svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

.cell {
  stroke: var(--future);
  stroke-width: 0.8;
  opacity: 0.7;
}

.height line {
  stroke: var(--rust);
  stroke-width: 1;
  stroke-dasharray: 7 3;
}

.height text {
  fill: var(--rust);
  font-size: 11px;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
</style>
