import { needWhole, UsageError } from '../errors.ts'
import { wishes, type Preset } from './ease.ts'
import { MOST_TICKS, nearestHalves, thirdThenHalves, valueOf, type Tick } from './halves.ts'

/**
 * The ticks of a ready-made chart with `count` inbetweens (0–11): the halves-only chart nearest to the preset's curve.
 * Favouring puts the breakdown on a third (marked as one) and halves on either side of it. Throws on a count outside 0–11.
 */
export function presetTicks(preset: Preset, count: number): Tick[] {
  needWhole(count, 0, 'number of inbetweens')
  if (count > MOST_TICKS) throw new UsageError(`a chart holds at most ${MOST_TICKS} inbetweens, not ${count}`)
  const wished = wishes(preset, count)
  if (count === 0) return []
  if (preset === 'favour-a') return thirdThenHalves(wished, nearestTo(wished, 1 / 3), '1/3')
  if (preset === 'favour-b') return thirdThenHalves(wished, nearestTo(wished, 2 / 3), '2/3')
  return nearestHalves(wished)
}

function nearestTo(wished: readonly number[], t: number): number {
  let best = 0
  wished.forEach((w, i) => {
    if (Math.abs(w - t) < Math.abs((wished[best] as number) - t) - 1e-9) best = i
  })
  return best
}

/** The share of the way covered by each step of a chart, keys included: one more number than there are ticks, sum 1. */
export function steps(ticks: readonly Tick[]): number[] {
  const ts = [0, ...ticks.map(tick => valueOf(tick.at)), 1]
  return ts.slice(1).map((t, i) => t - (ts[i] as number))
}
