import { FIRST } from '@unhurried/core/document'
import { lerp, map, rotation, type Point } from '@unhurried/core/geometry'
import { archOutline, hangingOn, wispsOn, type PlanOf } from '@unhurried/core/motion'
import { Study, type StudyPaper, type Whole } from './study.ts'
import { curve, disc, line, type Mark, points, shape } from './tilda.ts'

const PAPER: StudyPaper = { width: 960, height: 720, fps: 24, frames: 48, paper: '#fdfaf3' }

/** A painted thing with its outline. */
const solid = (swatch: string, outline: readonly Point[], width = 4.6): Mark[] => [
  shape(swatch, outline),
  line(width, outline),
]

/** Ground at a height, with water behind it. */
function bank(y: number, width = PAPER.width): Mark[] {
  const edge = curve(
    points(-6, y + 6, width * 0.2, y - 2, width * 0.5, y + 2, width * 0.8, y - 4, width + 6, y + 5),
    false,
    14,
  )
  return [
    shape('mist', [...edge, { x: width + 6, y: 726 }, { x: -6, y: 726 }]),
    line(4, edge, 'moss'),
    ...[0.12, 0.33, 0.71, 0.9].map(share =>
      line(2.2, curve(points(width * share - 26, y + 46, width * share, y + 50, width * share + 34, y + 45)), 'moss'),
    ),
  ]
}

/** A band along a line that gets thinner from its first point to its last. */
function band(through: readonly Point[], from: number, to: number): Point[] {
  const smooth = curve(through, false, 6)
  const side = (sign: number) =>
    smooth.map((p, i) => {
      const [a, b] = [smooth[Math.max(0, i - 1)] as Point, smooth[Math.min(smooth.length - 1, i + 1)] as Point]
      const way = Math.atan2(b.y - a.y, b.x - a.x)
      const half = (from + ((to - from) * i) / (smooth.length - 1)) / 2
      return { x: p.x - sign * half * Math.sin(way), y: p.y + sign * half * Math.cos(way) }
    })
  const [left, right] = [side(1), side(-1).reverse()]
  return [...left, ...right, left[0] as Point]
}

/** A lantern that hangs from a branch and swings in the wind, a ribbon under it: every second drawing is done. */
export function hangingLantern(): Whole {
  const study = new Study('hanging', PAPER, 'lantern')
  study.still(FIRST.background, [
    line(14, curve(points(120, 96, 320, 74, 480, 84, 660, 66, 860, 84), false, 14), 'bark'),
    shape('lily', disc({ x: 270, y: 92 }, 38, 16)),
    shape('lily', disc({ x: 720, y: 90 }, 34, 14)),
    ...bank(640),
  ])
  const { plan, drawings } = study.guide('pendulum', {
    x: 480,
    y: 86,
    length: 250,
    swing: Math.PI / 7,
    period: 48,
    radius: 62,
    links: 4,
    link: 34,
    lag: 3,
    growth: 1.12,
    exposure: 2,
  })
  drawings.forEach((id, i) => {
    if (i % 2 === 0) study.draw(id, lantern(plan, i))
  })
  return study.whole
}

function lantern(plan: PlanOf<'pendulum'>, drawing: number): Mark[] {
  const { numbers: at } = plan
  const { angle, joints } = hangingOn(plan, drawing)
  const hang = rotation(-angle, at)
  const place = (ps: readonly Point[]) => ps.map(p => map(hang, { x: at.x + p.x, y: at.y + at.length + p.y }))
  const glass = place(curve(points(-46, -44, -58, 0, -44, 50, 44, 50, 58, 0, 46, -44), true))
  const lid = place(curve(points(-52, -42, -30, -66, 0, -74, 30, -66, 52, -42, 0, -36), true))
  const foot = place(curve(points(-48, 48, -40, 62, 40, 62, 48, 48, 0, 44), true))
  const flame = place(curve(points(0, -26, 15, 8, 10, 28, 0, 34, -10, 28, -15, 8), true))
  return [
    line(
      3.6,
      [at, ...place(points(0, -74))].map(({ x, y }) => ({ x, y })),
    ),
    ...solid('pond', band(joints, 13, 4), 3),
    ...solid('lamp', glass),
    shape('straw', flame),
    line(2.4, flame),
    line(2.6, place(curve(points(-20, -42, -26, 0, -20, 48)))),
    line(2.6, place(curve(points(20, -42, 26, 0, 20, 48)))),
    ...solid('bark', lid),
    ...solid('bark', foot),
  ]
}

/** A jelly pebble on a jelly pebble: fourteen drawings, the first half of them done. */
export function jellyPebbles(): Whole {
  const study = new Study('pebbles', { ...PAPER, frames: 56 }, 'pebbles')
  study.still(FIRST.background, bank(600))
  const { plan, drawings } = study.guide('soft', {
    x: 480,
    ground: 604,
    lowWide: 150,
    lowHigh: 96,
    wide: 112,
    high: 72,
    drawings: 14,
    squash: 0.28,
    stretch: 0.2,
    arch: 0.7,
    hangs: 2,
    follows: 0.2,
    exposure: 2,
  })
  drawings.slice(0, 8).forEach((id, i) => {
    const pair = plan.pairs[i]
    if (!pair) return
    const { low, up } = pair
    const lower = disc(low.centre, low.wide, low.high, 48)
    const upper = archOutline(up)
    const shine = (c: Point, wide: number, high: number) =>
      line(
        5,
        curve([-0.62, -0.45, -0.24].map(a => ({ x: c.x + wide * a, y: c.y - high * Math.sqrt(1 - a * a) * 0.78 }))),
        'lamp',
      )
    const face = (x: number) => disc({ x: up.centre.x + x, y: up.centre.y + up.high * 0.1 }, 5.4, 7, 14)
    study.draw(id, [
      ...solid('lily', lower),
      ...solid('leaf', upper),
      shine(low.centre, low.wide, low.high),
      shine(up.centre, up.wide, up.high),
      shape('graphite', face(-26)),
      shape('graphite', face(26)),
      line(
        3,
        curve([-12, 0, 12].map(x => ({ x: up.centre.x + x, y: up.centre.y + up.high * 0.32 + 5 - Math.abs(x) / 3 }))),
      ),
    ])
  })
  return study.whole
}

/** A reed in the wind: its head follows its foot, each piece a little later; two drawings of three are done. */
export function reedInTheWind(): Whole {
  const study = new Study('reed', PAPER, 'reed')
  study.still(FIRST.background, bank(650))
  const { plan, drawings } = study.guide('chain', {
    x: 480,
    y: 652,
    links: 6,
    link: 78,
    rest: Math.PI,
    how: 'offset',
    drive: 'swing',
    across: 0,
    turn: 0.2,
    period: 48,
    lag: 2,
    growth: 1.25,
    exposure: 2,
  })
  drawings.forEach((id, i) => {
    const joints = plan.lines[i]
    if (!joints || i % 3 === 2) return
    const [below, top] = [joints[joints.length - 2] as Point, joints[joints.length - 1] as Point]
    const head = band([lerp(below, top, 0.1), lerp(below, top, 0.5), lerp(below, top, 0.96)], 24, 19)
    const second = joints[2] as Point
    const leaf = band(
      [
        joints[0] as Point,
        lerp(joints[1] as Point, second, 0.2),
        { x: second.x + 96, y: second.y - 30 },
        { x: second.x + 168, y: second.y + 34 },
      ],
      12,
      2,
    )
    const other = band(
      [
        joints[0] as Point,
        { x: (joints[1] as Point).x - 34, y: (joints[1] as Point).y },
        { x: second.x - 120, y: second.y + 46 },
      ],
      11,
      2,
    )
    study.draw(id, [
      ...solid('moss', other, 3.4),
      ...solid('leaf', leaf, 3.4),
      ...solid('moss', band(joints, 11, 5), 3.4),
      ...solid('bark', head),
      line(3, [top, { x: top.x + (top.x - below.x) * 0.2, y: top.y + (top.y - below.y) * 0.2 }]),
    ])
  })
  return study.whole
}

/** Mist over a warm stone: seven wisps that close exactly, half of the drawings done. */
export function mistOverStone(): Whole {
  const study = new Study('mist', { ...PAPER, frames: 72 }, 'mist')
  const stone = curve(points(300, 640, 330, 566, 420, 540, 520, 546, 620, 566, 668, 640, 480, 668), true, 10)
  study.still(FIRST.background, [
    ...bank(628),
    ...solid('lily', stone, 5),
    line(3, curve(points(372, 590, 420, 570, 470, 566)), 'bark'),
    line(2.6, curve(points(540, 612, 580, 606, 612, 618)), 'bark'),
  ])
  const { plan, drawings } = study.guide('wisps', {
    x: 478,
    y: 536,
    pitch: 70,
    rise: 18,
    drawings: 8,
    height: 490,
    thick: 58,
    sway: 62,
    seed: 4,
    exposure: 3,
  })
  drawings.forEach((id, i) => {
    if (i % 2 === 1) return
    const marks = wispsOn(plan, i).flatMap(({ spine, halves }): Mark[] => {
      const parts: number[][] = [[]]
      halves.forEach((half, k) => (half > 0 ? parts[parts.length - 1]?.push(k) : parts.push([])))
      return parts
        .filter(part => part.length > 2)
        .flatMap(part => {
          const side = (sign: number) =>
            part.map(k => ({ x: (spine[k] as Point).x + sign * (halves[k] as number), y: (spine[k] as Point).y }))
          const outline = curve([...side(1), ...side(-1).reverse()], true, 3)
          return [shape('mist', outline), line(2.4, outline, 'moss')]
        })
    })
    study.draw(id, marks)
  })
  return study.whole
}
