import { describe, expect, test } from '@jest/globals'
import type { Grey } from '../raster/grey.ts'
import { followOn, trackerOf } from './tracker.ts'
import { chance } from '../raster/tests/chance.ts'

const { cos, floor, hypot, max, min, PI, round, sin } = Math
const [WIDTH, HEIGHT] = [320, 180]

interface Made {
  readonly noise?: number
  readonly packed?: number
  /** radians it turns with a picture */
  readonly turn?: number
  /** px a picture that the ground passes */
  readonly ground?: number
  readonly fade?: (share: number) => number
}
const FRAMES = 48
/** Where the middle of the made body is on a picture: an arc with fast and slow stretches. */
const middle = (frame: number) => {
  const share = frame / (FRAMES - 1)
  const along = share * share * (3 - 2 * share)
  return { x: 60 + 200 * along, y: 110 - 60 * sin(PI * along) }
}

/** A made picture: a patterned body before a patterned ground. */
function picture(frame: number, { noise = 0, packed = 0, turn = 0, ground = 0, fade = () => 1 }: Made): Grey {
  const next = chance(frame * 31 + 7)
  const data = new Uint8Array(WIDTH * HEIGHT)
  const { x: cx, y: cy } = middle(frame)
  const [c, s] = [cos(turn * frame), sin(turn * frame)]
  const light = fade(frame / FRAMES)
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const gx = x + ground * frame
      let value = 180 + 22 * sin(gx / 6) * cos(y / 8) + 10 * sin((gx + y) / 17)
      const [u, v] = [(x - cx) * c + (y - cy) * s, (y - cy) * c - (x - cx) * s]
      const inside = min(1, max(0, 17 - hypot(u, v)))
      const body = 80 + 35 * sin(u / 2.5) * cos(v / 3.1) + 25 * sin((u + 2 * v) / 5)
      value = value * (1 - inside) + body * inside
      if (packed > 0) value += packed * sin(floor(frame / 12) * 7 + floor(x / 8) * 1.3 + floor(y / 8) * 2.1)
      data[y * WIDTH + x] = max(0, min(255, round(128 + (value - 128) * light + noise * next())))
    }
  }
  return { width: WIDTH, height: HEIGHT, data }
}

/** How far off a followed point is on each picture; shorter where it was lost. */
function drift(made: Made): number[] {
  let tracker = trackerOf(picture(0, made), middle(0))
  const off: number[] = []
  for (let frame = 1; frame < FRAMES && tracker; frame++) {
    const found = followOn(tracker, picture(frame, made))
    tracker = found?.tracker ?? null
    const wished = middle(frame)
    if (tracker) off.push(hypot(tracker.at.x - wished.x, tracker.at.y - wished.y))
  }
  return off
}

describe('a point that is followed', () => {
  test.each<[string, Made]>([
    ['clean', {}],
    ['noisy', { noise: 12 }],
    ['packed', { packed: 4, noise: 3 }],
    ['before a ground that passes', { ground: 1.7, noise: 3 }],
    ['fading', { fade: share => 0.4 + 0.6 * sin(PI * share), noise: 2 }],
    ['on a body that turns', { turn: 0.035, noise: 2 }],
  ])('is off by less than a pixel and a half after 48 pictures: %s', (_, made) => {
    const off = drift(made)
    expect(off).toHaveLength(FRAMES - 1)
    expect(max(...off)).toBeLessThan(1.5)
  })

  test('what stands still stays where it is, to the hundredth, and what is looked at again lies where it lay', () => {
    const first = picture(0, {})
    const at = middle(0)
    const found = followOn(trackerOf(first, at)!, first)!
    expect(found.sure).toBeCloseTo(1, 6)
    expect(hypot(found.tracker.at.x - at.x, found.tracker.at.y - at.y)).toBeLessThan(0.01)
    const away = followOn(found.tracker, picture(3, {}))!
    const back = followOn(away.tracker, first)!
    expect(hypot(back.tracker.at.x - at.x, back.tracker.at.y - at.y)).toBeLessThan(0.05)
  })

  test('it is lost where it is gone, and nothing is followed where there is nothing to hold on to', () => {
    const first = picture(0, {})
    const gone: Grey = { width: WIDTH, height: HEIGHT, data: new Uint8Array(WIDTH * HEIGHT).fill(120) }
    expect(followOn(trackerOf(first, middle(0))!, gone)).toBeNull()
    expect(trackerOf(gone, { x: 50, y: 50 })).toBeNull()
    // At the very edge it is looked at as far as there is something.
    expect(() => followOn(trackerOf(first, { x: 0, y: 0 })!, first)).not.toThrow()
  })
})
