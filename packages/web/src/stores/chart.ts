import {
  MOST_TICKS,
  presetWish,
  wishTicks,
  withoutTick,
  withTickAdded,
  withTickAt,
  type EaseName,
  type GapMove,
  type Wish,
} from '@unhurried/core/chart'
import {
  chartBetween,
  drawingsBetween,
  find,
  isBlank,
  makeDrawings,
  marksOf,
  moveKey,
  roomOf,
  setChart,
  setPartChart,
  type Chart,
  type ChartTick,
  type KeyPair,
  type Proposal,
} from '@unhurried/core/document'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { makingInWords } from '../words/refusals.ts'
import { useAsking } from './asking.ts'
import { gapBetween, verdictOf } from './chartSays.ts'
import { useDesk } from './desk.ts'
import { useKit } from './kit.ts'
import { newId } from '../local/ids.ts'
import { useMeasure } from './measure.ts'
import { useShot } from './shot.ts'

export const EASE_WORDS: Record<EaseName, string> = {
  even: 'even',
  'slow-out': 'slow out',
  'slow-in': 'slow in',
  both: 'slow both',
  'favour-a': 'favour first',
  'favour-b': 'favour last',
  overshoot: 'overshoot',
  curve: 'drawn curve',
  hand: 'by hand',
}

/** The chart on the rail: what is wished between the two keys around the frame, and everything done with it. */
export const useChart = defineStore('chart', () => {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const asking = useAsking()
  const measure = useMeasure()
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

  function accept(making: Proposal, label: string): boolean {
    if (making.ok) return shot.commit(label, making.ops) === null
    shot.notice = makingInWords(making)
    return false
  }

  /** Puts another wish, or another number of inbetweens, on the chart; without a chart it is only prepared. */
  function respace(next: { wish?: Wish; count?: number }): void {
    const before = { wish: wish.value, count: count.value }
    wish.value = next.wish ?? wish.value
    count.value = Math.max(0, Math.min(MOST_TICKS, next.count ?? count.value))
    if (wish.value.ease === 'hand' && next.wish === undefined) wish.value = presetWish('even')
    const { document, take } = shot
    // Drawings that are there already get their chart by its choice; for others it is only prepared.
    const adopts = next.wish !== undefined && between.value.length > 0 && between.value.length === count.value
    if ((!chart.value && !adopts) || !document || !take || !pair.value || !desk.mayEdit) return
    const label = `chart: ${EASE_WORDS[wish.value.ease]}`
    const done =
      own.value && desk.part
        ? shot.commit(label, setPartChart(document, take, pair.value, desk.part, wish.value, newId)) === null
        : accept(setChart(document, take, pair.value, wish.value, count.value, newId), label)
    if (!done) {
      wish.value = before.wish
      count.value = before.count
    }
  }

  const choose = (ease: EaseName, points: readonly number[] = []) =>
    respace({
      wish: {
        ease,
        strength: ease === wish.value.ease ? wish.value.strength : 0.5,
        thirds: ease === 'favour-a' || ease === 'favour-b',
        points,
      },
    })

  function make(): void {
    const { document, take } = shot
    if (!document || !take || !pair.value) return
    const keys = pair.value
    asking.act({
      label: makeWords.value,
      whyNot: refused => (refused.code === 'too-little-room' ? makingInWords(refused) : null),
      attempt: manner => makeDrawings(document, take, keys, wish.value, count.value, on.value, newId, roomOf(manner)),
    })
  }

  /** Moves one tick: it and the others go to the nearest places that halves can reach. */
  function dragTick(index: number, t: number): void {
    respace({ wish: withTickAt(ticks.value, index, t, wish.value.thirds), count: ticks.value.length })
  }

  function addTick(t: number): void {
    const next = withTickAdded(ticks.value, t, wish.value.thirds)
    if (next && !own.value) respace({ wish: next, count: ticks.value.length + 1 })
  }

  /** Takes a tick off the chart. Its drawing, when blank, goes as well; a drawn one stays on the sheet without a tick. */
  function removeTick(index: number): void {
    const { document } = shot
    const tick = ticks.value[index]
    if (!document || !tick || own.value) return
    const next = withoutTick(ticks.value, index, wish.value.thirds)
    const drawing = tick.drawing === null ? null : find(document.drawings, tick.drawing)
    if (!chart.value || !drawing || isBlank(drawing)) return respace({ wish: next, count: ticks.value.length - 1 })
    const kept = ticks.value.filter((_, i) => i !== index)
    const fresh = wishTicks(next, kept.length).map((t, i) => ({ ...t, drawing: kept[i]?.drawing ?? null }))
    shot.commit(`take ${drawing.number} off the chart`, [
      { kind: 'chart.set', id: chart.value.id, patch: { wish: next, ticks: fresh } },
    ])
  }

  /** Gives the chosen part a spacing of its own, or lets it follow the drawings again. */
  function setOwn(has: boolean): void {
    const { document, take } = shot
    if (!document || !take || !pair.value || !desk.part) return
    if (own.value && !has) shot.commit('the part follows again', [{ kind: 'chart.remove', id: own.value.id }])
    else if (has) {
      const ops = setPartChart(document, take, pair.value, desk.part, wish.value, newId)
      shot.commit('spacing of a part', ops)
    }
  }
  const canOwn = computed(() => Boolean(between.value.length > 0))

  const copy = () => (kit.chartInHand = { wish: wish.value, count: ticks.value.length })
  function lay(): void {
    const held = kit.chartInHand
    if (held) respace({ wish: held.wish, count: own.value ? count.value : held.count })
  }

  function moveTo(move: GapMove): void {
    const { document, take } = shot
    const p = pair.value
    if (!document || !take || !p) return
    const key = move.key === 'from' ? p.from : p.to
    const label = `move ${key.number} to ${move.frame + 1}`
    asking.act({ label, attempt: manner => moveKey(document, take, key.id, move.frame, manner) })
  }

  return {
    pair,
    chart,
    main,
    own,
    wish,
    count,
    on,
    ticks,
    unmade,
    makeWords,
    parts,
    verdict,
    gap,
    canOwn,
    respace,
    choose,
    make,
    dragTick,
    addTick,
    removeTick,
    setOwn,
    copy,
    lay,
    moveTo,
  }
})
