import { distance, type Point } from './point.ts'
import type { Sample } from './samples.ts'

/**
 * Samples pushed by a round tip: what lies under its middle goes along by `by`, what lies `radius` px away or farther
 * stays, and in between it follows a raised cosine, so that lines bend and do not break. Pressure, and with it the weight
 * of the line, is kept. The very same samples when none lies under the tip.
 */
export function pushed(samples: readonly Sample[], at: Point, by: Point, radius: number): readonly Sample[] {
  if (!samples.some(s => distance(s, at) < radius)) return samples
  return samples.map(s => {
    const off = distance(s, at)
    if (off >= radius) return s
    const share = (1 + Math.cos((Math.PI * off) / radius)) / 2
    return { x: s.x + by.x * share, y: s.y + by.y * share, pressure: s.pressure }
  })
}

/** A bend below this is none; dividing by it would say nothing. */
const LEAST_BEND_RAD = 1e-9

/**
 * Samples bent about a root: everything turns about `root` by an angle that grows with the distance along the line from
 * the root to the tip, from none at the root to `angleRad` at the tip (and on, beyond it), as a limb or a reed bends.
 * The line from root to tip becomes an arc of the same length (a circle's arc of that angle, twice the turn at each
 * place being its slope). Line weight is kept.
 */
export function bent(samples: readonly Sample[], root: Point, tip: Point, angleRad: number): Sample[] {
  const length = distance(root, tip)
  if (length === 0 || Math.abs(angleRad) < LEAST_BEND_RAD) return [...samples]
  const u = { x: (tip.x - root.x) / length, y: (tip.y - root.y) / length }
  const perRadius = (2 * angleRad) / length
  return samples.map(s => {
    const along = (s.x - root.x) * u.x + (s.y - root.y) * u.y
    const aside = -(s.x - root.x) * u.y + (s.y - root.y) * u.x
    const l = Math.max(0, along)
    const turn = l * perRadius
    // On the arc at length l, then off it at a right angle by what lay beside the straight line.
    const [ax, ay] = [Math.sin(turn) / perRadius, (1 - Math.cos(turn)) / perRadius]
    const [px, py] = [ax - aside * Math.sin(turn) + Math.min(0, along), ay + aside * Math.cos(turn)]
    return { x: root.x + px * u.x - py * u.y, y: root.y + px * u.y + py * u.x, pressure: s.pressure }
  })
}
