import type { Label } from '@unhurried/core/document'
import { distance, insidePolygon, rotation, map, type Nib, type Point } from '@unhurried/core/geometry'
import { stretchKeepingArea } from '@unhurried/core/motion'

/** How Tilda sits, leaps or lands. Lengths in paper pixels, angles in radians (clockwise as seen). */
export interface Pose {
  /** middle of the body */
  readonly at: Point
  /** direction of the body; 0 looks right */
  readonly tilt: number
  /** stretch along the body, area kept; below 1 is squashed */
  readonly stretch: number
  /** her size; 1 is about 120 px from end to end */
  readonly size: number
  /** where the hind toes are */
  readonly foot: Point
  /** whether they stand on something: a flat foot, else it trails in line with the shin */
  readonly planted: boolean
  readonly hand: Point
  /** how far the satchel swings back behind her, radians */
  readonly drag: number
  /** 0 open, 1 shut */
  readonly lid: number
}

/** A line or painted shape to be drawn: places with pressure. */
export interface Mark {
  readonly kind: 'line' | 'shape'
  readonly swatch: string
  readonly width: number
  readonly points: readonly Point[]
  /** a round ink nib when not told otherwise */
  readonly nib?: Nib
  readonly label?: Label
}

/** A pen line. */
export const line = (width: number, through: readonly Point[], swatch = 'graphite'): Mark => ({
  kind: 'line',
  swatch,
  width,
  points: through,
})
/** A painted shape. */
export const shape = (swatch: string, outline: readonly Point[]): Mark => ({
  kind: 'shape',
  swatch,
  width: 1,
  points: outline,
})

/** Closed outlines that belong together, their colour, and the lines drawn on them. Later parts lie over earlier ones. */
export interface Part {
  readonly outlines: readonly (readonly Point[])[]
  readonly swatch: string | null
  readonly edge: number
  readonly inner: readonly { readonly points: readonly Point[]; readonly width: number }[]
  readonly accents?: readonly Mark[]
}

const at = (x: number, y: number): Point => ({ x, y })
export const points = (...xy: number[]): Point[] =>
  Array.from({ length: xy.length / 2 }, (_, i) => at(xy[2 * i] as number, xy[2 * i + 1] as number))

const BODY = points(
  ...[-52, 6, -48, -13, -28, -28, 2, -35, 18, -41, 24, -53, 37, -58, 48, -50, 53, -40, 64, -32, 70, -21, 65, -10],
  ...[50, -1, 32, 9, 6, 18, -24, 21, -45, 17],
)
const MOUTH = points(67, -18, 54, -11, 40, -13, 33, -20)
const BELLY = points(50, -2, 34, 3, 10, 8, -16, 12, -32, 10)
const EYE = at(38, -45)
const SATCHEL = points(-21, 0, 13, -1, 16, 15, 13, 25, -18, 26, -23, 14)
const HINGE = at(0, -27)

/** A smooth curve through points (uniform Catmull–Rom), `n` pieces between each two. */
export function curve(through: readonly Point[], closed = false, n = 8): Point[] {
  const last = through.length - 1
  const pick = (i: number) =>
    (closed ? through[(i + through.length) % through.length] : through[Math.max(0, Math.min(last, i))]) as Point
  const out: Point[] = []
  for (let i = 0; i < (closed ? through.length : last); i++) {
    const [a, b, c, d] = [pick(i - 1), pick(i), pick(i + 1), pick(i + 2)]
    for (let k = 0; k < n; k++) {
      const t = k / n
      const blend = (p: number, q: number, r: number, s: number) =>
        0.5 * (2 * q + (r - p) * t + (2 * p - 5 * q + 4 * r - s) * t * t + (3 * q - p - 3 * r + s) * t * t * t)
      out.push(at(blend(a.x, b.x, c.x, d.x), blend(a.y, b.y, c.y, d.y)))
    }
  }
  out.push(closed ? (out[0] as Point) : (through[last] as Point))
  return out
}

export function disc(centre: Point, rx: number, ry = rx, n = 24): Point[] {
  return Array.from({ length: n + 1 }, (_, i) => {
    const a = (i / n) * 2 * Math.PI
    return at(centre.x + rx * Math.cos(a), centre.y + ry * Math.sin(a))
  })
}

/** A limb piece: round at both ends, `ra` thick at a and `rb` at b. */
export function limb(a: Point, b: Point, ra: number, rb: number): Point[] {
  const along = Math.atan2(b.y - a.y, b.x - a.x)
  const arc = (centre: Point, r: number, from: number) =>
    Array.from({ length: 9 }, (_, i) => {
      const angle = from + (i / 8) * Math.PI
      return at(centre.x + r * Math.cos(angle), centre.y + r * Math.sin(angle))
    })
  const ring = [...arc(b, rb, along - Math.PI / 2), ...arc(a, ra, along + Math.PI / 2)]
  return densify([...ring, ring[0] as Point], 4)
}

function densify(path: readonly Point[], step: number): Point[] {
  return path.flatMap((p, i) => {
    const q = path[i + 1]
    if (!q) return [p]
    const n = Math.max(1, Math.round(distance(p, q) / step))
    return Array.from({ length: n }, (_, k) => at(p.x + ((q.x - p.x) * k) / n, p.y + ((q.y - p.y) * k) / n))
  })
}

/** The joint between a and b with bones of length l1, l2; bent to the left (−1) or right (1) of the way from a to b. */
function joint(a: Point, b: Point, l1: number, l2: number, side: 1 | -1): Point {
  const d = Math.max(1, Math.min(l1 + l2 - 0.5, distance(a, b)))
  const along = Math.atan2(b.y - a.y, b.x - a.x)
  const bend = Math.acos(Math.max(-1, Math.min(1, (l1 * l1 + d * d - l2 * l2) / (2 * l1 * d))))
  return at(a.x + l1 * Math.cos(along + side * bend), a.y + l1 * Math.sin(along + side * bend))
}

/** b, pulled in so that it is no farther from a than `reach`. */
function within(a: Point, b: Point, reach: number): Point {
  const d = distance(a, b)
  return d <= reach ? b : at(a.x + ((b.x - a.x) * reach) / d, a.y + ((b.y - a.y) * reach) / d)
}

/** From her own measure to the paper: stretched, turned, and where she is. */
function placing(pose: Pose): (p: Point) => Point {
  const { along, across } = stretchKeepingArea(1, pose.stretch)
  const turn = rotation(pose.tilt, at(0, 0))
  return p => {
    const q = map(turn, at(p.x * along * pose.size, p.y * across * pose.size))
    return at(pose.at.x + q.x, pose.at.y + q.y)
  }
}

/** Where an animator would put marks on her: the tip of the nose, the clasp of the satchel, the near toes. */
export function marksOn(pose: Pose): { nose: Point; clasp: Point; toes: Point } {
  const place = placing(pose)
  const swing = rotation(pose.drag, HINGE)
  const { toe } = hindJoints(place(at(-36, 8)), pose.foot, pose)
  return { nose: place(at(69, -22)), clasp: place(map(swing, at(-6, 11))), toes: toe }
}

/** Everything drawn for a pose, back to front, hidden lines taken away. */
export function tilda(pose: Pose): Mark[] {
  const place = placing(pose)
  const all = (ps: readonly Point[]) => ps.map(place)
  const back = at(pose.size * 9, -pose.size * 3)
  const shifted = (p: Point) => at(p.x + back.x, p.y + back.y)
  const parts: Part[] = [
    hindLeg(place(at(-30, 4)), shifted(pose.foot), pose, 'farLeg'),
    arm(place(at(34, 2)), shifted(pose.hand), pose, 'farArm'),
    body(pose, all),
    satchel(pose, all),
    arm(place(at(24, 4)), pose.hand, pose, 'nearArm'),
    hindLeg(place(at(-36, 8)), pose.foot, pose, 'nearLeg'),
  ]
  return paint(parts)
}

const TONE = { nearLeg: 'leaf', nearArm: 'leaf', farLeg: 'moss', farArm: 'moss' } as const

/** Knee, ankle and toes of a hind leg; toes out of its reach are as near as it gets. */
function hindJoints(hip: Point, toes: Point, pose: Pose): { knee: Point; ankle: Point; toe: Point } {
  const u = pose.size
  const heelBack = pose.planted ? at(-27 * u, -5 * u) : trailing(hip, toes, 26 * u)
  const ankle = within(hip, at(toes.x + heelBack.x, toes.y + heelBack.y), 95 * u)
  const knee = joint(hip, ankle, 48 * u, 48 * u, kneeSide(hip, ankle))
  return { knee, ankle, toe: within(ankle, toes, 30 * u) }
}

function hindLeg(hip: Point, toes: Point, pose: Pose, tone: keyof typeof TONE): Part {
  const u = pose.size
  const { knee, ankle, toe } = hindJoints(hip, toes, pose)
  const spread = Math.atan2(toe.y - ankle.y, toe.x - ankle.x)
  const pads = [-0.55, 0, 0.5].map(a => {
    const reach = (a === 0 ? 10 : 8) * u
    return limb(toe, at(toe.x + reach * Math.cos(spread + a), toe.y + reach * Math.sin(spread + a)), 2.2 * u, 3.1 * u)
  })
  return {
    outlines: [
      limb(hip, knee, 14 * u, 9 * u),
      limb(knee, ankle, 8.5 * u, 5 * u),
      limb(ankle, toe, 5 * u, 4 * u),
      ...pads,
    ],
    swatch: TONE[tone],
    edge: tone === 'nearLeg' ? 4.6 : 3.6,
    inner: [],
  }
}

/** Knees of a frog point forwards and up: to the left of the way from hip to ankle when that runs backwards. */
const kneeSide = (hip: Point, ankle: Point): 1 | -1 => (ankle.x < hip.x - 30 && ankle.y < hip.y + 60 ? 1 : -1)

function trailing(hip: Point, toes: Point, length: number): Point {
  const d = distance(toes, hip) || 1
  return at(((hip.x - toes.x) / d) * length, ((hip.y - toes.y) / d) * length)
}

function arm(shoulder: Point, wished: Point, pose: Pose, tone: keyof typeof TONE): Part {
  const u = pose.size
  const hand = within(shoulder, wished, 47 * u)
  const elbow = joint(shoulder, hand, 24 * u, 24 * u, 1)
  const reach = Math.atan2(hand.y - elbow.y, hand.x - elbow.x) * 0.5
  const fingers = [-0.6, 0, 0.6].map(a =>
    limb(hand, at(hand.x + 6 * u * Math.cos(reach + a), hand.y + 6 * u * Math.sin(reach + a)), 1.8 * u, 2.6 * u),
  )
  return {
    outlines: [limb(shoulder, elbow, 6.5 * u, 5 * u), limb(elbow, hand, 5 * u, 3.6 * u), ...fingers],
    swatch: TONE[tone],
    edge: tone === 'nearArm' ? 4 : 3.2,
    inner: [],
  }
}

function body(pose: Pose, all: (ps: readonly Point[]) => Point[]): Part {
  const u = pose.size
  const shut = Math.max(0.12, 1 - pose.lid)
  const eye = disc(EYE, 8.6, 8.6 * shut)
  const pupil = disc(at(EYE.x + 2.4, EYE.y), 3.6, 4.6 * shut, 16)
  const throat = [...curve(BELLY), ...curve(points(-32, 10, -24, 19, 6, 17, 32, 8, 49, -1))]
  const mark = (kind: Mark['kind'], swatch: string, width: number, ps: readonly Point[]): Mark => ({
    kind,
    swatch,
    width,
    points: all(ps),
  })
  return {
    outlines: [all(curve(BODY, true))],
    swatch: 'leaf',
    edge: 5.2,
    inner: [
      { points: all(curve(MOUTH)), width: 3.4 },
      { points: all(curve(points(63, -24, 61, -22.5))), width: 2.6 },
      { points: all(curve(points(-36, -16, -20, -24, 0, -28))), width: 1.8 },
    ],
    accents: [
      mark('shape', 'straw', u, throat),
      mark('shape', 'lamp', u, eye),
      ...(pose.lid < 0.6 ? [mark('shape', 'graphite', u, pupil)] : []),
      mark('line', 'graphite', 3.2, eye),
    ],
  }
}

function satchel(pose: Pose, all: (ps: readonly Point[]) => Point[]): Part {
  const swing = rotation(pose.drag, HINGE)
  const hung = (ps: readonly Point[]) => all(ps.map(p => map(swing, at(p.x - 2, p.y - 5))))
  const strap = [...all(points(16, -38)), ...hung(points(6, -16, -6, 0))]
  const letter = hung(densify(points(-13, 3, -9, -10, 9, -11, 9, 2), 4))
  return {
    outlines: [hung(curve(SATCHEL, true, 5))],
    swatch: 'bark',
    edge: 4.2,
    inner: [
      { points: hung(curve(points(-22, 6, -6, 16, 14, 6))), width: 3 },
      { points: curve(strap), width: 3.4 },
    ],
    accents: [
      { kind: 'shape', swatch: 'lamp', width: 1, points: letter },
      { kind: 'line', swatch: 'graphite', width: 2.4, points: letter },
    ],
  }
}

/** Parts to marks: shapes in order, then every line where no part in front, and no sibling outline, covers it. */
export function paint(parts: readonly Part[]): Mark[] {
  const shapes: Mark[] = []
  const lines: Mark[] = []
  parts.forEach((part, depth) => {
    const inFront = parts.slice(depth + 1).flatMap(p => p.outlines)
    const line = (points: readonly Point[], width: number, swatch: string, behind: readonly (readonly Point[])[]) => {
      for (const run of visible(points, behind)) lines.push({ kind: 'line', swatch, width, points: run })
    }
    part.outlines.forEach((outline, i) => {
      if (part.swatch) shapes.push({ kind: 'shape', swatch: part.swatch, width: 1, points: outline })
      line(outline, part.edge, 'graphite', [...inFront, ...part.outlines.filter((_, k) => k !== i)])
    })
    for (const { points, width } of part.inner) line(points, width, 'graphite', inFront)
    for (const accent of part.accents ?? []) {
      if (accent.kind === 'shape') shapes.push(accent)
      else line(accent.points, accent.width, accent.swatch, inFront)
    }
  })
  return [...shapes, ...lines]
}

/** The runs of a path that no polygon covers. A closed path that is cut starts at a cut, so that no run is split in two. */
function visible(path: readonly Point[], polygons: readonly (readonly Point[])[]): Point[][] {
  const hidden = path.map(p => polygons.some(polygon => insidePolygon(p, polygon)))
  if (!hidden.includes(true)) return [[...path]]
  const [first, last] = [path[0] as Point, path[path.length - 1] as Point]
  const closed = distance(last, first) < 0.01
  const start = closed ? hidden.indexOf(true) : 0
  const order = path.map((_, i) => (start + i) % path.length)
  const runs: Point[][] = [[]]
  for (const i of order) {
    if (hidden[i]) runs.push([])
    else (runs[runs.length - 1] as Point[]).push(path[i] as Point)
  }
  return runs.filter(run => run.length > 2)
}
