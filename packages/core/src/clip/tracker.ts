import type { Point } from '../geometry/point.ts'
import { valueAt, type Grey, type Plane } from '../raster/grey.ts'

/** A square of a picture round a place: brightness less its mean, and how strong it is. Side 2·REACH + 1. */
interface Patch {
  readonly data: Float32Array
  /** root of the sum of squares; 0 for a flat square */
  readonly strength: number
}

/** How something looked, with what lies about it, so that it can be looked for turned: brightness in a square of side 2·WIDE + 1. */
interface Look {
  readonly plane: Plane
  /** as it stood */
  readonly patch: Patch
}

/** Something that is followed from picture to picture. */
export interface Tracker {
  /** how it looked where it was last sure of itself, and there it is held against: no drift gathers while that holds */
  readonly sure: Look
  /** how far it has turned since, radians */
  readonly turnedRad: number
  /** how it looked last */
  readonly last: Look
  /** where it is, pixels of the picture, and how far it went with the last picture */
  readonly at: Point
  readonly by: Point
}

/** Where something was found. */
export interface Found {
  readonly tracker: Tracker
  /** how alike it is to what was looked for: the normalised correlation, at most 1 */
  readonly sure: number
}

/** Pixels to each side of a place that are looked at, and those that are kept so that it can be turned. */
const REACH = 9
const WIDE = 14
/** How far from where it is expected it is looked for, as a share of the picture's width, and how much less a place there counts than one near by. */
const FAR_SHARE = 0.12
const FAR_COSTS = 0.06
/** Below this it is lost; as long as it is above the other, it is held against how it looked at the last sure place. */
const LOST = 0.66
const SURE = 0.8
/** What is found as surely as this is not looked for turned; else by so much at a time, and then finer, radians. */
const PLAIN = 0.9
const TURNS = [-0.42, -0.21, 0.21, 0.42]
const FINE_TURN = 0.07
const SIDE = 2 * REACH + 1
const [PLACES, HALF_PLACES] = [SIDE * SIDE, (REACH + 1) ** 2]
/** A square that differs by less than this from pixel to pixel, brightness steps, has nothing to hold on to. */
const LEAST_STRENGTH = 2

const { abs, cos, floor, max, min, round, sin, sqrt } = Math

function patchAt(picture: Plane, { x, y }: Point, turnRad = 0): Patch {
  const data = new Float32Array(PLACES)
  const [c, s] = [cos(turnRad), sin(turnRad)]
  let sum = 0
  for (let i = 0; i < PLACES; i++) {
    const [u, v] = [(i % SIDE) - REACH, floor(i / SIDE) - REACH]
    const value = valueAt(picture, x + u * c - v * s, y + u * s + v * c)
    data[i] = value
    sum += value
  }
  let squares = 0
  for (let i = 0; i < PLACES; i++) {
    const value = (data[i] as number) - sum / PLACES
    data[i] = value
    squares += value * value
  }
  return { data, strength: sqrt(squares) }
}

function lookAt(picture: Plane, { x, y }: Point): Look {
  const side = 2 * WIDE + 1
  const data = new Float32Array(side * side)
  for (let i = 0; i < data.length; i++) {
    data[i] = valueAt(picture, x + (i % side) - WIDE, y + floor(i / side) - WIDE)
  }
  const plane = { width: side, height: side, data }
  return { plane, patch: patchAt(plane, { x: WIDE, y: WIDE }) }
}

/** How it would look turned clockwise as seen. */
const turned = ({ plane, patch }: Look, turnRad: number): Patch =>
  turnRad === 0 ? patch : patchAt(plane, { x: WIDE, y: WIDE }, -turnRad)

/** How alike two squares are, −1 to 1, whatever their brightness and contrast; 0 where one is flat. */
function alike(a: Patch, b: Patch): number {
  if (a.strength === 0 || b.strength === 0) return 0
  let sum = 0
  for (let i = 0; i < PLACES; i++) sum += (a.data[i] as number) * (b.data[i] as number)
  return sum / (a.strength * b.strength)
}

/** Roughly how alike: every second pixel of every second row, at a whole place. */
function roughlyAlike(patch: Patch, { width, height, data }: Grey, x: number, y: number): number {
  let [sum, squares, cross, own, ownSquares] = [0, 0, 0, 0, 0]
  for (let dy = -REACH; dy <= REACH; dy += 2) {
    const py = y + dy
    const row = (py < 0 ? 0 : py >= height ? height - 1 : py) * width
    for (let dx = -REACH; dx <= REACH; dx += 2) {
      const px = x + dx
      const value = data[row + (px < 0 ? 0 : px >= width ? width - 1 : px)] as number
      const wished = patch.data[(dy + REACH) * SIDE + dx + REACH] as number
      sum += value
      squares += value * value
      cross += value * wished
      own += wished
      ownSquares += wished * wished
    }
  }
  const spread = (squares - (sum * sum) / HALF_PLACES) * (ownSquares - (own * own) / HALF_PLACES)
  return spread > 1e-6 ? (cross - (sum * own) / HALF_PLACES) / sqrt(spread) : 0
}

/** The whole place about one where a square is found best: all of it looked through roughly, then once more by every pixel. */
function search(picture: Grey, patch: Patch, about: Point): { readonly at: Point; readonly sure: number } {
  const far = max(6, round(picture.width * FAR_SHARE))
  const [cx, cy] = [round(about.x), round(about.y)]
  let [best, at] = [-Infinity, { x: cx, y: cy }]
  for (let dy = -far; dy <= far; dy += 2) {
    for (let dx = -far; dx <= far; dx += 2) {
      // Of places that look alike the nearer is the likelier.
      const found = roughlyAlike(patch, picture, cx + dx, cy + dy) - (FAR_COSTS * (abs(dx) + abs(dy))) / far
      if (found > best) [best, at] = [found, { x: cx + dx, y: cy + dy }]
    }
  }
  const { x, y } = at
  best = -Infinity
  for (let dy = -2; dy <= 2; dy++) {
    for (let dx = -2; dx <= 2; dx++) {
      const found = alike(patch, patchAt(picture, { x: x + dx, y: y + dy }))
      if (found > best) [best, at] = [found, { x: x + dx, y: y + dy }]
    }
  }
  return { at, sure: best }
}

/**
 * The place between pixels where a square fits best (B. Lucas and T. Kanade, 1981), brightness and contrast let go: steps of Gauss and Newton from a
 * place that is less than two pixels off. Never farther than that.
 */
function settled(picture: Grey, patch: Patch, from: Point): { readonly at: Point; readonly sure: number } {
  let at = from
  let best = { at, sure: alike(patch, patchAt(picture, at)) }
  for (let turn = 0; turn < 12; turn++) {
    const now = patchAt(picture, at)
    if (now.strength === 0 || patch.strength === 0) break
    let [xx, xy, yy, ex, ey] = [0, 0, 0, 0, 0]
    for (let py = 1; py < SIDE - 1; py++) {
      for (let px = 1; px < SIDE - 1; px++) {
        const i = py * SIDE + px
        const gx = ((now.data[i + 1] as number) - (now.data[i - 1] as number)) / (2 * now.strength)
        const gy = ((now.data[i + SIDE] as number) - (now.data[i - SIDE] as number)) / (2 * now.strength)
        const error = (patch.data[i] as number) / patch.strength - (now.data[i] as number) / now.strength
        xx += gx * gx
        xy += gx * gy
        yy += gy * gy
        ex += gx * error
        ey += gy * error
      }
    }
    const room = xx * yy - xy * xy
    if (room < 1e-12) break
    const [dx, dy] = [(yy * ex - xy * ey) / room, (xx * ey - xy * ex) / room]
    at = { x: at.x + max(-1, min(1, dx)), y: at.y + max(-1, min(1, dy)) }
    if (abs(at.x - from.x) > 2 || abs(at.y - from.y) > 2) break
    const sure = alike(patch, patchAt(picture, at))
    if (sure > best.sure) best = { at, sure }
    if (abs(dx) + abs(dy) < 0.01) break
  }
  return best
}

/** Begins to follow what lies at a place of a picture; null where it is flat and there is nothing to hold on to. */
export function trackerOf(picture: Grey, at: Point): Tracker | null {
  const look = lookAt(picture, at)
  if (look.patch.strength / SIDE < LEAST_STRENGTH) return null
  return { sure: look, turnedRad: 0, last: look, at, by: { x: 0, y: 0 } }
}

interface Fit {
  readonly at: Point
  readonly sure: number
  readonly turnRad: number
}
const better = (a: Fit, b: Fit): Fit => (b.sure > a.sure ? b : a)

/** Settled between pixels, as it stands and turned a little either way. */
const settledTurned = (picture: Grey, look: Look, from: Point, turns: readonly number[]): Fit =>
  turns.map(turnRad => ({ ...settled(picture, turned(look, turnRad), from), turnRad })).reduce(better)

const about = (turnRad: number): number[] => [turnRad, turnRad - FINE_TURN, turnRad + FINE_TURN]

/**
 * Where what is followed lies on the next picture, found by normalised correlation about where it stayed and where its way leads, also turned, and settled between
 * pixels against how it looked at the last sure place: what is there again after ten turns lies where it lay (after I. Matthews, T. Ishikawa and S. Baker, “The
 * template update problem”, 2004). Null where nothing is alike enough: it is lost, or behind something.
 */
export function followOn({ sure, turnedRad, last, at, by }: Tracker, picture: Grey): Found | null {
  const places = [at, { x: at.x + by.x, y: at.y + by.y }]
  const rough = (turnRad: number): Fit =>
    places.map(place => ({ ...search(picture, turned(last, turnRad), place), turnRad })).reduce(better)
  let found = rough(0)
  if (found.sure < PLAIN) found = TURNS.map(rough).reduce(better, found)
  if (found.sure < LOST) return null
  const fine = settledTurned(picture, last, found.at, about(found.turnRad))
  const held = settledTurned(picture, sure, fine.at, about(turnedRad + fine.turnRad))
  const isHeld = held.sure >= SURE
  const best = isHeld ? held : fine
  const { x, y } = best.at
  if (best.sure < LOST || x < 0 || y < 0 || x > picture.width - 1 || y > picture.height - 1) return null
  const look = lookAt(picture, best.at)
  const next: Tracker = {
    sure: isHeld ? sure : look,
    turnedRad: isHeld ? held.turnRad : 0,
    last: look,
    at: best.at,
    by: { x: x - at.x, y: y - at.y },
  }
  return { tracker: next, sure: min(1, best.sure) }
}
