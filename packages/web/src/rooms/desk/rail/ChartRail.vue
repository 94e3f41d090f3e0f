<script setup lang="ts">
import { MOST_TICKS, PRESETS } from '@unhurried/core/chart'
import { cycleAt, exposures } from '@unhurried/core/document'
import { useElementSize } from '@vueuse/core'
import { ElOption, ElPopover, ElSelect } from 'element-plus'
import { computed, ref } from 'vue'
import { EASE_WORDS, useChart } from '../../../stores/chart.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'
import ChartPanel from './ChartPanel.vue'
import ChartRuler from './ChartRuler.vue'
import StepsRuler from './StepsRuler.vue'

const desk = useDesk()
const shot = useShot()
const chart = useChart()
const rail = ref<HTMLElement | null>(null)
const { width } = useElementSize(rail)
/** the mark a chart is read by, when it is not read by the whole drawings */
const part = computed(() => (desk.part !== null ? (shot.document?.marks[desk.part] ?? null) : null))
/** No chart plans what is drawn straight ahead, or goes round: its steps are shown as they are. */
const byOnesOwn = computed(() => {
  const { document, take } = shot
  if (!document || !take || chart.chart || desk.timedLayer !== desk.layerId) return false
  if (exposures(take, desk.layerId).length < 3) return false
  return document.way === 'straight-ahead' || cycleAt(take, desk.layerId, desk.frame) !== null || !chart.pair
})
const frameInWords = (f: number) => (f % 1 === 0.5 ? `${Math.floor(f)}½` : f.toFixed(1))
</script>

<template>
  <section class="rail" aria-label="Chart rail">
    <div ref="rail" class="ruler">
      <StepsRuler v-if="width && byOnesOwn" :width="width" />
      <ChartRuler v-else-if="chart.pair && width" :pair="chart.pair" :width="width" />
      <p v-else-if="width" class="none soft">
        <template v-if="desk.timedLayer !== desk.layerId">
          Paint lies under <b>{{ shot.document?.layers[desk.timedLayer]?.name }}</b>, sheet by sheet, and is timed with
          it: spacing and exposures are changed there.
        </template>
        <template v-else>
          A chart lies between two keys. Draw two key drawings on this layer, on different frames.
        </template>
      </p>
    </div>
    <div v-if="chart.pair" class="foot">
      <p class="say">
        between <b>{{ chart.pair.from.number }}</b> and <b>{{ chart.pair.to.number }}</b><button
          v-if="part"
          class="plain part"
          title="The chart is read by this mark: press to read it by the drawings again"
          @click="desk.part = null"
        >
          by {{ part.name }} ×</button
        ><span v-if="chart.verdict.words" :class="chart.verdict.met ? 'ok' : 'rust'"> · {{ chart.verdict.words }}</span
        ><span v-else-if="chart.gap" class="soft">
          · half-way is {{ frameInWords(chart.gap.wished + 1) }}: see <i>spacing</i></span
        ><span v-else-if="!chart.chart" class="soft"> · no chart yet</span>
      </p>
      <div class="presets" role="group" aria-label="Spacing">
        <button
          v-for="p in PRESETS"
          :key="p"
          class="plain"
          :class="{ on: p === chart.wish.ease }"
          :aria-pressed="p === chart.wish.ease"
          :disabled="!desk.mayEdit"
          @click="chart.choose(p)"
        >
          {{ EASE_WORDS[p] }}
        </button>
      </div>
      <ElPopover trigger="click" placement="bottom-end" :width="430" :persistent="false">
        <template #reference>
          <button
            class="plain spacing"
            :class="{ on: !(PRESETS as readonly string[]).includes(chart.wish.ease) }"
            title="Strength, overshoot, a drawn curve, parts, speeds, the paper ruler"
          >
            spacing …
          </button>
        </template>
        <ChartPanel />
      </ElPopover>
      <div class="count" role="group" aria-label="Inbetweens">
        <button
          class="plain"
          aria-label="One inbetween less"
          :disabled="!desk.mayEdit || chart.count <= 0 || !!chart.own"
          @click="chart.respace({ count: chart.count - 1 })"
        >
          −
        </button>
        <b>{{ chart.count }}</b>
        <button
          class="plain"
          aria-label="One inbetween more"
          :disabled="!desk.mayEdit || chart.count >= MOST_TICKS || !!chart.own"
          @click="chart.respace({ count: chart.count + 1 })"
        >
          +
        </button>
      </div>
      <template v-if="chart.unmade && desk.mayEdit">
        <ElSelect v-model="chart.on" size="small" class="exposing" aria-label="Exposed on">
          <ElOption label="on ones" :value="1" />
          <ElOption label="on twos" :value="2" />
          <ElOption label="on threes" :value="3" />
          <ElOption label="on fours" :value="4" />
          <ElOption label="evenly" value="fit" />
        </ElSelect>
        <button class="make" :class="{ there: chart.count <= chart.between.length }" @click="chart.make">
          {{ chart.makeWords }}
        </button>
      </template>
    </div>
  </section>
</template>

<style scoped>
.part {
  margin-left: 4px;
  color: var(--green);
  font-weight: 700;
}

.rail {
  grid-area: rail;
  background: var(--edge);
  border-bottom: 1px solid var(--rule);
  display: grid;
  grid-template-rows: minmax(0, 58px) 1fr;
  min-width: 0;
}

.ruler {
  overflow: hidden;
}

.none {
  padding: 6px 20px;
  overflow: hidden;
  text-overflow: ellipsis;
  font-size: 13px;
}

.foot {
  display: flex;
  align-items: center;
  gap: 8px;
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

.ok {
  color: var(--green);
}

.presets,
.count {
  display: flex;
  align-items: center;
  gap: 3px;
}

.presets {
  min-width: 0;
  overflow: auto hidden;
  scrollbar-width: none;
}

.spacing,
.count {
  flex: none;
}

.presets .plain,
.spacing {
  color: var(--soft);
  border-radius: 0;
  padding: 1px 3px;
}

.presets .on,
.spacing.on {
  color: var(--ink);
  font-weight: 700;
  border-bottom: 2px solid var(--green);
}

.count {
  border-left: 1px solid var(--rule);
  padding-left: 6px;
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
  color: var(--on-green);
  border: 0;
  border-radius: 6px;
  padding: 3px 10px;
  min-height: 24px;
  font-weight: 700;
  cursor: pointer;
}

/* Nothing is to be made: the drawings lie there already. */
.make.there {
  background: none;
  color: var(--green);
  box-shadow: inset 0 0 0 1px var(--green);
}

.make:hover {
  background: var(--green-deep);
}

.make.there:hover {
  background: var(--green-wash);
}

.foot:has(.make) .presets {
  display: none;
}

@media (width >= 1240px) {
  .foot:has(.make) .presets {
    display: flex;
  }

  .foot:has(.make) .say {
    max-width: 130px;
  }
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
}
</style>
