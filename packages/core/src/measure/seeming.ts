import type { Point } from '../geometry/point.ts'
import { cellsUnder, type Coverage } from '../raster/coverage.ts'
import type { Shown, Survey } from './survey.ts'

/** Shifts are tried to so many cells of a body to each side: about a sixth of its length. */
const FARTHEST = 10

const known = new WeakMap<Coverage, { readonly next: Coverage; readonly shift: Point }>()

/**
 * By how much a body seems to have moved on the next drawing, px (y downwards): the shift at which both cover most in common, of equal ones the least, finer than a cell by the parabola
 * through its neighbours. Where shapes that are all alike follow one another, that is how the eye takes them, whatever was meant.
 */
export function seemingShift(one: Coverage, next: Coverage): Point {
  const before = known.get(one)
  if (before?.next === next) return before.shift
  const around = FARTHEST + 1
  const under = cellsUnder(one, next, around)
  const across = one.across + 2 * around
  const common = (dx: number, dy: number): number => {
    let sum = 0
    for (let y = 0; y < one.down; y++) {
      const own = y * one.across
      const there = (y + dy + around) * across + dx + around
      for (let x = 0; x < one.across; x++) {
        const filled = one.cells[own + x] as number
        if (filled === 0) continue
        const other = under[there + x] as number
        sum += filled < other ? filled : other
      }
    }
    return sum
  }
  let [best, x, y] = [common(0, 0), 0, 0]
  for (let dy = -FARTHEST; dy <= FARTHEST; dy++) {
    for (let dx = -FARTHEST; dx <= FARTHEST; dx++) {
      const sum = common(dx, dy)
      if (sum < best || (sum === best && dx * dx + dy * dy >= x * x + y * y)) continue
      ;[best, x, y] = [sum, dx, dy]
    }
  }
  const finer = (lower: number, upper: number): number => {
    const bend = lower + upper - 2 * best
    return bend < 0 ? Math.max(-0.5, Math.min(0.5, (lower - upper) / (2 * bend))) : 0
  }
  const shift = {
    x: (x + finer(common(x - 1, y), common(x + 1, y))) * one.cellPx,
    y: (y + finer(common(x, y - 1), common(x, y + 1))) * one.cellPx,
  }
  known.set(one, { next, shift })
  return shift
}

/** How the drawings of a layer seem to move, each from the one before; what is not measured is left out. One after the other, so that whoever asks can rest in between. */
export function* seemingShifts(
  { shapes }: Pick<Survey, 'shapes'>,
  shown: readonly Shown[],
): Generator<{ readonly one: Shown; readonly shift: Point }> {
  for (const [i, one] of shown.entries()) {
    const [before, here] = [shown[i - 1], one].map(which => which && shapes.get(which.drawing.id)?.coverage)
    if (before && here) yield { one, shift: seemingShift(before, here) }
  }
}
