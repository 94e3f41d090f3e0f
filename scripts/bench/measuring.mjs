import { performance } from 'node:perf_hooks'
import { core } from './core.mjs'

const [WIDTH, HEIGHT] = [1920, 1080]
const DRAWINGS = 100
const STROKES = 40
const BUDGET_S = 5
/** All that is measured of a drawing takes no more than so many passes over a picture. */
const MOST_PASSES = 2
const NIB = { look: 'ink', ends: 'round', thinning: 0.62 }

/** Numbers as if thrown, the same every time (the generator of Park and Miller, 1988). */
function thrown(seed) {
  let now = seed
  return () => (now = (now * 48_271) % 2_147_483_647) / 2_147_483_647
}

/** A drawing that fills most of the picture: a closed outline, paint in it, and lines. */
function drawing(seed) {
  const next = thrown(seed)
  const ring = (x, y, r, n) =>
    Array.from({ length: n + 1 }, (_, i) => {
      const a = (2 * Math.PI * i) / n
      return { x: x + 1.6 * r * Math.cos(a), y: y + r * Math.sin(a), pressure: 0.4 + 0.3 * Math.sin(3 * a) }
    })
  const stroke = (i, kind, samples, width) => {
    const xs = samples.map(({ x }) => x)
    const ys = samples.map(({ y }) => y)
    const box = {
      left: Math.min(...xs) - width,
      right: Math.max(...xs) + width,
      top: Math.min(...ys) - width,
      bottom: Math.max(...ys) + width,
    }
    return { element: `e${i}`, swatch: `s${i % 6}`, kind, samples, width, nib: NIB, box }
  }
  const body = ring(WIDTH / 2, HEIGHT / 2, 480, 160)
  return [
    stroke(0, 'shape', body, 0),
    stroke(1, 'line', body, 6),
    ...Array.from({ length: STROKES - 2 }, (_, i) =>
      stroke(i + 2, i % 3 ? 'line' : 'shape', ring(300 + 1300 * next(), 200 + 700 * next(), 20 + 90 * next(), 48), 4),
    ),
  ]
}

/** One pass over the pixels of a picture that is painted: each is read, and what is inside is counted. */
function onePass(pixels) {
  let [count, x] = [0, 0]
  for (let i = 0; i < pixels.length; i++) {
    if (pixels[i] > 127) {
      count++
      x += i % WIDTH
    }
  }
  return count + x
}

/** What measuring all drawings of a shot takes the first time, and again after a stroke on one. */
export async function measuringRows() {
  const { shapeOf, factsOf } = await core('raster')
  const all = Array.from({ length: DRAWINGS }, (_, i) => drawing(i + 7))
  const measure = strokes => [shapeOf(strokes), factsOf(strokes)]
  measure(all[0])
  const times = all.map(strokes => {
    const began = performance.now()
    measure(strokes)
    return performance.now() - began
  })
  const together = times.reduce((sum, ms) => sum + ms, 0)
  const pixels = new Uint8Array(WIDTH * HEIGHT).map((_, i) => (i % 3 ? 255 : 0))
  onePass(pixels)
  const passes = Array.from({ length: 20 }, () => {
    const began = performance.now()
    onePass(pixels)
    return performance.now() - began
  }).sort((a, b) => a - b)
  const pass = passes[10]
  const p95 = [...times].sort((a, b) => a - b)[Math.floor(0.95 * DRAWINGS)]
  const ratio = together / DRAWINGS / pass
  const ms = n => `${n.toFixed(1)} ms`
  return [
    {
      what: `measuring ${DRAWINGS} drawings at 1080p, all facts of each`,
      figure: `${(together / 1000).toFixed(2)} s`,
      budget: `< ${BUDGET_S} s, ≤ ${MOST_PASSES} ×`,
      met: together < BUDGET_S * 1000 && ratio <= MOST_PASSES,
      ratio: `${ratio.toFixed(1)} × one pass over a picture (${ms(pass)})`,
    },
    {
      what: 'measuring one drawing after a stroke (p95)',
      figure: ms(p95),
      budget: '< 100 ms',
      met: p95 < 100,
      ratio: '',
    },
  ]
}
