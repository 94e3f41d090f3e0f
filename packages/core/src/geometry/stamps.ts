import { widthAt, type Nib } from './nib.ts'
import { distance, type Point } from './point.ts'
import type { Sample } from './samples.ts'

/** One touch of a soft brush: where, how wide in pixels, and how firmly (0–1). */
export interface Stamp extends Point {
  readonly width: number
  readonly pressure: number
}

/** A brush touches the paper again after this share of its width. */
const STEP_SHARE = 0.12
const LEAST_STEP_PX = 0.6

/** However long a line is, it is so many touches at most, and they cover so many square pixels together. */
const MOST_STAMPS = 40_000
const MOST_STAMPED_PX2 = 4e9

/** The most touches of a brush of this width in pixels. */
export const mostStamps = (width: number): number =>
  Math.max(1, Math.floor(Math.min(MOST_STAMPS, MOST_STAMPED_PX2 / (width * width))))

/**
 * Touches of a brush along samples as they come in: each call takes all samples so far and gives the touches that are new.
 * They lie evenly along the line, however fast it was drawn. The first sample gives one. Of a line whose `length` in pixels
 * is known, however long, all of it is touched; one under way ends with the most touches a line may have.
 */
export function stamper(width: number, nib: Nib, length = 0): (samples: readonly Sample[]) => Stamp[] {
  const widest = widthAt(1, width, nib.thinning)
  const most = mostStamps(widest)
  const least = Math.max(LEAST_STEP_PX, length / most)
  let seen = 0
  let made = 0
  /** pixels to go to the next touch */
  let left = 0
  return samples => {
    const stamps: Stamp[] = []
    const touch = (s: Sample) => {
      const wide = widthAt(s.pressure, width, nib.thinning)
      stamps.push({ x: s.x, y: s.y, width: wide, pressure: s.pressure })
      left = Math.max(least, wide * STEP_SHARE)
      made++
    }
    if (seen === 0 && samples[0]) touch(samples[0])
    for (let i = Math.max(1, seen); i < samples.length; i++) {
      const [a, b] = [samples[i - 1] as Sample, samples[i] as Sample]
      const piece = distance(a, b)
      let at = left
      while (at <= piece && made < most) {
        const t = at / piece
        touch({
          x: a.x + t * (b.x - a.x),
          y: a.y + t * (b.y - a.y),
          pressure: a.pressure + t * (b.pressure - a.pressure),
        })
        at += left
      }
      left = at - piece
    }
    seen = samples.length
    return stamps
  }
}
