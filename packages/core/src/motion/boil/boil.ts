import type { Point } from '../../geometry/point.ts'
import { chance, PLAIN_PLAN } from '../plain.ts'
import { drawingOf, shownOn, snap, type Plan, type Recipe } from '../recipe.ts'
import { boilDefaults, refuseBoil, type BoilNumbers } from './numbers.ts'

/** A boil worked out. */
export interface BoilPlan extends Plan<BoilNumbers> {
  /** for every tracing its outline, where a line may lie */
  readonly outlines: readonly (readonly Point[])[]
}

/**
 * The same thing traced a few times and shown in an order in which none follows itself, so that words and outlines live. Each is
 * held for whole frames.
 */
export const boil: Recipe<BoilNumbers, BoilPlan> = {
  through: ['outline'],
  measures: { across: ['x'], down: ['y'], lengths: ['width', 'height', 'shiver'] },
  defaults: boilDefaults,
  refuse: refuseBoil,
  plan(numbers, { fps }) {
    const frames = Math.max(1, Math.round(numbers.hold * fps))
    const order = boilOrder(numbers.tracings, numbers.times, numbers.seed)
    const first = (tracing: number) => order.indexOf(tracing) * frames
    return {
      ...PLAIN_PLAN,
      numbers,
      frames: frames * order.length,
      loops: true,
      drawings: Array.from({ length: numbers.tracings }, (_, i) => ({
        frame: first(i),
        role: 'key',
        name: `tracing ${i + 1}`,
      })),
      exposures: order.map(drawing => ({ drawing, frames })),
      marks: [],
      snapped: [snap('hold in seconds', numbers.hold, frames / fps)],
      told: [`each is held ${frames === 1 ? '1 frame' : `${frames} frames`}`],
      outlines: Array.from({ length: numbers.tracings }, (_, i) => outlineOf(numbers, i)),
    }
  },
  figure(plan, frame, sink) {
    sink.path('outline', plan.outlines[shownOn(plan, frame)] as readonly Point[], 'near')
  },
  expect(plan, drawing) {
    drawingOf(plan, drawing)
    return { marks: {}, body: null }
  },
}

/**
 * An order of `times` showings of `count` tracings (their numbers from 0, tracing 0 first): none follows itself, the last is not
 * the first, and each is shown as often as any other or once more. The same for the same seed. `count` is at least 3 and
 * `times` at least `count`.
 */
export function boilOrder(count: number, times: number, seed: number): number[] {
  const dice = chance(seed)
  for (;;) {
    const order = [0]
    const left = Array.from({ length: count }, (_, i) => i).filter(i => i !== 0)
    while (order.length < times) {
      if (left.length === 0) left.push(...Array.from({ length: count }, (_, i) => i))
      const free = left.filter(i => i !== order[order.length - 1] && !(order.length === times - 1 && i === 0))
      if (free.length === 0) break
      const next = free[Math.floor(dice() * free.length)] as number
      order.push(next)
      left.splice(left.indexOf(next), 1)
    }
    if (order.length === times) return order
  }
}

const SIDE_PIECES = 8
/** A box with its line moved aside, differently for every tracing, never farther than it may shiver. */
function outlineOf({ x, y, width, height, shiver, seed }: BoilNumbers, tracing: number): Point[] {
  const dice = chance(seed * 31 + tracing + 1)
  const corners = [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ] as const
  const points = corners.flatMap(([ax, ay], side) => {
    const [bx, by] = corners[(side + 1) % 4] as readonly [number, number]
    return Array.from({ length: SIDE_PIECES }, (_, i) => {
      const u = i / SIDE_PIECES
      const [far, way] = [tracing === 0 ? 0 : shiver * Math.sqrt(dice()), dice() * 2 * Math.PI]
      return {
        x: x + ((ax + (bx - ax) * u) * width) / 2 + far * Math.cos(way),
        y: y + ((ay + (by - ay) * u) * height) / 2 + far * Math.sin(way),
      }
    })
  })
  return [...points, points[0] as Point]
}
