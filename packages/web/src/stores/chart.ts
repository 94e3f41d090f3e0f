import { MOST_TICKS, presetWish, USUAL_STRENGTH, type EaseName, type GapMove, type Wish } from '@unhurried/core/chart'
import { makeDrawings, moveKey, roomOf, setChart, setPartChart, type Proposal } from '@unhurried/core/document'
import { defineStore } from 'pinia'
import { makingInWords } from '../words/refusals.ts'
import { useAsking } from './asking.ts'
import { chartOnRail } from './chartOnRail.ts'
import { chartTicks } from './chartTicks.ts'
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

/** The wish that a drawn curve begins with: straight on. */
export const STRAIGHT = [0, 0.12, 0.25, 0.37, 0.5, 0.62, 0.75, 0.87, 1]

/** Whether a kind of spacing comes in strengths. */
export const hasStrength = (ease: EaseName): boolean => !['even', 'curve', 'hand'].includes(ease)

/** The wish for a kind of spacing chosen after `before`, whose strength it keeps when it is the same one. */
export const chosenWish = (
  before: Wish,
  ease: EaseName,
  points: readonly number[] = ease === 'curve' ? STRAIGHT : [],
) => ({
  ease,
  strength: ease === before.ease ? before.strength : USUAL_STRENGTH,
  thirds: ease === 'favour-a' || ease === 'favour-b',
  points,
})

/** The chart on the rail: what is wished between the two keys around the frame, and everything done with it. */
export const useChart = defineStore('chart', () => {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const asking = useAsking()
  const measure = useMeasure()
  const rail = chartOnRail(shot, desk, measure)
  const { pair, chart, own, wish, count, on, between, ticks, makeWords } = rail

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

  const choose = (ease: EaseName, points?: readonly number[]) => respace({ wish: chosenWish(wish.value, ease, points) })

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

  const copy = () => (kit.chartInHand = { wish: wish.value, count: ticks.value.length })
  function lay(): void {
    const held = kit.chartInHand
    if (held) respace({ wish: held.wish, count: own.value || held.count === 0 ? count.value : held.count })
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
    ...rail,
    respace,
    choose,
    make,
    ...chartTicks(shot, rail, respace),
    setOwn,
    copy,
    lay,
    moveTo,
  }
})
