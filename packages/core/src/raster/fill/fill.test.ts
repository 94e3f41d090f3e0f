import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { distance, insidePolygon, lerp, type Point } from '../../geometry/point.ts'
import { INK, placeStroke, type Sample } from '../../geometry/index.ts'
import { filler, linePicture, type Region, type LinePicture } from './index.ts'
import { indexOf, regionsOf } from './regions.ts'

const PAPER = { width: 400, height: 300 }

/** An evenly wide line through places. */
const line = (points: readonly Point[], width = 4) => {
  const close = points.flatMap((p, i): Point[] => {
    const q = points[i + 1]
    const n = q ? Math.ceil(distance(p, q)) : 1
    return Array.from({ length: n }, (_, k) => (q ? lerp(p, q, k / n) : p))
  })
  const samples = close.map(({ x, y }): Sample => ({ x, y, pressure: 0.5 }))
  return placeStroke(samples, 'line', width, null, null, { ...INK, thinning: 0 })
}
/** A ring, open by an angle on its right. */
const ring = (x: number, y: number, r: number, openRad = 0, width = 4) =>
  line(
    Array.from({ length: 73 }, (_, i) => {
      const t = openRad / 2 + (i / 72) * (2 * Math.PI - openRad)
      return { x: x + r * Math.cos(t), y: y + r * Math.sin(t) }
    }),
    width,
  )
const box = (left: number, top: number, right: number, bottom: number) =>
  line([
    { x: left, y: top },
    { x: right, y: top },
    { x: right, y: bottom },
    { x: left, y: bottom },
    { x: left, y: top },
  ])

const areaOf = ({ outlines }: Region): number => {
  const areas = outlines.map(outline =>
    Math.abs(
      outline.reduce((sum, p, i) => {
        const q = outline[(i + 1) % outline.length] as Point
        return sum + (p.x * q.y - q.x * p.y) / 2
      }, 0),
    ),
  )
  // The first is the outer one, the rest are its holes.
  return areas.slice(1).reduce((sum, area) => sum - area, areas[0] ?? 0)
}
const pressed = (strokes: Parameters<typeof linePicture>[0], at: Point, gapPx = 0) => {
  const filling = filler(linePicture(strokes, PAPER), gapPx)(at)
  if (!filling) throw new Error('nothing there')
  return filling
}
const isInside = ({ outlines }: Region, p: Point) => outlines.filter(o => insidePolygon(p, o)).length % 2 === 1

describe('a fill', () => {
  test('paints the region its lines bound, under them to their middle', () => {
    const filling = pressed([ring(200, 150, 60)], { x: 200, y: 150 })
    expect(filling.leak).toBeNull()
    // The middle of the line runs at 60 px: within half a pixel all round.
    expect(Math.sqrt(areaOf(filling) / Math.PI)).toBeCloseTo(60, 0)
    expect(filling.outlines).toHaveLength(1)
    for (const p of filling.outlines[0] as Point[]) {
      expect(Math.abs(Math.hypot(p.x - 200, p.y - 150) - 60)).toBeLessThan(1.6)
    }
    // Pressed outside it is the paper around it, with a hole.
    const around = pressed([ring(200, 150, 60)], { x: 20, y: 20 })
    expect(around.outlines).toHaveLength(2)
    expect(areaOf(around) + areaOf(filling)).toBeCloseTo(400 * 300, -2)
    expect(around.leak).toBeNull()
  })

  test('goes round an island, and fills the island alone', () => {
    const eye = [ring(200, 150, 60), ring(210, 140, 14)]
    const face = pressed(eye, { x: 170, y: 160 })
    expect(areaOf(face)).toBeCloseTo(Math.PI * (3600 - 196), -2)
    expect([isInside(face, { x: 170, y: 160 }), isInside(face, { x: 210, y: 140 })]).toEqual([true, false])
    expect(areaOf(pressed(eye, { x: 210, y: 140 }))).toBeCloseTo(Math.PI * 196, -1.5)
  })

  test('closes gaps up to the chosen width, and parts them in their middle', () => {
    // Open by 0.2 rad at r 60: 12 px, less the round ends of the line.
    const open = [ring(200, 150, 60, 0.2)]
    const closed = pressed(open, { x: 200, y: 150 }, 12)
    expect(closed.leak).toBeNull()
    expect(Math.abs(areaOf(closed) / (Math.PI * 3600) - 1)).toBeLessThan(0.01)
    const leaking = pressed(open, { x: 200, y: 150 }, 3)
    expect(areaOf(leaking)).toBeGreaterThan(100_000)
    expect(leaking.leak?.gapPx).toBeGreaterThan(5)
    expect(leaking.leak?.gapPx).toBeLessThan(12)
    expect(leaking.leak?.at.x).toBeCloseTo(260, -1)
    expect(leaking.leak?.at.y).toBeCloseTo(150, -1)
  })

  test('a dangling line inside is painted under whole, on both sides', () => {
    const hair = line([
      { x: 140, y: 150 },
      { x: 200, y: 150 },
    ])
    expect(areaOf(pressed([ring(200, 150, 60), hair], { x: 200, y: 120 }))).toBeCloseTo(Math.PI * 3600, -2)
  })

  test('a pocket narrower than the gaps that are closed is filled all the same', () => {
    const pocket = [box(100, 100, 114, 180)]
    const filling = pressed(pocket, { x: 107, y: 140 }, 24)
    expect(areaOf(filling) / (14 * 80)).toBeCloseTo(1, 1)
    expect(filling.leak).toBeNull()
  })

  test('the edge of the paper bounds; a line that stops short of it by less than a gap does too', () => {
    const wall = line([
      { x: 200, y: -10 },
      { x: 200, y: 292 },
    ])
    expect(areaOf(pressed([wall], { x: 50, y: 50 }, 16)) / (200 * 300)).toBeCloseTo(1, 1)
  })

  test('off the paper and with nothing drawn', () => {
    const fill = filler(linePicture([], PAPER), 8)
    expect(fill({ x: -1, y: 5 })).toBeNull()
    expect(fill({ x: 5, y: NaN })).toBeNull()
    const whole = fill({ x: 200, y: 100 })
    expect(whole && areaOf(whole)).toBe(400 * 300)
    expect(whole?.leak).toBeNull()
  })

  test('shapes bound nothing; a picture larger than 1080p is answered in paper pixels', () => {
    const shape = placeStroke(
      [
        { x: 100, y: 100, pressure: 0.5 },
        { x: 200, y: 100, pressure: 0.5 },
        { x: 200, y: 200, pressure: 0.5 },
      ],
      'shape',
      4,
      null,
      null,
      INK,
    )
    expect(areaOf(pressed([shape], { x: 150, y: 130 }))).toBe(400 * 300)
    const fill = filler(linePicture([ring(2000, 2000, 900, 0, 12)], { width: 4000, height: 4000 }), 0)
    const filling = fill({ x: 2000, y: 2000 })
    expect(Math.sqrt(areaOf(filling as Region) / Math.PI)).toBeCloseTo(900, -0.7)
  })
})

test('every pixel of any lines belongs to one region, and a region with no gaps closed is what flooding finds', () => {
  const [width, height] = [12, 9]
  fc.assert(
    fc.property(fc.array(fc.boolean(), { minLength: width * height, maxLength: width * height }), bits => {
      const picture: LinePicture = { width, height, scale: 1, line: Uint8Array.from(bits, b => (b ? 255 : 0)) }
      const regions = regionsOf(picture, 0)
      const labels = bits.map(
        (_, i) => regions.labels[indexOf(regions.stride, i % width, Math.floor(i / width))] as number,
      )
      const free = bits.flatMap((b, i) => (b ? [] : [i]))
      if (free.length > 0) expect(labels.every(label => label > 0)).toBe(true)
      // Flooded from every free pixel: the same pixels have the same label, and no others.
      const flooded = new Map<number, number>()
      for (const start of free) {
        if (flooded.has(start)) continue
        const stack = [start]
        for (let i = stack.pop(); i !== undefined; i = stack.pop()) {
          if (flooded.has(i) || bits[i]) continue
          flooded.set(i, start)
          const x = i % width
          if (x > 0) stack.push(i - 1)
          if (x < width - 1) stack.push(i + 1)
          if (i >= width) stack.push(i - width)
          if (i + width < bits.length) stack.push(i + width)
        }
      }
      const known = new Map<number, number>()
      for (const i of free) {
        const own = flooded.get(i) as number
        expect(known.get(own) ?? labels[i]).toBe(labels[i])
        known.set(own, labels[i] as number)
      }
      expect(new Set(known.values()).size).toBe(known.size)
    }),
    { numRuns: 60 },
  )
})
