<script setup lang="ts">
import { drawingOrder, fractionLabel, valueOf } from '@unhurried/core/chart'
import { firstFrameOf, type ChartTick, type Drawing, type KeyPair } from '@unhurried/core/document'
import { meetsChart } from '@unhurried/core/measure'
import { computed } from 'vue'
import { useDesk } from '../stores/desk.ts'
import { useMeasure } from '../stores/measure.ts'
import { useShot } from '../stores/shot.ts'

/** The ruler between two keys: ticks where drawings belong, and under each a dot where the drawing really lies. */
const props = defineProps<{ pair: KeyPair; ticks: readonly ChartTick[]; chartId: string | null; width: number }>()
const shot = useShot()
const desk = useDesk()
const measure = useMeasure()

const PAD = 52
const xOf = (t: number) => PAD + t * Math.max(0, props.width - 2 * PAD)
const order = computed(() => drawingOrder(props.ticks))
const shown = computed(() =>
  props.ticks.map((tick, i) => {
    const t = valueOf(tick.at)
    const drawing = shot.drawing(tick.drawing)
    const read = measure.reading?.chart.id === props.chartId ? (measure.reading?.ticks[i] ?? null) : null
    return {
      x: xOf(t),
      t,
      drawing,
      third: tick.ratio !== '1/2',
      label: drawing ? String(drawing.number) : '',
      turn: order.value.indexOf(i) + 1,
      fraction: fractionLabel(tick.at),
      present: drawing !== null && drawing.id === desk.drawing?.id,
      read,
      readX: read ? xOf(read.share) : null,
      met: read ? meetsChart(read, t) : true,
    }
  }),
)

function goTo(drawing: Drawing | null): void {
  const frame = drawing && shot.take && firstFrameOf(shot.take, drawing)
  if (frame !== null) desk.goTo(frame)
}
</script>

<template>
  <svg
    :width="width"
    height="58"
    role="img"
    :aria-label="`Timing chart between ${pair.from.number} and ${pair.to.number}`"
  >
    <line :x1="xOf(0)" :x2="xOf(1)" y1="33" y2="33" class="line" />
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
      :class="{ present: s.present, waiting: !s.drawing }"
      @click="goTo(s.drawing)"
    >
      <title>
        {{ s.fraction }} of the way{{ s.third ? ' (a third)' : '' }}; to be drawn
        {{ s.turn === 1 ? 'first' : `as no. ${s.turn}` }}
      </title>
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
}

.line {
  stroke: var(--ink);
  stroke-width: 1.1;
}

.tick {
  cursor: pointer;
}

.tick.waiting {
  cursor: default;
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
  stroke: #b5ab97;
  stroke-dasharray: 1.5 1.5;
}
</style>
