import type { Point } from '../../geometry/point.ts'
import { median } from '../../median.ts'
import { correlation } from './correlation.ts'
import { trackSteps, type Track } from './track.ts'

/** How a part follows another one. */
export type Drag =
  | {
      readonly told: true
      /** frames by which it comes later; 0 or less: it does not drag */
      readonly lagFrames: number
      /** how well their movements agree then, 0–1 */
      readonly alike: number
    }
  /** too little of both is seen, or they have nothing in common */
  | { readonly told: false }

const FEWEST = 5
const MOST_LAG = 6
const LEAST_ALIKE = 0.6

/** Velocities by frame, px a frame: while a place is held the way to the next one is shared out over its frames. */
function velocities(track: Track): Map<number, Point> {
  const byFrame = new Map<number, Point>()
  const steps = trackSteps(track)
  let since = track.places[0]?.frame ?? 0
  for (const { frame, from, to } of steps) {
    const frames = Math.max(1, frame - since)
    const one = { x: (to.x - from.x) / frames, y: (to.y - from.y) / frames }
    for (let f = since + 1; f <= frame; f++) byFrame.set(f, one)
    since = frame
  }
  return byFrame
}

/** How alike velocities are at a lag, over the frames both are known on. */
function alikeAt(leader: Map<number, Point>, follower: Map<number, Point>, lag: number): number | null {
  const pairs = [...leader].flatMap(([frame, a]) => {
    const b = follower.get(frame + lag)
    return b ? [[a, b] as const] : []
  })
  return correlation(pairs, FEWEST)
}

/**
 * By how many frames a part comes after the one it hangs on: the shift at which their velocity vectors correlate best, less their means over the overlap. Told only
 * with five frames of both and a correlation of 0.6 and more; of lags that agree alike the smaller.
 */
export function dragOf(leader: Track, follower: Track): Drag {
  const [a, b] = [velocities(leader), velocities(follower)]
  let best: { lagFrames: number; alike: number } | null = null
  for (const lag of lags()) {
    const alike = alikeAt(a, b, lag)
    if (alike !== null && alike > (best?.alike ?? LEAST_ALIKE - 1e-9) + 1e-6) best = { lagFrames: lag, alike }
  }
  return best ? { told: true, ...best } : { told: false }
}

/** 0, 1, −1, 2, −2 …: the nearest first. */
const lags = (): number[] => [0, ...Array.from({ length: MOST_LAG }, (_, i) => [i + 1, -i - 1]).flat()]

/** On a frame, by how many px a follower lies ahead of where it usually lies beside its leader, along the leader's way; below 0 it trails. */
export interface Trailing {
  readonly frame: number
  readonly aheadPx: number
  /** where the follower is */
  readonly at: Point
}

/** Less than this is no side. */
const LEAST_PX = 1

/**
 * On which side of its usual place a follower lies while its leader goes fast: above half of its highest speed, and not slowing. Its usual place is the median of where it lies
 * beside the leader; what trails lies against the leader's way.
 */
export function trailing(leader: Track, follower: Track): Trailing[] {
  const at = new Map(follower.places.map(place => [place.frame, place.at]))
  const beside = leader.places.flatMap(({ frame, at: p }) => {
    const q = at.get(frame)
    return q ? [{ frame, x: q.x - p.x, y: q.y - p.y, at: q }] : []
  })
  if (beside.length < FEWEST) return []
  const [x, y] = [
    median(
      beside.map(one => one.x),
      0,
    ),
    median(
      beside.map(one => one.y),
      0,
    ),
  ]
  const steps = trackSteps(leader)
  const fastest = Math.max(0, ...steps.map(step => step.pxPerFrame))
  return steps.flatMap((step, i): Trailing[] => {
    const one = beside.find(({ frame }) => frame === step.frame)
    const isSlowing = step.pxPerFrame < (steps[i - 1]?.pxPerFrame ?? 0)
    if (!one || isSlowing || step.pxPerFrame <= fastest / 2) return []
    const [vx, vy] = [step.to.x - step.from.x, step.to.y - step.from.y]
    const aheadPx = ((one.x - x) * vx + (one.y - y) * vy) / Math.hypot(vx, vy)
    return Math.abs(aheadPx) < LEAST_PX ? [] : [{ frame: step.frame, aheadPx, at: one.at }]
  })
}
