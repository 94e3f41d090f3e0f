import { distance, type Point } from '../geometry/point.ts'

/** How a foot goes. Lengths in paper pixels; forwards and upwards above 0. */
export interface Gait {
  /** from one contact to the next one of the other foot */
  readonly stride: number
  /** share of the cycle that a foot stands */
  readonly duty: number
  /** how high it is lifted */
  readonly lift: number
  /** how far before the hip it comes down */
  readonly ahead: number
}

/** A foot on a share of its cycle: how far before the hip, how high, whether it stands, and the share of its swing. */
export interface Step {
  readonly ahead: number
  readonly up: number
  readonly stands: boolean
  readonly swung: number
}

/**
 * A foot at the share `share` of its cycle, counted from its contact. It stands for `duty` of it and goes back under the body
 * evenly, two strides a cycle, so that it stands still on ground that passes as fast; swinging, it goes over the ground as a point of a
 * rolling wheel does, x + 2S(τ − sin 2πτ/2π), and is lifted by half a sine.
 */
export function footAt({ stride, duty, lift, ahead }: Gait, share: number): Step {
  const u = share - Math.floor(share)
  if (u < duty) return { ahead: ahead - 2 * stride * u, up: 0, stands: true, swung: 0 }
  const swung = (u - duty) / (1 - duty)
  const over = 2 * stride * (swung - Math.sin(2 * Math.PI * swung) / (2 * Math.PI))
  const carried = 2 * stride * (1 - duty) * swung
  const left = ahead - 2 * stride * duty
  return { ahead: left + over - carried, up: lift * Math.sin(Math.PI * swung), stands: false, swung }
}

/**
 * The joint between two bones of the given lengths from `from` to `to`, to the side a hand's turn to the left of that way for
 * `side` 1 (y downwards), or the other one for −1. Bones that are too short reach towards it straight; too long ones fold.
 */
export function jointBetween(from: Point, to: Point, first: number, second: number, side: number): Point {
  const far = Math.max(1e-9, distance(from, to))
  const along = Math.max(-first, Math.min(first, (first * first - second * second + far * far) / (2 * far)))
  const aside = Math.sqrt(Math.max(0, first * first - along * along)) * side
  const [ux, uy] = [(to.x - from.x) / far, (to.y - from.y) / far]
  return { x: from.x + ux * along + uy * aside, y: from.y + uy * along - ux * aside }
}

/** The largest value up to `most` that still fits, where less fits better; null when nothing does. */
export function largestFit(most: number, fits: (value: number) => boolean): number | null {
  if (fits(most)) return most
  let [good, bad] = [0, most]
  if (!fits(good)) return null
  for (let i = 0; i < 50; i++) {
    const middle = (good + bad) / 2
    if (fits(middle)) good = middle
    else bad = middle
  }
  return good
}
