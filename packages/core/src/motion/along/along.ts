import { distance, type Point } from '../../geometry/point.ts'
import { PLAIN_PLAN } from '../plain.ts'
import {
  drawingOf,
  oneByOne,
  shownOn,
  type FramedPlace,
  type Plan,
  type PlannedChart,
  type PlannedDrawing,
  type Recipe,
  type RecipeShot,
} from '../recipe.ts'
import { alongDefaults, refuseAlong, type AlongNumbers } from './numbers.ts'

/** A way that is taken over, worked out. */
export interface AlongPlan extends Plan<AlongNumbers> {
  /** where each drawing has its place, paper pixels */
  readonly places: readonly Point[]
}

/** A way of more frames is longer than anything that is drawn. */
const LONGEST = 2000
/** It turns where it goes another way by more than so much, radians; slower than this share of the fastest it has no way. */
const TURN_RAD = Math.PI / 3
const MOVING_SHARE = 0.1
/** A tick is so small beside the ring. */
const TICK_SHARE = 0.2

/**
 * The way of something that was seen, as places for one's own drawings: every step of it times a factor, so that what is studied can be drawn stronger or weaker
 * than it is. Keys are where it begins, turns by more than 60°, and ends.
 */
export const along: Recipe<AlongNumbers, AlongPlan> = {
  through: ['way', 'ticks'],
  measures: { across: ['x'], down: ['y'], lengths: ['radius'] },
  defaults: alongDefaults,
  refuse: refuseAlong,
  plan: planAlong,
  figure(plan, frame, sink) {
    const { radius } = plan.numbers
    const here = plan.places[shownOn(plan, frame)] as Point
    sink.path('way', plan.places.length > 1 ? plan.places : [here, here], 'aid')
    for (const place of plan.places) sink.ellipse('ticks', place, radius * TICK_SHARE, radius * TICK_SHARE, 0)
    sink.ellipse('point', here, radius, radius, 0)
  },
  expect(plan, drawing) {
    drawingOf(plan, drawing)
    const { x, y } = plan.places[drawing] as Point
    return { marks: { point: { x, y } }, body: null }
  },
}

function planAlong(numbers: AlongNumbers, shot: RecipeShot): AlongPlan {
  const { x, y, times, exposure: n, follows } = numbers
  const way = follows === null ? [] : (shot.wayOf?.(follows).places ?? [])
  const seen = way.filter(place => place.frame >= 0 && place.frame < LONGEST)
  const [first, last] = [seen[0], seen[seen.length - 1]]
  const count = last ? Math.floor(last.frame / n) + 1 : 1
  const places = Array.from({ length: count }, (_, i): Point => {
    const at = first ? seenAt(seen, i * n) : null
    return at && first ? { x: x + times * (at.x - first.at.x), y: y + times * (at.y - first.at.y) } : { x, y }
  })
  const keys = keysOf(places)
  const drawings = places.map((_, i): PlannedDrawing => {
    const name = i === 0 ? 'begins' : i === places.length - 1 ? 'ends' : keys.has(i) ? 'turns' : null
    return { frame: i * n, role: name === null ? 'inbetween' : 'key', name }
  })
  const whole = places.slice(1).reduce((sum, at, i) => sum + distance(places[i] as Point, at), 0)
  return {
    ...PLAIN_PLAN,
    numbers,
    frames: count * n,
    drawings,
    exposures: oneByOne(count, n),
    charts: chartsOf(places, [...keys]),
    marks: ['point'],
    told: first
      ? [`${Math.round(whole)} px in ${count} drawings`]
      : ['it follows nothing that is seen from its frame on: choose a followed point, a mark, or a point of a guide'],
    places,
  }
}

/** Where it was seen last by a frame; before it was seen, where it was seen first. */
function seenAt(seen: readonly FramedPlace[], frame: number): Point {
  const before = seen.filter(place => place.frame <= frame)
  return (before[before.length - 1] ?? (seen[0] as FramedPlace)).at
}

/** The places at which it begins, turns and ends. */
function keysOf(places: readonly Point[]): Set<number> {
  const steps = places.slice(1).map((at, i) => {
    const from = places[i] as Point
    return { i, dx: at.x - from.x, dy: at.y - from.y, px: distance(from, at) }
  })
  const fastest = Math.max(0, ...steps.map(step => step.px))
  const moving = steps.filter(step => step.px > 0 && step.px >= MOVING_SHARE * fastest)
  const turns = moving.flatMap((step, k) => {
    const before = moving[k - 1]
    if (!before) return []
    const angle = Math.atan2(before.dx * step.dy - before.dy * step.dx, before.dx * step.dx + before.dy * step.dy)
    return Math.abs(angle) > TURN_RAD ? [step.i] : []
  })
  return new Set([0, ...turns, places.length - 1])
}

/** The spacing from key to key, where every drawing between is farther on than the one before. */
function chartsOf(places: readonly Point[], keys: readonly number[]): PlannedChart[] {
  return keys.slice(1).flatMap((to, k): PlannedChart[] => {
    const from = keys[k] as number
    let far = 0
    const lengths = Array.from({ length: to - from }, (_, i) => {
      far += distance(places[from + i] as Point, places[from + i + 1] as Point)
      return far
    })
    const shares = lengths.slice(0, -1).map(length => length / far)
    const grows =
      far > 0 && [0, ...shares, 1].every((share, i, all) => i === 0 || share > (all[i - 1] as number) + 1e-9)
    return grows && shares.length > 0 ? [{ from, to, shares }] : []
  })
}
