<script setup lang="ts">
import { alongWish, curveFromTrack, type Wish } from '@unhurried/core/chart'
import { line, curveMonotoneX } from 'd3-shape'
import { computed, ref } from 'vue'

/**
 * A wish as a curve (time to the right, way upwards) with the `places` of drawings along it; drawn upon for a curve by hand.
 * `high` is for a narrow place. Where the places are what counts (`joined`), an overshoot and ticks put by hand are seen through them.
 */
const props = defineProps<{
  wish: Wish
  places: readonly number[]
  joined: boolean
  editable: boolean
  high?: boolean
}>()
const emit = defineEmits<{ drawn: [points: number[]] }>()
const [WIDTH, HEIGHT, PAD] = props.high ? [240, 132, 10] : [400, 132, 12]
const STEPS = 48
const x = (u: number) => PAD + u * (WIDTH - 2 * PAD)
const y = (t: number) => HEIGHT - PAD - (t / reach.value) * (HEIGHT - 2 * PAD)
const reach = computed(() => Math.max(1, ...wished.value.map(([, t]) => t)))

const wished = computed<[number, number][]>(() => {
  const { wish, places, joined } = props
  if (joined && (wish.ease === 'overshoot' || wish.ease === 'hand')) {
    return [0, ...places, 1].map((t, i) => [i / (places.length + 1), t])
  }
  return Array.from({ length: STEPS + 1 }, (_, i) => [i / STEPS, alongWish(wish, i / STEPS)])
})
const path = computed(
  () =>
    line<[number, number]>()
      .x(p => x(p[0]))
      .y(p => y(p[1]))
      .curve(curveMonotoneX)(wished.value) ?? '',
)
const dots = computed(() => props.places.map((t, i) => ({ cx: x((i + 1) / (props.places.length + 1)), cy: y(t) })))

const track = ref<{ x: number; y: number }[] | null>(null)
function at(event: PointerEvent) {
  const box = (event.currentTarget as Element).getBoundingClientRect()
  const px = ((event.clientX - box.left) / box.width) * WIDTH
  const py = ((event.clientY - box.top) / box.height) * HEIGHT
  return { x: (px - PAD) / (WIDTH - 2 * PAD), y: (HEIGHT - PAD - py) / (HEIGHT - 2 * PAD) }
}
function down(event: PointerEvent): void {
  if (!props.editable || event.button !== 0) return
  track.value = [at(event)]
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function move(event: PointerEvent): void {
  if (track.value) track.value = [...track.value, at(event)]
}
function up(): void {
  if (track.value && track.value.length > 2) emit('drawn', curveFromTrack(track.value))
  track.value = null
}
const drawing = computed(() => track.value?.map(p => `${x(p.x)},${y(p.y)}`).join(' ') ?? '')
</script>

<template>
  <svg
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    :class="{ editable }"
    role="img"
    aria-label="The spacing as a curve: time to the right, way upwards"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="track = null"
  >
    <rect x="0.5" y="0.5" :width="WIDTH - 1" :height="HEIGHT - 1" class="pad" rx="6" />
    <line :x1="x(0)" :x2="x(1)" :y1="y(1)" :y2="y(1)" class="key" />
    <line :x1="x(0)" :x2="x(1)" :y1="y(0)" :y2="y(0)" class="key" />
    <line v-for="(dot, i) in dots" :key="i" :x1="dot.cx" :x2="dot.cx" :y1="y(0)" :y2="dot.cy" class="drop" />
    <path :d="path" class="wish" />
    <circle v-for="(dot, i) in dots" :key="`d${i}`" :cx="dot.cx" :cy="dot.cy" r="3.4" />
    <polyline v-if="drawing" :points="drawing" class="drawing" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}

.editable {
  cursor: crosshair;
  touch-action: none;
}

.pad {
  fill: var(--paper);
  stroke: var(--rule);
}

.key {
  stroke: var(--rule);
}

.drop {
  stroke: var(--rule);
  stroke-dasharray: 1.5 3;
}

.wish {
  fill: none;
  stroke: var(--past);
  stroke-width: 1.6;
}

.drawing {
  fill: none;
  stroke: var(--green);
  stroke-width: 2;
}

circle {
  fill: var(--ink);
}
</style>
