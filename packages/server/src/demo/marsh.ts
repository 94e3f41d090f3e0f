import { distance, type Point } from '@unhurried/core/geometry'
import { curve, disc, type Mark } from './tilda.ts'

const line = (width: number, points: readonly Point[], swatch = 'reed'): Mark => ({
  kind: 'line',
  swatch,
  width,
  points,
})
const shape = (swatch: string, points: readonly Point[]): Mark => ({ kind: 'shape', swatch, width: 1, points })
const pts = (...xy: number[]): Point[] =>
  Array.from({ length: xy.length / 2 }, (_, i) => ({ x: xy[2 * i] as number, y: xy[2 * i + 1] as number }))

/** A lily pad seen from low over the water, with its notch and a few veins. */
function pad(x: number, y: number, r: number, notch: 1 | -1): Mark[] {
  const [ry, n] = [r * 0.17, notch]
  const rim = disc({ x, y }, r, ry, 64).filter(p => !(n * (p.x - x) > r * 0.55 && p.y < y - ry * 0.1))
  const cut = [
    ...rim.slice(rim.findIndex((_, i) => i > 0 && jumps(rim, i))),
    ...rim.slice(
      0,
      rim.findIndex((_, i) => i > 0 && jumps(rim, i)),
    ),
  ]
  const edge = [{ x: x + n * r * 0.12, y: y - ry * 0.15 }, ...cut, { x: x + n * r * 0.12, y: y - ry * 0.15 }]
  const under = edge.map(p => ({ x: p.x + 3, y: p.y + 9 }))
  const veins = [-0.75, -0.35, 0.1, 0.5].map(a =>
    curve(
      pts(
        x - n * r * 0.02,
        y,
        x - n * r * (0.3 + 0.1 * a),
        y + ry * a * 0.7,
        x - n * r * (0.72 - Math.abs(a) * 0.1),
        y + ry * a,
      ),
    ),
  )
  return [
    shape('mist-deep', under),
    shape('lily', edge),
    line(2.6, edge, 'reed'),
    ...veins.map(v => line(1.6, v, 'reed')),
  ]
}

const jumps = (path: readonly Point[], i: number) => distance(path[i - 1] as Point, path[i] as Point) > 20

function cattail(x: number, foot: number, height: number, lean: number): Mark[] {
  const top = { x: x + lean, y: foot - height }
  const stem = curve([{ x, y: foot }, { x: x + lean * 0.25, y: foot - height * 0.5 }, top], false, 20)
  const head = disc({ x: top.x - lean * 0.03, y: top.y + height * 0.06 }, 7, height * 0.1, 30)
  const leaf = curve(
    pts(x - 6, foot, x - 20 - lean * 0.2, foot - height * 0.4, x - 34 - lean * 0.5, foot - height * 0.62),
    false,
    16,
  )
  return [line(4, stem, 'reed'), line(5, leaf, 'reed'), shape('reed', head)]
}

function ripple(x: number, y: number, w: number): Mark {
  return line(2, curve(pts(x - w, y, x - w * 0.3, y + 3, x + w * 0.4, y - 1, x + w, y + 1), false, 10), 'mist-deep')
}

/** The marsh at night as a background: moon, mist over the water, two pads to hop between, cattails. 1280 × 720. */
export function marsh(): Mark[] {
  const water = pts(0, 560, 200, 556, 520, 560, 900, 555, 1280, 560, 1280, 720, 0, 720)
  const bank = curve(pts(0, 548, 160, 530, 330, 545, 520, 552, 760, 544, 960, 550, 1130, 532, 1280, 540), false, 12)
  const far = curve(
    pts(
      0,
      470,
      90,
      452,
      190,
      476,
      300,
      486,
      420,
      462,
      520,
      480,
      660,
      492,
      800,
      470,
      900,
      478,
      1010,
      448,
      1130,
      462,
      1280,
      440,
    ),
    false,
    12,
  )
  const firefly = (x: number, y: number, r: number) => shape('lamp', disc({ x, y }, r, r, 14))
  return [
    shape('lamp', disc({ x: 1046, y: 138 }, 46, 46, 48)),
    firefly(180, 300, 6),
    firefly(232, 372, 4.5),
    firefly(148, 410, 5),
    firefly(1150, 330, 6),
    firefly(1098, 394, 4.5),
    firefly(620, 512, 4),
    shape('haze', [...far, ...pts(1280, 600, 0, 600)]),
    shape('mist', [...bank, ...pts(1280, 600, 0, 600)]),
    shape('mist', water),
    line(2, bank, 'mist-deep'),
    ...pad(640, 664, 120, -1),
    ...pad(286, 606, 190, 1),
    ...pad(992, 606, 190, -1),
    ripple(540, 590, 60),
    ripple(700, 606, 44),
    ripple(110, 660, 70),
    ripple(1180, 664, 60),
    ripple(840, 690, 50),
    ...cattail(62, 560, 250, 24),
    ...cattail(106, 566, 168, -10),
    ...cattail(1216, 566, 280, -26),
    ...cattail(1252, 560, 190, 12),
  ]
}
