<script setup lang="ts">
import { counted } from '@unhurried/core/time'
import { drawingOrder, fractionLabel, MOST_TICKS, valueOf } from '@unhurried/core/chart'
import { firstFrameOf, type Drawing, type KeyPair } from '@unhurried/core/document'
import { meetsChart } from '@unhurried/core/measure'
import { computed, ref } from 'vue'
import { useChart } from '../../../stores/chart.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useMeasure } from '../../../stores/measure.ts'
import { useShot } from '../../../stores/shot.ts'

/**
 * The ruler between two keys: ticks where drawings belong, and under each a dot where the drawing really lies. A tick is
 * dragged to respace; a click on the bare line adds one.
 */
const props = defineProps<{ pair: KeyPair; width: number }>()
const shot = useShot()
const desk = useDesk()
const measure = useMeasure()
const chart = useChart()

const PAD = 52
/** An overshoot needs the ruler to go on past the later key. */
const reach = computed(() => Math.max(1, ...chart.ticks.map(tick => valueOf(tick.at))))
const span = computed(() => Math.max(1, props.width - 2 * PAD) / reach.value)
const xOf = (t: number) => PAD + t * span.value
const tOf = (x: number) => (x - PAD) / span.value
const order = computed(() => drawingOrder(chart.ticks))
const reading = computed(() => (measure.reading?.chart.id === chart.chart?.id ? measure.reading : null))

const drag = ref<{ index: number; from: number; t: number; moved: boolean } | null>(null)

const shown = computed(() =>
  chart.ticks.map((tick, i) => {
    const t = drag.value?.moved && drag.value.index === i ? drag.value.t : valueOf(tick.at)
    const drawing = shot.drawing(tick.drawing)
    const read = reading.value?.ticks[i] ?? null
    return {
      x: xOf(t),
      drawing,
      third: tick.ratio === '1/3' || tick.ratio === '2/3',
      label: drawing ? String(drawing.number) : '',
      turn: order.value.indexOf(i) + 1,
      fraction: fractionLabel(tick.at),
      present: drawing !== null && drawing.id === desk.drawing?.id,
      read,
      readX: read ? xOf(read.share) : null,
      met: read ? meetsChart(read, valueOf(tick.at), reading.value?.within) : true,
    }
  }),
)

/** Pixels a frame, written between two ticks where there is room. */
const speeds = computed(() => {
  const xs = [xOf(0), ...shown.value.map(s => s.x), xOf(1)]
  return (reading.value?.speeds ?? []).flatMap((speed, i) => {
    const [a, b] = [xs[i] as number, xs[i + 1] as number]
    const px = speed.plannedPx
    const words = `${px < 10 ? px.toFixed(1) : Math.round(px)}${i === 0 ? ' px/f' : ''}`
    return Math.abs(b - a) > (i === 0 ? 60 : 34) ? [{ i, x: (a + b) / 2, words, speed }] : []
  })
})

function goTo(drawing: Drawing | null): void {
  const frame = drawing && shot.take && firstFrameOf(shot.take, drawing)
  if (frame !== null) desk.goTo(frame)
}

function down(event: PointerEvent, index: number): void {
  if (event.button !== 0) return
  drag.value = { index, from: event.clientX, t: 0, moved: false }
  if (desk.mayEdit) (event.currentTarget as Element).closest('svg')?.setPointerCapture(event.pointerId)
}

function move(event: PointerEvent): void {
  const now = drag.value
  if (!now || !desk.mayEdit) return
  const left = (event.currentTarget as Element).getBoundingClientRect().left
  const moved = now.moved || Math.abs(event.clientX - now.from) > 4
  drag.value = { ...now, moved, t: Math.max(0.01, Math.min(0.99, tOf(event.clientX - left))) }
}

function up(): void {
  const done = drag.value
  drag.value = null
  if (!done) return
  if (done.moved) chart.dragTick(done.index, done.t)
  else goTo(shown.value[done.index]?.drawing ?? null)
}

function add(event: MouseEvent): void {
  const left = (event.currentTarget as Element).closest('svg')?.getBoundingClientRect().left ?? 0
  if (desk.mayEdit) chart.addTick(tOf(event.clientX - left))
}
</script>

<template>
  <svg
    :width="width"
    height="58"
    role="img"
    :aria-label="`Timing chart between ${pair.from.number} and ${pair.to.number}`"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="drag = null"
  >
    <line :x1="xOf(0)" :x2="xOf(reach)" y1="33" y2="33" class="line" />
    <rect
      v-if="desk.mayEdit && !chart.own && chart.ticks.length < MOST_TICKS"
      class="free"
      :x="xOf(0) + 8"
      :width="Math.max(0, xOf(1) - xOf(0) - 16)"
      y="26"
      height="14"
      @dblclick="add"
    >
      <title>Double-click to add a tick here</title>
    </rect>
    <text v-for="s in speeds" :key="`v${s.i}`" class="speed" :x="s.x" y="30">
      <title>
        {{ s.speed.plannedPx.toFixed(1) }} px a frame planned{{
          s.speed.drawnPx === null ? '' : `, ${s.speed.drawnPx.toFixed(1)} drawn`
        }}, over {{ counted(s.speed.frames, 'frame') }}
      </title>
      {{ s.words }}
    </text>
    <g
      v-for="(key, i) in [pair.from, pair.to]"
      :key="key.id"
      class="tick key"
      :class="{ present: key.id === desk.drawing?.id }"
      @click="goTo(key)"
    >
      <line :x1="xOf(i)" :x2="xOf(i)" y1="25" y2="44" />
      <circle :cx="xOf(i)" cy="14" r="10" />
      <text :x="xOf(i)" y="18">{{ key.number }}</text>
      <circle :cx="xOf(i)" cy="51" r="3" class="met dot" />
    </g>
    <g
      v-for="(s, i) in shown"
      :key="i"
      class="tick"
      :class="{ present: s.present, waiting: !s.drawing, movable: desk.mayEdit }"
      @pointerdown="down($event, i)"
    >
      <title>
        {{ s.fraction }} of the way{{ s.third ? ' (a third)' : '' }}; to be drawn
        {{ s.turn === 1 ? 'first' : `as no. ${s.turn}` }}{{ desk.mayEdit ? '. Drag to respace' : '' }}
      </title>
      <rect class="grab" :x="s.x - 7" y="4" width="14" height="40" />
      <line :x1="s.x" :x2="s.x" :y1="s.present ? 20 : 26" y2="40" />
      <path v-if="s.third" class="third" :d="`M${s.x - 4} 33 L${s.x} 28 L${s.x + 4} 33 L${s.x} 38 Z`" />
      <text :x="s.x" :y="s.present ? 15 : 19">{{ s.label || `·${s.turn}` }}</text>
      <line
        v-if="s.drawing?.role === 'breakdown'"
        class="under"
        :x1="s.x - 7"
        :x2="s.x + 7"
        :y1="s.present ? 18.5 : 22"
        :y2="s.present ? 18.5 : 22"
      />
      <template v-if="s.readX !== null">
        <line v-if="!s.met" class="off" :x1="s.x" :x2="s.readX" y1="51" y2="51" />
        <circle :cx="s.readX" cy="51" r="3" class="dot" :class="{ met: s.met }" />
      </template>
      <circle v-else :cx="s.x" cy="51" r="2.6" class="blank" />
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  touch-action: none;
}

.line {
  stroke: var(--ink);
  stroke-width: 1.1;
}

.free,
.grab {
  fill: transparent;
}

.free {
  cursor: copy;
}

.speed {
  text-anchor: middle;
  font-size: 10px;
  fill: var(--soft);
}

.tick {
  cursor: pointer;
}

.tick.movable:not(.key) {
  cursor: ew-resize;
}

.tick line {
  stroke: var(--ink);
  stroke-width: 1.2;
}

.tick.key > circle:first-of-type {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}

.tick text {
  text-anchor: middle;
  font-size: 12px;
  fill: var(--ink);
}

.tick.waiting text {
  fill: var(--soft);
}

.tick.waiting line {
  stroke-dasharray: 2 2;
}

.tick.present line {
  stroke: var(--green);
  stroke-width: 2.4;
}

.tick.present text {
  fill: var(--green);
  font-weight: 700;
}

.tick.key.present > circle:first-of-type {
  stroke: var(--green);
  stroke-width: 2;
}

.third {
  fill: var(--edge);
  stroke: var(--ink);
}

.dot {
  fill: var(--rust);
}

.dot.met {
  fill: var(--green);
}

.tick line.off {
  stroke: var(--rust);
  stroke-width: 1.6;
}

.blank {
  fill: none;
  stroke: var(--faint-line);
  stroke-dasharray: 1.5 1.5;
}
</style>
