import type { Point } from '../../geometry/point.ts'
import { PLAIN_PLAN } from '../plain.ts'
import { drawingOf, shownOn, type Plan, type PlannedDrawing, type PlannedExposure, type Recipe } from '../recipe.ts'
import { blinkDefaults, refuseBlink, type BlinkNumbers } from './numbers.ts'

/** How far the lids of both eyes are shut on a drawing, and how far the lashes are: 0 open, 1 shut. */
export interface Lids {
  readonly first: number
  readonly second: number
  readonly lashes: number
}

/** A blink worked out. */
export interface BlinkPlan extends Plan<BlinkNumbers> {
  /** for every drawing */
  readonly lids: readonly Lids[]
}

/** Where the middle of the upper lid's edge is when it is open and shut, and that of the lower one: shares of the eye's half height, upwards. */
const UPPER_OPEN = 1
const SHUT = -0.45
const LOWER_OPEN = -0.6

/**
 * An eye, or two, that blinks: lids go evenly and curve round the ball, the upper one down to where the lower one comes up to
 * meet it. Drawings that are alike are one drawing shown again, so that a second blink costs none.
 */
export const blink: Recipe<BlinkNumbers, BlinkPlan> = {
  through: [],
  measures: { across: ['x'], down: ['y'], lengths: ['wide', 'high', 'apart'] },
  defaults: blinkDefaults,
  refuse: refuseBlink,
  plan: planBlink,
  figure(plan, frame, sink) {
    const { numbers } = plan
    const lids = plan.lids[shownOn(plan, frame)] as Lids
    for (const [centre, shut] of eyesOf(numbers, lids)) {
      sink.ellipse('ball', centre, numbers.wide, numbers.high, numbers.tilt)
      sink.path('upper lid', edge(numbers, centre, upperLid(shut)), 'near')
      sink.path('lower lid', edge(numbers, centre, lowerLid(shut)), 'near')
      for (const lash of lashesOf(numbers, centre, numbers.lashes ? lids.lashes : shut)) sink.path('lashes', lash)
    }
  },
  expect(plan, drawing) {
    drawingOf(plan, drawing)
    const lids = plan.lids[drawing] as Lids
    const [[centre, shut] = [plan.numbers, lids.first] as const] = eyesOf(plan.numbers, lids)
    const at = (share: number) => placed(plan.numbers, centre, 0, share)
    return { marks: { 'upper lid': at(upperLid(shut)), 'lower lid': at(lowerLid(shut)) }, body: null }
  },
}

/** The middle of the upper lid's edge, shut by a share: upwards, of the eye's half height. */
export const upperLid = (shut: number): number => UPPER_OPEN * (1 - shut) + SHUT * shut
/** The middle of the lower lid's edge, shut by a share: upwards, of the eye's half height. */
export const lowerLid = (shut: number): number => LOWER_OPEN * (1 - shut) + SHUT * shut

function eyesOf({ x, y, apart, tilt }: BlinkNumbers, { first, second }: Lids): (readonly [Point, number])[] {
  if (apart === 0) return [[{ x, y }, first]]
  const [dx, dy] = [(apart / 2) * Math.cos(tilt), (apart / 2) * Math.sin(tilt)]
  return [
    [{ x: x - dx, y: y - dy }, first],
    [{ x: x + dx, y: y + dy }, second],
  ]
}

/** A place of an eye: to the right and upwards, as shares of its half axes. */
function placed({ wide, high, tilt }: BlinkNumbers, centre: Point, across: number, up: number): Point {
  const [x, y] = [across * wide, -up * high]
  return {
    x: centre.x + x * Math.cos(tilt) - y * Math.sin(tilt),
    y: centre.y + x * Math.sin(tilt) + y * Math.cos(tilt),
  }
}

const PIECES = 20
/** The edge of a lid: half an ellipse through both corners with its middle at a share of the half height. */
const edge = (numbers: BlinkNumbers, centre: Point, middle: number): Point[] =>
  Array.from({ length: PIECES + 1 }, (_, i) => {
    const a = Math.PI * (i / PIECES)
    return placed(numbers, centre, -Math.cos(a), middle * Math.sin(a))
  })

const LASHES = [0.3, 0.5, 0.7]
/** Lashes stand on the upper lid's edge and lean with it: up when it is open, down when it is shut. */
function lashesOf(numbers: BlinkNumbers, centre: Point, shut: number): Point[][] {
  const middle = upperLid(shut)
  return LASHES.map(share => {
    const a = Math.PI * share
    const [across, up] = [-Math.cos(a), middle * Math.sin(a)]
    return [placed(numbers, centre, across, up), placed(numbers, centre, across * 1.25, up + 0.3 * (1 - 2 * shut))]
  })
}

/** What is shown one after the other: how far the lid is shut, and for how many frames. */
type Step = readonly [shut: number, frames: number]

/** One blink: down, shut, up. Lids go evenly, so that the drawings of a way are as far from each other as from its ends. */
function oneBlink({ slower, slow, quick, exposure }: BlinkNumbers, shut: number, times: number): Step[] {
  const way = (count: number) => Array.from({ length: count }, (_, i) => (i + 1) / (count + 1))
  const [down, up] = slower === 'down' ? [slow, quick] : [quick, slow]
  const held = exposure * times
  return [
    ...way(down).map((share): Step => [share, held]),
    [1, shut],
    ...way(up)
      .reverse()
      .map((share): Step => [share, held]),
  ]
}

const FLUTTERS = 4
function stepsOf(numbers: BlinkNumbers): Step[] {
  const { before, after, shut, pattern, exposure: n } = numbers
  const quick = Math.max(1, Math.ceil(shut / 2))
  const between: Step = [0, Math.max(n, quick)]
  const blinks = {
    once: () => oneBlink(numbers, shut, 1),
    double: () => [...oneBlink(numbers, shut, 1), between, ...oneBlink(numbers, quick, 1)],
    flutter: () =>
      Array.from({ length: FLUTTERS }, (_, i): Step[] => [
        ...(i ? [[0, n] as const] : []),
        ...oneBlink(numbers, n, 1),
      ]).flat(),
    sleepy: () => oneBlink(numbers, 2 * shut, 2),
  }[pattern]()
  return [[0, before], ...blinks, [0, after]]
}

/** Every frame what the second eye and the lashes do is what came one step before; a step is as long as it was planned. */
function planBlink(numbers: BlinkNumbers): BlinkPlan {
  const steps = stepsOf(numbers)
  const trails = numbers.lashes || (numbers.late && numbers.apart > 0)
  // Whoever comes later needs one exposure more to be open again.
  const all: Step[] = trails ? [...steps.slice(0, -1), [0, numbers.exposure], steps[steps.length - 1] as Step] : steps
  const lids: Lids[] = []
  const drawings: PlannedDrawing[] = []
  const exposures: PlannedExposure[] = []
  let at = 0
  all.forEach(([shut, frames], i) => {
    const late = all[Math.max(0, i - 1)]?.[0] ?? 0
    const now = { first: shut, second: numbers.late ? late : shut, lashes: numbers.lashes ? late : shut }
    const same = lids.findIndex(
      one => one.first === now.first && one.second === now.second && one.lashes === now.lashes,
    )
    const drawing = same >= 0 ? same : lids.length
    if (same < 0) {
      lids.push(now)
      const name = shut === 0 && i === 0 ? 'open' : shut === 1 && now.second === 1 ? 'shut' : null
      drawings.push({ frame: at, role: name === null ? 'inbetween' : 'key', name })
    }
    const last = exposures[exposures.length - 1]
    if (last?.drawing === drawing) exposures[exposures.length - 1] = { drawing, frames: last.frames + frames }
    else exposures.push({ drawing, frames })
    at += frames
  })
  const shared = all.length - drawings.length
  return {
    ...PLAIN_PLAN,
    numbers,
    frames: at,
    drawings,
    exposures,
    marks: ['upper lid', 'lower lid'],
    told: shared > 1 ? [`${drawings.length} drawings are shown ${exposures.length} times`] : [],
    lids,
  }
}
