<script setup lang="ts">
import { exposuresIn, followedMark, marksOf, stepsSeen, type Mark } from '@unhurried/core/document'
import { mostTelling, movedSteps } from '@unhurried/core/measure'
import { computed } from 'vue'
import { useDesk } from '../../../stores/desk.ts'
import { useMeasure } from '../../../stores/measure.ts'
import { useShot } from '../../../stores/shot.ts'

/**
 * The steps from drawing to drawing around the present one, where no chart plans them: how far the mark that is read, or else the
 * middle of what is drawn, goes with every frame.
 */
const props = defineProps<{ width: number }>()
const shot = useShot()
const desk = useDesk()
const measure = useMeasure()
/** drawings to either side of the present one */
const AROUND = 4
const PAD_PX = 34
/** what is followed is told at the left */
const TOLD_PX = 96
const BAR = { top: 22, high: 18 }

const NOTHING = { whose: '', drawings: [], steps: [] }
const seen = computed(() => {
  const { take, document } = shot
  if (!take || !document) return NOTHING
  const inLoop = take.loop ? exposuresIn(take, desk.layerId, take.loop) : []
  const isHere = (run: (typeof inLoop)[number]) => desk.frame >= run.start && desk.frame < run.start + run.frames
  const round = inLoop.some(isHere) ? take.loop : null
  const runs = exposuresIn(take, desk.layerId, round)
  const ids = runs.map(run => run.drawing as string).filter((id, i, list) => id !== list[i - 1])
  const byMark = ({ id, name }: Mark) => ({ whose: name, steps: followedMark(document, runs, id) })
  const byMiddle = {
    whose: 'middle',
    steps: runs.map(({ drawing, start }) => ({
      drawing: drawing as string,
      start,
      at: measure.centreOf(shot.drawing(drawing as string)),
    })),
  }
  // The mark that is read; else the middle of what is drawn, or a mark where most is not drawn yet.
  const read = desk.part === null ? null : document.marks[desk.part]
  const points = marksOf(document, desk.layerId).filter(mark => mark.kind === 'point')
  const best = read ? byMark(read) : mostTelling([byMiddle, ...points.map(byMark)], round)
  if (!best) return NOTHING
  const steps = movedSteps(stepsSeen(document, take, desk.layerId, best.steps), round)
  const here = Math.max(0, ids.indexOf(desk.drawing?.id ?? ''))
  const from = Math.max(0, Math.min(here - AROUND, ids.length - 1 - 2 * AROUND))
  const some = steps.slice(from, from + 2 * AROUND)
  return { whose: best.whose, drawings: some.length ? [some[0]!.from, ...some.map(step => step.to)] : [], steps: some }
})
const most = computed(() => Math.max(0.001, ...seen.value.steps.map(step => step.pxPerFrame ?? 0)))
const x = (i: number) =>
  TOLD_PX + PAD_PX + (i * (props.width - TOLD_PX - 2 * PAD_PX)) / Math.max(1, seen.value.steps.length)
const inWords = (px: number) => (px < 10 ? px.toFixed(1) : String(Math.round(px)))
const label = computed(() => {
  const steps = seen.value.steps.flatMap(({ to, pxPerFrame }) =>
    pxPerFrame === null ? [] : `to ${shot.drawing(to)?.number}: ${inWords(pxPerFrame)} px a frame`,
  )
  return `Steps of ${seen.value.whose}: ${steps.join(', ') || 'nothing is drawn yet'}`
})
</script>

<template>
  <svg v-if="seen.steps.length" class="steps" :width="width" height="58" role="img" :aria-label="label">
    <text x="20" y="30">{{ seen.whose }}</text>
    <text x="20" y="46">px a frame</text>
    <g v-for="(step, i) in seen.steps" :key="i">
      <rect
        v-if="step.pxPerFrame !== null"
        class="bar"
        :x="x(i) + 12"
        :y="BAR.top + BAR.high - (BAR.high * step.pxPerFrame) / most"
        :width="Math.max(2, x(i + 1) - x(i) - 24)"
        :height="Math.max(1, (BAR.high * step.pxPerFrame) / most)"
      />
      <text v-if="step.pxPerFrame !== null" class="px" :x="(x(i) + x(i + 1)) / 2" y="54">
        {{ inWords(step.pxPerFrame) }}
      </text>
    </g>
    <line
      class="ground"
      :x1="x(0)"
      :x2="x(seen.steps.length)"
      :y1="BAR.top + BAR.high + 0.5"
      :y2="BAR.top + BAR.high + 0.5"
    />
    <text
      v-for="(id, i) in seen.drawings"
      :key="`${id} ${i}`"
      class="number"
      :class="{ here: id === desk.drawing?.id }"
      :x="x(i)"
      y="16"
    >
      {{ shot.drawing(id)?.number }}
    </text>
  </svg>
</template>

<style scoped>
.steps {
  display: block;
  font-size: 12px;
  font-variant-numeric: tabular-nums;
}

.bar {
  fill: var(--past);
}

.ground {
  stroke: var(--rule);
}

text {
  fill: var(--soft);
}

.number,
.px {
  text-anchor: middle;
}

.here {
  fill: var(--green);
  font-weight: 700;
}
</style>
