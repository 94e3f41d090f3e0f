import type { Point } from '../../geometry/point.ts'
import { evenKey, type LayerPath } from '../../path/path.ts'
import { halfHeightOf } from '../bounce/body.ts'
import { namedDrawings, PLAIN_PLAN, softly, wholeSteps } from '../plain.ts'
import { drawingOf, oneByOne, shownOn, snap, type Plan, type Recipe } from '../recipe.ts'
import { flightFrames, hopDefaults, refuseHop, type HopNumbers } from './numbers.ts'

/** A hop worked out: the frames of its drawings, in whole exposures from its start. */
export interface HopPlan extends Plan<HopNumbers> {
  /** px a frame, a frame, as it had to be so that the contact is on an exposure */
  readonly gravity: number
  readonly crouched: number
  readonly leaves: number
  readonly lands: number
  readonly pressed: number
  readonly rests: number
  /** frames in the air without the hang, and those up to the top */
  readonly flight: number
  readonly up: number
}

/** A figure on a drawing: half axes, the first turned by `tiltRad` from the horizontal, and its foot or feet. */
export interface HopBody {
  readonly centre: Point
  readonly along: number
  readonly across: number
  readonly tiltRad: number
  readonly foot: Point
  readonly stands: boolean
  /** how far the way up is that was taken out, px */
  readonly taken: number
}

/**
 * A hop or a jump: crouched, leaving stretched, over the top, falling, in contact, pressed and settled. One gravity up and down,
 * such that the flight takes whole exposures: g = (√(2H) + √(2D))²/T² for a rise H, a drop D and T frames. The area is kept.
 */
export const hop: Recipe<HopNumbers, HopPlan> = {
  through: ['body'],
  measures: {
    across: ['x'],
    down: ['ground'],
    lengths: ['height', 'width', 'rise', 'drop', 'forward', 'gravity', 'spread'],
  },
  defaults: hopDefaults,
  refuse: refuseHop,
  plan: planHop,
  figure(plan, frame, sink) {
    const { numbers } = plan
    const at = drawingOf(plan, shownOn(plan, frame)).frame
    const body = hopOn(plan, at)
    const half = numbers.width
    // Drawn on the spot, the layer takes the figure up: what stays behind lies as far below.
    const stays = (x: number, y: number): Point => ({ x, y: y + body.taken })
    const ends = [
      [numbers.x, numbers.ground],
      [numbers.x + numbers.forward, groundAfter(numbers)],
    ] as const
    for (const [x, y] of ends) sink.line('ground', stays(x - half, y), stays(x + half, y))
    const way = plan.drawings.filter(one => one.frame >= plan.leaves && one.frame <= plan.lands)
    sink.path(
      'way',
      way.map(one => {
        const { centre, taken } = hopOn(plan, one.frame)
        return stays(centre.x, centre.y - taken)
      }),
      'aid',
    )
    sink.ellipse('body', body.centre, body.along, body.across, body.tiltRad)
    sink.line('foot', { x: body.foot.x - half / 4, y: body.foot.y }, { x: body.foot.x + half / 4, y: body.foot.y })
    if (body.taken > 0) sink.arrow('rise', stays(body.foot.x, body.foot.y), body.foot)
  },
  expect(plan, drawing) {
    const { centre, along, across, tiltRad, foot, stands } = hopOn(plan, drawingOf(plan, drawing).frame)
    const marks = { centre, foot: { ...foot, ...(stands && { planted: true as const }) } }
    return { marks, body: { area: Math.PI * along * across, axes: [along, across], tiltRad } }
  },
}

/** Height of the ground it lands on. */
const groundAfter = ({ ground, rise, drop }: HopNumbers): number => ground - rise + drop

function planHop(numbers: HopNumbers): HopPlan {
  const { exposure: n, hang } = numbers
  const wished = flightFrames(numbers)
  const flight = wholeSteps(wished, n, 4 * n)
  const gravity = (Math.sqrt(2 * numbers.rise) + Math.sqrt(2 * numbers.drop)) ** 2 / flight ** 2
  const up = Math.sqrt((2 * numbers.rise) / gravity)
  const crouched = wholeSteps(numbers.crouchFrames, n)
  const leaves = crouched + wholeSteps(numbers.pushFrames, n)
  const lands = leaves + flight + hang * n
  const pressed = lands + wholeSteps(numbers.cushionFrames, n)
  const rests = pressed + wholeSteps(numbers.settleFrames, n)
  const frames = rests + n
  const top = Math.min(lands - n, leaves + wholeSteps(up, n))
  const names = new Map<number, string>([
    [top / n, 'top'],
    [0, 'stands'],
    [crouched / n, 'crouched'],
    [leaves / n, 'leaves'],
    [lands / n, 'contact'],
    [pressed / n, 'pressed'],
    [rests / n, 'rests'],
  ])
  const drawings = namedDrawings(frames / n, n, names, ['top'])
  const inAir = drawings.filter(({ frame }) => frame > leaves && frame < lands).map(({ frame }) => frame - leaves)
  const plan: HopPlan = {
    ...PLAIN_PLAN,
    numbers,
    frames,
    drawings,
    exposures: oneByOne(drawings.length, n),
    beats: [
      { frame: leaves, name: 'leaves' },
      { frame: lands, name: 'contact' },
    ],
    marks: ['centre', 'foot'],
    snapped: [snap('gravity', numbers.gravity, gravity), snap('frames in the air', wished, flight)],
    told: [
      ...(inAir.some(t => t < up) ? [] : ['the rise has no drawing between leaving the ground and the top']),
      ...(inAir.some(t => t > up + hang * n) ? [] : ['the fall has no drawing between the top and the contact']),
      ...(numbers.cushion <= numbers.crouch ? ['after the contact it is not pressed lower than it crouched'] : []),
    ],
    gravity,
    crouched,
    leaves,
    lands,
    pressed,
    rests,
    flight,
    up,
  }
  return numbers.pinned ? { ...plan, path: pinOf(plan) } : plan
}

/** The way up and down that was taken out of a hop on the spot: added for looking only. Drawings that lie alike in a row need no place between. */
function pinOf(plan: HopPlan): LayerPath {
  const { x, ground, exposure } = plan.numbers
  const risen = plan.drawings.map(({ frame }) => ({ frame, y: -hopOn(plan, frame).taken || 0 }))
  const turns = risen.filter(({ y }, i) => y !== risen[i - 1]?.y || y !== risen[i + 1]?.y)
  return {
    keys: turns.map(({ frame, y }) => evenKey(frame, 0, y)),
    speed: { x: 0, y: 0 },
    pivot: { x, y: ground },
    whole: false,
    on: exposure,
    closes: null,
    use: 'pin',
  }
}

/** Frames of the flight that have gone by at a frame: the clock stands at the top while it hangs. */
export function flown({ leaves, up, numbers }: HopPlan, frame: number): number {
  const t = frame - leaves
  const hang = numbers.hang * numbers.exposure
  return t < up ? t : Math.max(up, t - hang)
}

/** The figure on a frame of a plan. */
export function hopOn(plan: HopPlan, frame: number): HopBody {
  const { numbers, gravity, up, flight, leaves, lands } = plan
  const { height, width, ground, x, forward, rise, pinned, feet, spread } = numbers
  const after = feet === 'changed' ? spread : 0
  if (frame <= leaves || frame >= lands) {
    const s = heightOnGround(plan, frame)
    const left = frame <= leaves
    const foot = { x: left ? x : x + forward + after, y: left ? ground : groundAfter(numbers) }
    const taken = pinned && !left ? ground - foot.y : 0
    const along = (height / 2) * s
    const y = foot.y + taken
    return {
      centre: { x: left ? x : x + forward + after * weightOver(plan, frame), y: y - along },
      along,
      across: width / 2 / s,
      tiltRad: Math.PI / 2,
      foot: { ...foot, y },
      stands: true,
      taken,
    }
  }
  const t = flown(plan, frame)
  const high = rise - (gravity * (t - up) ** 2) / 2
  const speed = gravity * (t - up)
  const across = forward / flight
  const way = Math.atan2(speed, across)
  const fast = Math.min(1, Math.abs(speed) / (gravity * up))
  const s = 1 + numbers.stretch * fast
  const taken = pinned ? high : 0
  // It leans into its way as fast as it goes, and is upright at the top.
  const lean = Math.PI / 2 + (speed === 0 ? 0 : normal(way - Math.PI / 2)) * fast * 0.5
  const shape = { along: (height / 2) * s, across: width / 2 / s, tiltRad: lean }
  const foot = { x: x + across * t + after * weightOver(plan, frame), y: ground - high + taken }
  return { ...shape, centre: { x: foot.x, y: foot.y - halfHeightOf(shape) }, foot, stands: false, taken }
}

/** A direction without a front: between a quarter turn to either side. */
const normal = (rad: number): number => rad - Math.PI * Math.round(rad / Math.PI)

/** How far the weight is over the other foot: all of it by the contact, in the last third of the fall. */
function weightOver({ up, flight, leaves, lands, ...plan }: HopPlan, frame: number): number {
  if (frame >= lands) return 1
  if (frame <= leaves) return 0
  const t = flown({ up, flight, leaves, lands, ...plan }, frame)
  const third = (flight - up) / 3
  return third > 0 ? softly((t - (flight - third)) / third) : 0
}

/** How high it is on the ground against standing: crouched, stretched as it leaves, stretched as it lands, pressed, settled. */
function heightOnGround(
  { numbers, crouched, leaves, lands, pressed, rests, gravity, up, flight }: HopPlan,
  frame: number,
): number {
  const { crouch, cushion, stretch } = numbers
  const between = (a: number, b: number, from: number, to: number) => a + (b - a) * softly((frame - from) / (to - from))
  if (frame <= crouched) return between(1, 1 - crouch, 0, crouched)
  // The push gets faster until it leaves the ground.
  if (frame <= leaves) return 1 - crouch + (crouch + stretch) * ((frame - crouched) / (leaves - crouched)) ** 2
  const landing = 1 + stretch * Math.min(1, (gravity * (flight - up)) / (gravity * up))
  if (frame <= pressed) {
    const u = (frame - lands) / (pressed - lands)
    return landing + (1 - cushion - landing) * (1 - (1 - u) ** 2)
  }
  return between(1 - cushion, 1, pressed, rests)
}
