<script setup lang="ts">
import {
  evenness,
  EASES,
  fractionLabel,
  largestError,
  valueOf,
  wishedPositions,
  type EaseName,
} from '@unhurried/core/chart'
import { ElOption, ElSelect, ElSlider } from 'element-plus'
import { computed, ref } from 'vue'
import { EASE_WORDS, hasStrength, useChart } from '../../../stores/chart.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useMeasure } from '../../../stores/measure.ts'
import { useShot } from '../../../stores/shot.ts'
import ChartPaper from './ChartPaper.vue'
import CurvePad from '../../../shared/CurvePad.vue'

/** The whole of a chart: what is wished, what halves make of it, what it means in speed, and its paper ruler. */
const shot = useShot()
const desk = useDesk()
const kit = useKit()
const chart = useChart()
const measure = useMeasure()
const printing = ref(false)

const eases = computed(() => EASES.filter(e => e !== 'hand' || chart.wish.ease === 'hand'))
const strength = computed({
  get: () => chart.wish.strength,
  set: (s: number) => chart.respace({ wish: { ...chart.wish, strength: s } }),
})
const error = computed(() => {
  const wished = wishedPositions(chart.wish, chart.ticks.length)
  return largestError(chart.ticks.slice(0, wished.length), wished)
})
const speeds = computed(() => (measure.reading?.chart.id === chart.chart?.id ? (measure.reading?.speeds ?? []) : []))
const numbers = computed(() => [
  chart.pair?.from.number,
  ...chart.ticks.map(tick => shot.drawing(tick.drawing)?.number ?? '·'),
  chart.pair?.to.number,
])
/** Whether an even chart of so many can be drawn evenly. */
const even = computed(() => (chart.wish.ease === 'even' && chart.count > 0 ? evenness(chart.count) : null))
const frameInWords = (f: number) => (f % 1 === 0.5 ? `${Math.floor(f)}½` : f.toFixed(1))
const NUDGE = 1 / 16
</script>

<template>
  <div class="chart-panel">
    <div class="top">
      <div>
        <label class="label" for="ease">spacing</label>
        <ElSelect
          id="ease"
          :model-value="chart.wish.ease"
          size="small"
          :disabled="!desk.mayEdit"
          :teleported="false"
          aria-label="Kind of spacing"
          @change="(ease: EaseName) => chart.choose(ease)"
        >
          <ElOption v-for="ease in eases" :key="ease" :value="ease" :label="EASE_WORDS[ease]" />
        </ElSelect>
      </div>
      <div v-if="hasStrength(chart.wish.ease)" class="strength">
        <span class="label">strength {{ Math.round(strength * 100) }} %</span>
        <ElSlider
          v-model="strength"
          :min="0"
          :max="1"
          :step="0.05"
          size="small"
          :show-tooltip="false"
          :disabled="!desk.mayEdit"
          aria-label="Strength of the spacing"
        />
      </div>
      <label class="thirds">
        <input
          type="checkbox"
          :checked="chart.wish.thirds"
          :disabled="!desk.mayEdit"
          @change="chart.respace({ wish: { ...chart.wish, thirds: !chart.wish.thirds } })"
        />
        thirds allowed
      </label>
    </div>
    <CurvePad
      :wish="chart.wish"
      :places="chart.ticks.map(tick => valueOf(tick.at))"
      joined
      :editable="chart.wish.ease === 'curve' && desk.mayEdit"
      @drawn="points => chart.choose('curve', points)"
    />
    <p class="soft small">
      Halves come within <b>{{ (error * 100).toFixed(1) }} %</b> of the wish.
      <template v-if="chart.wish.ease === 'curve'">Draw the curve: time to the right, way upwards.</template>
    </p>

    <div v-if="even && !even.byHalves && !(chart.wish.thirds && even.byThirds)" class="gap">
      <p>
        <b>{{ chart.count }}</b> inbetweens cannot lie evenly by halves<template v-if="desk.mayEdit">:</template>
      </p>
      <button
        v-if="even.byThirds && desk.mayEdit"
        class="plain word"
        @click="chart.respace({ wish: { ...chart.wish, thirds: true } })"
      >
        with the breakdown on a third they do
      </button>
      <template v-if="desk.mayEdit">
        <button v-for="n in even.nearest" :key="n" class="plain word" @click="chart.respace({ count: n })">
          {{ n }} would
        </button>
      </template>
    </div>

    <div v-if="chart.gap" class="gap">
      <p>
        Half-way between {{ chart.pair!.fromFrame + 1 }} and {{ chart.pair!.toFrame + 1 }} is
        <b>{{ frameInWords(chart.gap.wished + 1) }}</b>: no whole frame. Nearest:
        {{ chart.gap.nearest.map(f => f + 1).join(' or ') }}
        <button class="plain word" @click="chart.on = 'fit'">(share the frames out evenly)</button>, or
      </p>
      <button
        v-for="move in chart.gap.moves"
        :key="`${move.key}${move.frame}`"
        class="plain word"
        @click="chart.moveTo(move)"
      >
        move {{ move.key === 'from' ? chart.pair!.from.number : chart.pair!.to.number }} to frame {{ move.frame + 1 }}
      </button>
    </div>

    <table v-if="chart.ticks.length">
      <thead>
        <tr>
          <th>step</th>
          <th>lies at</th>
          <th>px a frame</th>
          <th>drawn</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="(number, i) in numbers.slice(1)" :key="i">
          <td>{{ numbers[i] }} → {{ number }}</td>
          <td>{{ chart.ticks[i] ? fractionLabel(chart.ticks[i]!.at) : '1' }}</td>
          <td>{{ speeds[i] ? speeds[i]!.plannedPx.toFixed(1) : '–' }}</td>
          <td>{{ speeds[i]?.drawnPx?.toFixed(1) ?? '–' }}</td>
          <td class="edit">
            <template v-if="chart.ticks[i] && desk.mayEdit && !chart.own">
              <button
                class="plain"
                :aria-label="`Tick ${i + 1} nearer to the first key`"
                @click="chart.dragTick(i, valueOf(chart.ticks[i]!.at) - NUDGE)"
              >
                ‹
              </button>
              <button
                class="plain"
                :aria-label="`Tick ${i + 1} nearer to the last key`"
                @click="chart.dragTick(i, valueOf(chart.ticks[i]!.at) + NUDGE)"
              >
                ›
              </button>
              <button class="plain word" :aria-label="`Take tick ${i + 1} off`" @click="chart.removeTick(i)">
                off
              </button>
            </template>
          </td>
        </tr>
      </tbody>
    </table>

    <div v-if="chart.parts.length" class="parts" role="radiogroup" aria-label="Read by">
      <span class="label">read by</span>
      <button
        class="plain"
        role="radio"
        :aria-checked="!desk.part"
        :class="{ on: !desk.part }"
        @click="desk.part = null"
      >
        silhouette
      </button>
      <button
        v-for="mark in chart.parts"
        :key="mark.id"
        class="plain"
        role="radio"
        :aria-checked="desk.part === mark.id"
        :class="{ on: desk.part === mark.id }"
        @click="desk.part = mark.id"
      >
        {{ mark.name }}
      </button>
    </div>
    <p v-if="desk.part" class="small">
      <template v-if="chart.own"
        >This part has a spacing of its own.
        <button class="plain word" @click="chart.setOwn(false)">let it follow the drawings</button></template
      >
      <template v-else
        >It follows the drawings.
        <button class="plain word" :disabled="!chart.canOwn || !desk.mayEdit" @click="chart.setOwn(true)">
          give it a spacing of its own
        </button></template
      >
    </p>
    <p v-if="measure.reading?.worst && chart.chart" class="small rust">
      {{ numbers[measure.reading.worst.index + 1] }} is most off: move it {{ measure.reading.worst.words }}.
    </p>
    <p v-else-if="measure.reading?.words" class="small">The drawings read: {{ measure.reading.words }}.</p>

    <div class="row">
      <button class="plain word" @click="chart.copy">copy this chart</button>
      <button class="plain word" :disabled="!kit.chartInHand || !desk.mayEdit" @click="chart.lay">
        lay the copied one here
      </button>
      <button class="plain word" @click="printing = true">paper ruler</button>
    </div>
    <ChartPaper v-if="chart.pair" v-model="printing" />
  </div>
</template>

<style scoped>
.chart-panel {
  display: flex;
  flex-direction: column;
  gap: 8px;
  max-height: 76vh;
  overflow: auto;
  font-size: 13px;
  color: var(--ink);
}

.top {
  display: grid;
  grid-template-columns: 130px 1fr auto;
  gap: 18px;
  align-items: end;
}

.label {
  display: block;
  font-size: 12px;
  color: var(--soft);
}

.strength {
  padding-right: 6px;
}

.thirds {
  display: flex;
  gap: 6px;
  align-items: center;
  padding-bottom: 4px;
}

.thirds input {
  accent-color: var(--green);
}

.small {
  font-size: 12.5px;
}

.word {
  color: var(--green);
  margin-left: -4px;
}

.gap {
  background: var(--rust-wash);
  border-radius: 8px;
  padding: 8px 10px;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
}

table {
  border-collapse: collapse;
  width: 100%;
}

th {
  font-weight: 400;
  font-size: 12px;
  color: var(--soft);
  text-align: right;
}

td {
  text-align: right;
  padding: 1px 0;
  border-top: 1px solid var(--rule-faint);
}

th:first-child,
td:first-child {
  text-align: left;
}

.edit {
  width: 96px;
}

.edit .word {
  margin-left: 0;
}

.parts {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 6px;
}

.parts .on {
  font-weight: 700;
  box-shadow: inset 0 -2px var(--green);
  border-radius: 0;
}

.row {
  display: flex;
  gap: 12px;
  border-top: 1px solid var(--rule);
  padding-top: 6px;
}
</style>
