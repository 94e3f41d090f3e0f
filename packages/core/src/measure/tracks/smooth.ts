import { correlation } from './correlation.ts'
import { offArcs } from './arcs.ts'
import { trackSteps, type Track } from './track.ts'

const SMOOTH_SHARE = 0.05
const ALIKE = 0.95
const FEWEST_STEPS = 5

/** How alike two parts' speeds are over the frames on which both take a step, −1 to 1; null where these are fewer than five, or one never changes its speed. */
export function speedsAlike(a: Track, b: Track): number | null {
  const other = new Map(trackSteps(b).map(step => [step.frame, step.pxPerFrame]))
  const pairs = trackSteps(a).flatMap(({ frame, pxPerFrame }) => {
    const speed = other.get(frame)
    return speed === undefined ? [] : [[along(pxPerFrame), along(speed)] as const]
  })
  return correlation(pairs, FEWEST_STEPS)
}

const along = (speed: number) => ({ x: speed, y: 0 })

/**
 * Whether every part glides alike: all lie within 5 % of a step on the arc their neighbours make, and their speeds correlate above 0.95 with those of the first, the
 * body. Of fewer than two parts nothing is said.
 */
export function glideAlike(tracks: readonly Track[]): boolean {
  const [body, ...others] = tracks
  if (!body || others.length === 0) return false
  const isSmooth = (track: Track) => {
    const off = offArcs(track)
    return off.length > 0 && off.every(one => one.share < SMOOTH_SHARE)
  }
  return tracks.every(isSmooth) && others.every(other => (speedsAlike(body, other) ?? 0) > ALIKE)
}
