<script setup lang="ts">
import {
  PRESETS,
  presetTicks,
  valueOf,
  fractionLabel,
  drawingOrder,
  MOST_TICKS,
  type Preset,
} from '@unhurried/core/chart'
import { chartBetween, makeDrawings, setChart, type Drawing, type Making } from '@unhurried/core/document'
import { meetsChart } from '@unhurried/core/measure'
import { useElementSize } from '@vueuse/core'
import { ElMessage, ElOption, ElSelect } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { newId } from '../stores/ids.ts'
import { useDesk } from '../stores/desk.ts'
import { useMeasure } from '../stores/measure.ts'
import { useShot } from '../stores/shot.ts'

const shot = useShot()
const desk = useDesk()
const measure = useMeasure()
const WORDS: Record<Preset, string> = {
  even: 'even',
  'slow-out': 'slow out',
  'slow-in': 'slow in',
  both: 'slow both',
  'favour-a': 'favour first',
  'favour-b': 'favour last',
}

const rail = ref<HTMLElement | null>(null)
const { width } = useElementSize(rail)
const pair = computed(() => desk.keys)
const chart = computed(() =>
  pair.value && shot.document ? chartBetween(shot.document, pair.value.from.id, pair.value.to.id) : null,
)
const preset = ref<Preset>('both')
const count = ref(3)
const on = ref<number | 'fit'>(desk.exposure)
watch(
  () => desk.exposure,
  n => (on.value = n),
)
watch(
  chart,
  now => {
    if (!now) return
    preset.value = now.preset
    count.value = now.ticks.length
  },
  { immediate: true },
)

const PAD = 52
const xOf = (t: number) => PAD + t * Math.max(0, width.value - 2 * PAD)
const ticks = computed(
  () => chart.value?.ticks ?? presetTicks(preset.value, count.value).map(tick => ({ ...tick, drawing: null })),
)
const order = computed(() => drawingOrder(ticks.value))
const shown = computed(() =>
  ticks.value.map((tick, i) => {
    const t = valueOf(tick.at)
    const drawing = shot.drawing(tick.drawing)
    const read = measure.reading?.chart.id === chart.value?.id ? (measure.reading?.ticks[i] ?? null) : null
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
const unmade = computed(() => ticks.value.some(tick => tick.drawing === null))
const worst = computed(
  () =>
    [...shown.value]
      .filter(s => s.read && !s.met)
      .sort((a, b) => Math.abs(b.read?.aheadPx ?? 0) - Math.abs(a.read?.aheadPx ?? 0))[0],
)
const verdict = computed(() => {
  const w = worst.value
  if (!w?.read || !w.drawing) return ''
  const px = Math.round(Math.abs(w.read.aheadPx))
  return `${w.drawing.number} lies at ${w.read.share.toFixed(2)}, wanted ${w.t.toFixed(2)}: ${px} px ${w.read.aheadPx < 0 ? 'on' : 'back'}`
})

function goTo(drawing: Drawing | null): void {
  if (!drawing || !shot.take) return
  const frame = shot.take.columns[drawing.layer]?.reduce<{ at: number; found: number | null }>(
    (state, run) => ({
      at: state.at + run.frames,
      found: state.found ?? (run.drawing === drawing.id ? state.at : null),
    }),
    { at: 0, found: null },
  ).found
  if (frame !== null && frame !== undefined) desk.goTo(frame)
}

function explain(making: Making): making is Extract<Making, { ok: true }> {
  if (making.ok) return true
  const message =
    making.code === 'too-little-room'
      ? `Between the keys there are ${making.frames} frames; ${making.needed} are needed. Ask for fewer, or put them on ones.`
      : `${making.drawn} drawings between these keys are drawn already; ask for at least as many.`
  ElMessage({ message, type: 'warning', showClose: true })
  return false
}

function respace(next: { preset?: Preset; count?: number }): void {
  preset.value = next.preset ?? preset.value
  count.value = Math.max(0, Math.min(MOST_TICKS, next.count ?? count.value))
  const { document, take } = shot
  if (!chart.value || !document || !take || !pair.value || !shot.mayDraw) return
  const making = setChart(document, take, pair.value, preset.value, count.value, newId)
  if (explain(making)) shot.commit(`chart: ${WORDS[preset.value]}`, making.ops)
  else count.value = chart.value.ticks.length
}

function make(): void {
  const { document, take } = shot
  if (!document || !take || !pair.value) return
  const making = makeDrawings(document, take, pair.value, preset.value, count.value, on.value, newId)
  if (explain(making)) shot.commit('make the drawings', making.ops)
}
</script>

<template>
  <section class="rail" aria-label="Chart rail">
    <div ref="rail" class="ruler">
      <svg
        v-if="pair && width"
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
      <p v-else-if="width" class="none soft">
        A chart lies between two keys. Draw two key drawings on this layer, on different frames.
      </p>
    </div>
    <div v-if="pair" class="foot">
      <p class="say">
        between <b>{{ pair.from.number }}</b> and <b>{{ pair.to.number }}</b><span v-if="verdict" class="rust">
          · {{ verdict }}</span
        ><span v-else-if="!chart" class="soft"> · no chart yet</span>
      </p>
      <div class="presets" role="group" aria-label="Spacing">
        <button
          v-for="p in PRESETS"
          :key="p"
          class="plain"
          :class="{ on: p === preset && (chart || true) }"
          :aria-pressed="p === preset"
          :disabled="!shot.mayDraw"
          @click="respace({ preset: p })"
        >
          {{ WORDS[p] }}
        </button>
      </div>
      <div class="count" role="group" aria-label="Inbetweens">
        <button
          class="plain"
          aria-label="One inbetween less"
          :disabled="!shot.mayDraw || count <= 0"
          @click="respace({ count: count - 1 })"
        >
          −
        </button>
        <b>{{ count }}</b>
        <button
          class="plain"
          aria-label="One inbetween more"
          :disabled="!shot.mayDraw || count >= MOST_TICKS"
          @click="respace({ count: count + 1 })"
        >
          +
        </button>
      </div>
      <template v-if="unmade && shot.mayDraw">
        <ElSelect v-model="on" size="small" class="exposing" aria-label="Exposed on">
          <ElOption label="on ones" :value="1" />
          <ElOption label="on twos" :value="2" />
          <ElOption label="on threes" :value="3" />
          <ElOption label="where they fit" value="fit" />
        </ElSelect>
        <button class="make" @click="make">make the drawings</button>
      </template>
    </div>
  </section>
</template>

<style scoped>
.rail {
  grid-area: rail;
  background: var(--edge);
  border-bottom: 1px solid var(--rule);
  display: grid;
  grid-template-rows: 58px 1fr;
  min-width: 0;
}

.ruler {
  overflow: hidden;
}

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

.none {
  padding: 20px 22px;
}

.foot {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 0 12px 4px 20px;
  font-size: 12.5px;
  white-space: nowrap;
  min-width: 0;
}

.say {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  min-width: 0;
}

.presets,
.count {
  display: flex;
  align-items: center;
  gap: 3px;
}

.presets .plain {
  color: var(--soft);
  border-radius: 0;
  padding: 1px 3px;
}

.presets .on {
  color: var(--ink);
  font-weight: 700;
  border-bottom: 2px solid var(--green);
}

.count {
  border-left: 1px solid var(--rule);
  padding-left: 8px;
}

.count .plain {
  width: 20px;
}

.exposing {
  flex: none;
  width: 98px;
}

.make {
  background: var(--green);
  color: #fff;
  border: 0;
  border-radius: 6px;
  padding: 3px 10px;
  font-weight: 700;
  cursor: pointer;
}

.make:hover {
  background: var(--green-deep);
}

@media (width < 1100px) {
  .foot {
    gap: 6px;
    padding: 0 8px 4px 12px;
    font-size: 12px;
  }

  .presets {
    gap: 0;
  }

  .foot:has(.make) .say {
    visibility: hidden;
  }
}
</style>
