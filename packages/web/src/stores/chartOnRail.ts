import { MOST_TICKS, presetWish, wishTicks, type Wish } from '@unhurried/core/chart'
import {
  chartBetween,
  drawingsBetween,
  marksOf,
  type Chart,
  type ChartTick,
  type KeyPair,
} from '@unhurried/core/document'
import { computed, ref, shallowRef, watch } from 'vue'
import { gapBetween, verdictOf } from './chartSays.ts'
import type { useDesk } from './desk.ts'
import type { useMeasure } from './measure.ts'
import type { useShot } from './shot.ts'

/** What the rail shows: the keys around the frame, their chart or what is wished of it, and what that comes to. */
export function chartOnRail(
  shot: ReturnType<typeof useShot>,
  desk: ReturnType<typeof useDesk>,
  measure: ReturnType<typeof useMeasure>,
) {
  const pair = computed(() => desk.keys)
  const main = computed(() =>
    pair.value && shot.document ? chartBetween(shot.document, pair.value.from.id, pair.value.to.id) : null,
  )
  /** the chart of the chosen part; null when the part follows the drawings' chart */
  const own = computed(() =>
    pair.value && shot.document && desk.part
      ? chartBetween(shot.document, pair.value.from.id, pair.value.to.id, desk.part)
      : null,
  )
  const chart = computed<Chart | null>(() => own.value ?? main.value)
  const wish = shallowRef<Wish>(presetWish('both'))
  const count = ref(3)
  const on = ref<number | 'fit'>(desk.exposure)
  watch(
    () => desk.exposure,
    n => (on.value = n),
  )
  /** drawings that lie between the keys already */
  const between = computed(() =>
    pair.value && shot.document && shot.take ? drawingsBetween(shot.document, shot.take, pair.value) : [],
  )
  watch(
    [chart, () => `${pair.value?.from.id} ${pair.value?.to.id} ${between.value.length}`],
    ([now]) => {
      if (now) {
        wish.value = now.wish
        count.value = now.ticks.length
      } else if (between.value.length > 0) count.value = Math.min(MOST_TICKS, between.value.length)
    },
    { immediate: true },
  )

  const ticks = computed<readonly ChartTick[]>(
    () => chart.value?.ticks ?? wishTicks(wish.value, count.value).map(tick => ({ ...tick, drawing: null })),
  )
  const unmade = computed(() => ticks.value.some(tick => tick.drawing === null) && !own.value)
  /** What making comes to: new drawings, the chart on those that lie there, or some of both. */
  const makeWords = computed(() => {
    const there = between.value.length
    if (there === 0) return 'make the drawings'
    const more = count.value - there
    return more > 0 ? `make ${more} more` : `number ${there === 1 ? 'the one' : `the ${there}`} there`
  })
  const parts = computed(() => (shot.document ? marksOf(shot.document, desk.layerId) : []))

  const verdict = computed(() => verdictOf(measure.reading, chart.value, shot.drawing))

  const gap = computed(() => {
    const { document, take } = shot
    const asks = pair.value && on.value !== 'fit' && !chart.value && document && take
    return asks ? gapBetween(document, take, pair.value as KeyPair, count.value, desk.following) : null
  })

  const canOwn = computed(() => between.value.length > 0)

  return { pair, main, own, chart, wish, count, on, between, ticks, unmade, makeWords, parts, verdict, gap, canOwn }
}
