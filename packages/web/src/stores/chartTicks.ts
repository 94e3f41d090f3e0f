import { withoutTick, withTickAdded, withTickAt, wishTicks, type Wish } from '@unhurried/core/chart'
import { find, isBlank } from '@unhurried/core/document'
import type { chartOnRail } from './chartOnRail.ts'
import type { useShot } from './shot.ts'

/** Ticks of the chart on the rail, one by one. `respace` puts another wish on the chart. */
export function chartTicks(
  shot: ReturnType<typeof useShot>,
  { wish, ticks, chart, own }: ReturnType<typeof chartOnRail>,
  respace: (next: { wish: Wish; count: number }) => void,
) {
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

  return { dragTick, addTick, removeTick }
}
