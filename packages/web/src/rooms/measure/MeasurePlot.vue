<script setup lang="ts">
import { CHECKS, type CheckName, type Found, type Series, type SeriesValue } from '@unhurried/core/measure'
import { scaleLinear } from 'd3-scale'
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { numberOfDrawing } from './numbers.ts'
import { useDesk } from '../../stores/desk.ts'
import { useMeasure } from '../../stores/measure.ts'
import { useShot } from '../../stores/shot.ts'

/** What a check measures over the frames: what was drawn beside what was planned, its limits, its findings, and where one stands. */
const props = defineProps<{ check: CheckName; found: readonly Found[]; looked: Found | null }>()
const shot = useShot()
const desk = useDesk()
const measure = useMeasure()
const box = ref<HTMLElement | null>(null)
const { width, height } = useElementSize(box)
const EDGE = { left: 46, right: 14, top: 12, bottom: 24 }

const all = computed<readonly Series[]>(() =>
  measure.survey ? (CHECKS[props.check].series?.(measure.survey) ?? []) : [],
)
const chosen = ref(0)
const series = computed(() => all.value[Math.min(chosen.value, all.value.length - 1)] ?? null)
watch(
  () => props.check,
  () => {
    chosen.value = 0
    zoom.value = null
  },
)
// What is found on a part is seen on its plot.
watch(
  () => [desk.layerId, props.check] as const,
  () => {
    const here = all.value.findIndex(one => one.layer === desk.layerId)
    if (here >= 0 && series.value?.layer !== desk.layerId) chosen.value = here
  },
)
/** Whether a finding is about a series of its layer: it says which one where there are several. */
const isAbout = (one: Found, { what }: Series) => one.what === undefined || one.what === what
// What a finding is about is what is plotted: its mark, or its layer, also where all of it is measured later.
watch(
  () => [props.looked, all.value.length > 0] as const,
  ([one]) => {
    if (!one || one.check !== props.check) return
    const ofMark = all.value.findIndex(
      ({ layer, mark }) => layer === one.layer && mark !== null && one.marks.includes(mark),
    )
    const ofLayer = all.value.findIndex(series => series.layer === one.layer && isAbout(one, series))
    const nearest = ofLayer >= 0 ? ofLayer : all.value.findIndex(({ layer }) => layer === one.layer)
    const here = ofMark >= 0 ? ofMark : nearest
    if (here >= 0) chosen.value = here
  },
  { immediate: true },
)
const limits = computed(() =>
  measure.survey && !series.value?.isOnlyTold ? (CHECKS[props.check].limits?.(measure.survey) ?? []) : [],
)

/** the frames that are looked at nearer, from and up to; null: all */
const zoom = ref<readonly [number, number] | null>(null)
const length = computed(() => shot.take?.length ?? 1)
const frames = computed(() => zoom.value ?? [0, length.value])
const x = computed(() =>
  scaleLinear()
    .domain(frames.value)
    .range([EDGE.left, Math.max(EDGE.left + 1, width.value - EDGE.right)]),
)
const y = computed(() => {
  const values = [...(series.value?.values ?? []), ...(series.value?.planned ?? [])].map(one => one.value)
  const most = Math.max(...values, ...limits.value, 0)
  const isShare = series.value?.unit.startsWith('%') ?? false
  const least = Math.min(isShare ? Math.min(...values, ...limits.value) : 0, ...values)
  const room = (most - least) * 0.08 || 1
  return scaleLinear()
    .domain([isShare ? least - room : least, most + room])
    .range([Math.max(EDGE.top + 1, height.value - EDGE.bottom), EDGE.top])
    .nice()
})
const seen = (values: readonly SeriesValue[]) =>
  values.filter(({ frame }) => frame >= frames.value[0] && frame < frames.value[1])
/** Held until the next drawing appears, as it is seen. */
function held(values: readonly SeriesValue[]): string {
  return values
    .map(({ frame, value }, i) => {
      const end = values[i + 1]?.frame ?? length.value
      const [from, to, at] = [x.value(frame), x.value(end), y.value(value)]
      return `${i ? 'L' : 'M'}${from} ${at}H${to}`
    })
    .join('')
}
const points = computed(() => seen(series.value?.values ?? []))
const planned = computed(() => seen(series.value?.planned ?? []))
const isFound = ({ drawing, frame }: SeriesValue) =>
  props.found.some(
    one =>
      one.check === props.check &&
      one.layer === series.value?.layer &&
      isAbout(one, series.value) &&
      (drawing === null ? frame >= one.from && frame < one.to : one.drawings[0] === drawing),
  )
const ticks = computed(() => {
  const [from, to] = frames.value
  const fit = Math.max(1, Math.ceil((to - from) / Math.max(1, (width.value - 60) / 34)))
  const step = [1, 2, 4, 6, 12, 24, 48, 120, 240, 480, 1200].find(one => one >= fit) ?? fit
  return Array.from({ length: Math.ceil((to - from) / step) }, (_, i) => from + i * step)
})

const frameAt = (event: PointerEvent): number => {
  const left = (event.currentTarget as Element).getBoundingClientRect().left
  return Math.max(0, Math.min(length.value - 1, Math.floor(x.value.invert(event.clientX - left))))
}
/** where dragging began, and where it is, in frames */
const drag = ref<readonly [number, number] | null>(null)
const hover = ref<number | null>(null)
function press(event: PointerEvent): void {
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  const frame = frameAt(event)
  drag.value = [frame, frame]
}
function move(event: PointerEvent): void {
  hover.value = frameAt(event)
  if (drag.value) drag.value = [drag.value[0], frameAt(event)]
}
function release(): void {
  if (!drag.value) return
  const [from, to] = [Math.min(...drag.value), Math.max(...drag.value)]
  // A press goes there; a stretch is looked at nearer.
  if (to - from < 2) desk.goTo(from)
  else zoom.value = [from, to + 1]
  drag.value = null
}
const read = computed(() => {
  const frame = hover.value ?? desk.frame
  const at = (values: readonly SeriesValue[]) => [...values].reverse().find(one => one.frame <= frame)
  const value = at(series.value?.values ?? [])
  if (!series.value || !value) return ''
  const wish = series.value.planned.find(one => one.drawing === value.drawing)
  const round = (n: number) => Math.round(n * 10) / 10
  const drawing = value.drawing === null ? '' : ` · drawing ${numberOfDrawing(shot.document, value.drawing)}`
  const told = `frame ${frame + 1}${drawing} · ${round(value.value)} ${series.value.unit}`
  return wish ? `${told} · planned ${round(wish.value)}` : told
})

function save(): void {
  const one = series.value
  if (!one) return
  const rows = one.values.map(({ frame, drawing, value }) => {
    const wish = one.planned.find(other => other.drawing === drawing)
    return [frame + 1, drawing === null ? '' : numberOfDrawing(shot.document, drawing), value, wish?.value ?? ''].join(
      ',',
    )
  })
  const head = `frame,drawing,"${one.unit}",planned`
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([[head, ...rows].join('\r\n'), '\r\n'], { type: 'text/csv' }))
  link.download = `${`${shot.name} ${CHECKS[props.check].words} ${one.name}`.toLowerCase().replace(/[^a-z0-9]+/g, '-')}.csv`
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 1000)
}
</script>

<template>
  <section class="plot" aria-label="Plot">
    <p class="head">
      <template v-if="series">
        <label v-if="all.length > 1">
          <span class="hush">What is plotted</span>
          <select v-model.number="chosen">
            <option v-for="(one, i) in all" :key="i" :value="i">{{ one.name }}</option>
          </select>
        </label>
        <b v-else>{{ series.name }}</b>
        <span class="soft" role="status">{{ read }}</span>
        <span class="acts">
          <button v-if="zoom" class="plain word" @click="zoom = null">all frames</button>
          <button class="plain word" @click="save">save as CSV</button>
        </span>
      </template>
      <span v-else class="soft">{{ CHECKS[check].asks }}</span>
    </p>
    <div ref="box" class="box">
      <svg
        v-if="series && width > 0"
        :width="width"
        :height="height"
        role="img"
        :aria-label="`${series.name}, ${series.unit}, over the frames`"
        @pointerdown="press"
        @pointermove="move"
        @pointerup="release"
        @pointerleave="hover = null"
        @dblclick="zoom = null"
      >
        <rect :width="width" :height="height" fill="transparent" />
        <g class="axis">
          <g v-for="tick in y.ticks(4)" :key="tick">
            <line :x1="EDGE.left" :x2="width - EDGE.right" :y1="y(tick)" :y2="y(tick)" />
            <text :x="EDGE.left - 6" :y="y(tick) + 4" text-anchor="end">{{ tick }}</text>
          </g>
          <text v-for="tick in ticks" :key="tick" :x="x(tick + 0.5)" :y="height - 6" text-anchor="middle">
            {{ tick + 1 }}
          </text>
        </g>
        <line
          v-for="limit in limits"
          :key="limit"
          class="limit"
          :x1="EDGE.left"
          :x2="width - EDGE.right"
          :y1="y(limit)"
          :y2="y(limit)"
        />
        <rect
          v-if="desk.frame >= frames[0] && desk.frame < frames[1]"
          class="here"
          :x="x(desk.frame)"
          :width="Math.max(2, x(desk.frame + 1) - x(desk.frame))"
          :y="EDGE.top"
          :height="Math.max(1, height - EDGE.top - EDGE.bottom)"
        />
        <path class="drawn" :d="held(points)" />
        <path
          v-for="one in planned"
          :key="one.frame"
          class="planned"
          :d="`M${x(one.frame + 0.5) - 7} ${y(one.value)}h14`"
        />
        <template v-for="one in points" :key="one.frame">
          <circle class="point" :class="{ found: isFound(one) }" :cx="x(one.frame + 0.5)" :cy="y(one.value)" r="4.2" />
          <circle v-if="isFound(one)" class="about" :cx="x(one.frame + 0.5)" :cy="y(one.value)" r="8" />
        </template>
        <rect
          v-if="drag && drag[0] !== drag[1]"
          class="stretch"
          :x="x(Math.min(...drag))"
          :width="x(Math.max(...drag) + 1) - x(Math.min(...drag))"
          :y="EDGE.top"
          :height="Math.max(1, height - EDGE.top - EDGE.bottom)"
        />
      </svg>
      <p v-else-if="!series" class="soft nothing">There is nothing to plot here.</p>
    </div>
  </section>
</template>

<style scoped>
.plot {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  padding: 8px 16px 10px;
  background: var(--edge);
  border-top: 1px solid var(--rule);
}

.head {
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 28px;
  font-size: 13px;
}

select {
  max-width: 220px;
  padding: 2px 6px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}

.acts {
  margin-left: auto;
  white-space: nowrap;
}

.word {
  color: var(--green);
}

.box {
  min-height: 0;
  overflow: hidden;
}

svg {
  display: block;
  cursor: crosshair;
  touch-action: none;
}

.axis line {
  stroke: var(--rule-faint);
}

.axis text {
  font-size: 11px;
  fill: var(--soft);
}

.limit {
  stroke: var(--rust);
  stroke-dasharray: 2 4;
}

.here {
  fill: var(--mark);
}

.stretch {
  fill: var(--mark);
  stroke: var(--green);
}

.drawn {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
}

.point {
  fill: var(--ink);
}

.point.found {
  fill: var(--rust);
}

.about {
  fill: none;
  stroke: var(--rust);
  stroke-width: 1.5;
}

.planned {
  stroke: var(--green);
  stroke-width: 3;
}

.nothing {
  display: grid;
  place-items: center;
  height: 100%;
}
</style>
