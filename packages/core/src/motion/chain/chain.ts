import { distance, lerp, type Point } from '../../geometry/point.ts'
import { namedDrawings, PLAIN_PLAN, softly, told1, wholeSteps } from '../plain.ts'
import { drawingOf, oneByOne, shownOn, snap, type Plan, type Recipe, type RecipeShot, type Way } from '../recipe.ts'
import { anglesByOffset, jointsOf } from './links.ts'
import { chainDefaults, refuseChain, type ChainNumbers } from './numbers.ts'
import { rootThrough } from './spline.ts'
import { ranOnce, ranRound, type Root } from './spring.ts'

/** A chain worked out. */
export interface ChainPlan extends Plan<ChainNumbers> {
  /** for every drawing its joints from the root to the tip */
  readonly lines: readonly (readonly Point[])[]
  /** for every drawing how fast its root goes, px a frame */
  readonly speeds: readonly Point[]
}

/**
 * Something that hangs on what moves (a tail, a strap, hair, cloth, an antenna): its root goes to and fro, goes once and
 * stops, or goes where a mark goes, and the links follow by offset, by springs, or are left hanging and come after.
 */
export const chain: Recipe<ChainNumbers, ChainPlan> = {
  through: ['line'],
  measures: { across: ['x'], down: ['y'], lengths: ['link', 'across', 'up', 'gravity'] },
  defaults: chainDefaults,
  refuse: refuseChain,
  plan: planChain,
  figure(plan, frame, sink) {
    const i = shownOn(plan, frame)
    const line = plan.lines[i] as readonly Point[]
    const tip = line[line.length - 1] as Point
    sink.path('line', line, 'near')
    sink.path(
      'tips',
      plan.lines.map(joints => joints[joints.length - 1] as Point),
      'aid',
    )
    sink.path(
      'roots',
      plan.lines.map(joints => joints[0] as Point),
      'aid',
    )
    // Against the way of its root it has to trail.
    const { x, y } = plan.speeds[i] as Point
    if (Math.hypot(x, y) >= TRAILS_FROM_PX) sink.arrow('trails', tip, { x: tip.x - 3 * x, y: tip.y - 3 * y })
  },
  expect(plan, drawing) {
    drawingOf(plan, drawing)
    const line = plan.lines[drawing] as readonly Point[]
    const [root, tip] = [line[0] as Point, line[line.length - 1] as Point]
    return { marks: { root, tip }, body: null }
  },
}

/** Slower roots say nothing about the side on which a chain has to trail. */
const TRAILS_FROM_PX = 0.5
/** A tip that moves by more from drawing to drawing at the end has not come to rest. */
const AT_REST_PX = 1

function planChain(numbers: ChainNumbers, shot: RecipeShot): ChainPlan {
  const { exposure: n, drive, how } = numbers
  const told: string[] = []
  const followed = drive === 'mark' ? wayFor(numbers, shot, told) : null
  const loops = drive === 'swing' || (followed?.period ?? null) !== null
  const last = followed?.places[followed.places.length - 1]?.frame
  const goes = followed ? (followed.period ?? Math.max(1, last ?? 1)) : numbers.period
  const period = wholeSteps(goes, n)
  const frames = loops ? period : period + wholeSteps(numbers.after, n)
  const count = frames / n
  const root = followed ? rootThrough(followed) : rootOf(numbers, period)
  const lines = linesOf(numbers, { root, period, frames, loops }, told)
  const tips = lines.map(line => line[line.length - 1] as Point)
  const names = loops && followed ? turnsOf(lines) : namesOf(numbers, lines, period / n)
  if (drive === 'move' && how !== 'spring' && count < 2) told.push('it has one drawing only')
  const left = distance(tips[count - 1] as Point, tips[Math.max(0, count - 2)] as Point)
  if (drive === 'move' && left > AT_REST_PX) told.push(`at the end its tip still moves by ${told1(left)} px a drawing`)
  return {
    ...PLAIN_PLAN,
    numbers,
    frames,
    loops,
    drawings: namedDrawings(count, n, names),
    exposures: oneByOne(count, n),
    beats: [...names].flatMap(([i, name]) => (name === 'extreme' ? [] : [{ frame: i * n, name }])),
    marks: ['root', 'tip'],
    snapped: [snap(loops ? 'frames of a swing' : 'frames of the way', goes, period)],
    told,
    lines,
    speeds: lines.map((_, i) => root.velocity(i * n)),
  }
}

/**
 * The way of what a chain follows, where it has one. A turn that its drawings do not fill, or one that it is to be left behind by, is gone once.
 */
function wayFor({ exposure: n, how, follows }: ChainNumbers, shot: RecipeShot, told: string[]): Way | null {
  const way = follows === null ? undefined : shot.wayOf?.(follows)
  if (!way || way.places.length < 2) {
    told.push('what it follows has no place on two drawings yet: its root stands')
    return null
  }
  if (way.period === null || how === 'hang') return { ...way, period: null }
  if (way.period % n === 0) return way
  told.push(`what it follows comes round in ${way.period} frames, which drawings of ${n} do not fill: it goes once`)
  return { ...way, period: null }
}

/** How a chain is moved. */
interface Moved {
  readonly root: Root
  /** frames of a swing, or of the way */
  readonly period: number
  readonly frames: number
  readonly loops: boolean
}

/** How the root goes: a sine to and fro, rising twice in it; or once, softly, and then it stands. */
function rootOf({ x, y, across, up, drive }: ChainNumbers, period: number): Root {
  const omega = (2 * Math.PI) / period
  if (drive === 'swing') {
    return {
      at: f => ({ x: x + across * Math.sin(omega * f), y: y - (up * (1 - Math.cos(2 * omega * f))) / 2 }),
      velocity: f => ({ x: across * omega * Math.cos(omega * f), y: -up * omega * Math.sin(2 * omega * f) }),
      acceleration: f => ({
        x: -across * omega * omega * Math.sin(omega * f),
        y: -2 * up * omega * omega * Math.cos(2 * omega * f),
      }),
    }
  }
  const half = Math.PI / period
  const goes = (f: number) => f > 0 && f < period
  // One that follows a mark without places stands where it was put.
  const far = drive === 'mark' ? 0 : 1
  const along = (share: number) => ({ x: across * share * far, y: -up * share * far })
  return {
    at: f => ({ x: x + along(softly(f / period)).x, y: y + along(softly(f / period)).y }),
    velocity: f => along(goes(f) ? (half * Math.sin(half * f)) / 2 : 0),
    acceleration: f => along(goes(f) ? (half * half * Math.cos(half * f)) / 2 : 0),
  }
}

function linesOf(numbers: ChainNumbers, moved: Moved, told: string[]): Point[][] {
  const { exposure: n, link, links, rest, how } = numbers
  const { root, period, frames, loops } = moved
  const at = Array.from({ length: frames / n }, (_, i) => i * n)
  if (how === 'hang') return leftHanging(numbers, root, at)
  if (how === 'offset') {
    const turned = turnedBy(numbers, moved)
    return at.map(f => jointsOf(root.at(f), link, anglesByOffset(numbers, rest, turned, f)))
  }
  const spring = { ...numbers, linkPx: link, restRad: rest, links }
  const ran = loops ? ranRound(spring, root, period) : ranOnce(spring, root, frames)
  if (!ran.settled) told.push('it does not settle: more damping, more air or fewer links would')
  return at.map(f => jointsOf(root.at(f), link, ran.angles[f] as readonly number[]))
}

/** By how much the root turns from rest on a frame: with its swing; else it leans back while it goes, most where it is fastest. */
function turnedBy({ drive, turn, across }: ChainNumbers, { root, period }: Moved): (frame: number) => number {
  if (drive === 'swing') return f => turn * Math.sin((2 * Math.PI * f) / period)
  if (drive === 'move')
    return f => -Math.sign(across || 1) * turn * Math.sin(Math.PI * Math.min(1, Math.max(0, f / period)))
  const fastest = Math.max(...Array.from({ length: period }, (_, f) => Math.abs(root.velocity(f).x)))
  return f => (fastest > 0 ? (-turn * root.velocity(f).x) / fastest : 0)
}

/** The tip stays where it was while the root leaves, as far as the chain can stretch; then it comes after, ever faster. */
function leftHanging(numbers: ChainNumbers, root: Root, at: readonly number[]): Point[][] {
  const { exposure: n, link, links, rest, hangs, stretch } = numbers
  const whole = links * link
  const below = (f: number): Point => {
    const { x, y } = root.at(f)
    return { x: x + whole * Math.sin(rest), y: y + whole * Math.cos(rest) }
  }
  const start = below(0)
  const behind = (f: number): Point => within(root.at(f), start, whole * (1 + stretch))
  const released = hangs * n
  // As long as it stayed behind, and a drawing more, it takes to come.
  const coming = (hangs + 1) * n
  return at.map(f => {
    const from = root.at(f)
    if (f <= released) return sagging(from, behind(f), links, whole)
    const u = Math.min(1, (f - released) / coming)
    return sagging(from, within(from, lerp(behind(released), below(f), u * u), whole * (1 + stretch)), links, whole)
  })
}

/** A place, brought so near to another that it is not farther off than `most`. */
function within(from: Point, to: Point, most: number): Point {
  const far = distance(from, to)
  return far > most ? lerp(from, to, most / far) : to
}

/** A line of so many links between two places that hangs through by what it is longer: a parabola of about its length. */
function sagging(from: Point, to: Point, links: number, whole: number): Point[] {
  const far = distance(from, to)
  const sag = far >= whole ? 0 : Math.min(whole / 2, Math.sqrt((3 * Math.max(far, whole / 8) * (whole - far)) / 8))
  return Array.from({ length: links + 1 }, (_, i) => {
    const u = i / links
    const { x, y } = lerp(from, to, u)
    return { x, y: y + 4 * sag * u * (1 - u) }
  })
}

/** Drawings with a name: the ends of a swing; where the root stops, where the tip is let go, and where it passes the root. */
function namesOf(numbers: ChainNumbers, lines: readonly (readonly Point[])[], stops: number): Map<number, string> {
  const names = new Map<number, string>([[0, 'start']])
  if (numbers.drive === 'swing') {
    names.set(Math.floor(stops / 4 + 1 / 2), 'extreme')
    names.set(Math.floor((3 * stops) / 4 + 1 / 2) % stops, 'extreme')
    return names
  }
  if (numbers.how === 'hang' && numbers.hangs < lines.length) names.set(numbers.hangs, 'tip comes')
  const side = (i: number) => {
    const line = lines[i] as readonly Point[]
    return (line[line.length - 1] as Point).x - (line[0] as Point).x - restSide(numbers)
  }
  if (stops < lines.length) names.set(stops, 'root stops')
  for (let i = stops + 1; i < lines.length; i++) {
    if (side(i) * side(i - 1) < 0) {
      names.set(i, 'tip passes')
      break
    }
  }
  return names
}

/** Of a chain that goes round: the drawings where its tip is farthest to either side of its root. */
function turnsOf(lines: readonly (readonly Point[])[]): Map<number, string> {
  const beside = lines.map(line => (line[line.length - 1] as Point).x - (line[0] as Point).x)
  const names = new Map<number, string>([[0, 'start']])
  for (const far of [Math.max(...beside), Math.min(...beside)]) names.set(beside.indexOf(far), 'extreme')
  return names
}

/** How far beside its root the tip lies at rest. */
const restSide = ({ links, link, rest }: ChainNumbers): number => links * link * Math.sin(rest)
