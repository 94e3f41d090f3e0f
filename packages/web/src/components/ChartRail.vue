<script setup lang="ts">
import { MOST_TICKS, PRESETS, presetTicks, valueOf, type Preset } from '@unhurried/core/chart'
import { chartBetween, makeDrawings, setChart, type Making } from '@unhurried/core/document'
import { meetsChart } from '@unhurried/core/measure'
import { useElementSize } from '@vueuse/core'
import { ElMessage, ElOption, ElSelect } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { newId } from '../stores/ids.ts'
import { useDesk } from '../stores/desk.ts'
import { useMeasure } from '../stores/measure.ts'
import { useShot } from '../stores/shot.ts'
import ChartRuler from './ChartRuler.vue'

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

const ticks = computed(
  () => chart.value?.ticks ?? presetTicks(preset.value, count.value).map(tick => ({ ...tick, drawing: null })),
)
const unmade = computed(() => ticks.value.some(tick => tick.drawing === null))

/** The drawing that misses its tick by most, in words. */
const verdict = computed(() => {
  const reading = measure.reading
  if (!reading || reading.chart.id !== chart.value?.id) return ''
  const off = reading.chart.ticks.flatMap((tick, i) => {
    const read = reading.ticks[i]
    const planned = valueOf(tick.at)
    return read && !meetsChart(read, planned) ? [{ ...read, planned, drawing: shot.drawing(tick.drawing) }] : []
  })
  const worst = off.sort((a, b) => Math.abs(b.aheadPx) - Math.abs(a.aheadPx))[0]
  if (!worst) return ''
  const px = Math.round(Math.abs(worst.aheadPx))
  const way = worst.aheadPx < 0 ? 'on' : 'back'
  return `${worst.drawing?.number} lies at ${worst.share.toFixed(2)}, wanted ${worst.planned.toFixed(2)}: ${px} px ${way}`
})

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
      <ChartRuler v-if="pair && width" :pair="pair" :ticks="ticks" :chart-id="chart?.id ?? null" :width="width" />
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
          :class="{ on: p === preset }"
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
