import { presetWish, alongTicks, alongWish, isUsableWish, type Wish } from '../chart/wish.ts'
import { MOST_TICKS } from '../chart/halves.ts'
import { after, rotation, translation, type Matrix } from '../geometry/matrix.ts'
import { FARTHEST_PX } from '../geometry/samples.ts'
import type { Point } from '../geometry/point.ts'
import { LONGEST_SHOT_FRAMES } from '../time/length.ts'
import type { LoopRange } from '../time/loop.ts'

/** How a layer lies: moved by x and y (paper pixels, y downwards) and turned (radians, clockwise as seen) about a pivot. */
export interface Placing extends Point {
  readonly turnRad: number
}

/** A place of a layer on a frame, and how the way from there to the next one is spaced. */
export interface PathKey extends Placing {
  /** from 0 */
  readonly frame: number
  readonly wish: Wish
  /** the places between lie where drawings of a chart would, by halves, as long as there are no more than a chart holds */
  readonly halves: boolean
}

/**
 * moves: a held part that travels, a background that passes, a slow camera. ground: the same, and what is planted on other layers
 * stands on it. pin: the way of a figure that is drawn on the spot; it is added for looking, and taken out when sent off.
 */
export const PATH_USES = ['moves', 'ground', 'pin'] as const
export type PathUse = (typeof PATH_USES)[number]

/** How a layer moves as a whole through a take, with no drawing made for it. */
export interface LayerPath {
  /** in the order of frames, at least one; before the first it lies as on the first */
  readonly keys: readonly PathKey[]
  /** pixels a frame at which it goes on behind its last key; 0, 0 stays */
  readonly speed: Point
  /** what it turns about, in pixels of its drawings */
  readonly pivot: Point
  /** places are rounded to whole pixels, ties up; the speed never is */
  readonly whole: boolean
  /** frames that every place is kept, counted from the key before */
  readonly on: number
  /** width in pixels after which what is drawn is laid down again, to both sides, without end; null lays it down once */
  readonly closes: number | null
  readonly use: PathUse
}

/** Bounds of a path. A strip that is laid down again is no narrower than `leastStripPx`. */
export const PATH_LIMITS = { keys: 2000, px: 100_000, turnRad: 1000, on: 200, leastStripPx: 64 } as const

/** A place on a frame from which it goes on evenly. */
export const evenKey = (frame: number, x = 0, y = 0, turnRad = 0): PathKey => ({
  frame,
  x,
  y,
  turnRad,
  wish: presetWish('even'),
  halves: false,
})

/** A path that rests where it was drawn, from frame 0 on; about the middle of a picture of that size. */
export const restingPath = (width: number, height: number): LayerPath => ({
  keys: [evenKey(0, 0, 0)],
  speed: { x: 0, y: 0 },
  pivot: { x: width / 2, y: height / 2 },
  whole: false,
  on: 1,
  closes: null,
  use: 'moves',
})

/** What is wrong with a path that may come from anywhere, in words that name the number; null when it can be used. */
export function refusePath({ keys, speed, pivot, whole, on, closes, use }: LayerPath): string | null {
  if (keys.length < 1 || keys.length > PATH_LIMITS.keys) return 'number of places'
  for (const [i, key] of keys.entries()) {
    const before = keys[i - 1]?.frame ?? -1
    if (!Number.isInteger(key.frame) || key.frame <= before || key.frame > LONGEST_SHOT_FRAMES)
      return 'frame of a place'
    if (!(Math.abs(key.x) <= PATH_LIMITS.px && Math.abs(key.y) <= PATH_LIMITS.px)) return 'place'
    if (!(Math.abs(key.turnRad) <= PATH_LIMITS.turnRad)) return 'turn'
    if (!isUsableWish(key.wish) || typeof key.halves !== 'boolean') return 'spacing'
  }
  if (!(Math.abs(speed.x) <= FARTHEST_PX && Math.abs(speed.y) <= FARTHEST_PX)) return 'speed'
  if (!(Math.abs(pivot.x) <= FARTHEST_PX && Math.abs(pivot.y) <= FARTHEST_PX)) return 'pivot'
  if (typeof whole !== 'boolean') return 'whole pixels'
  if (!Number.isInteger(on) || on < 1 || on > PATH_LIMITS.on) return 'frames of a place'
  if (closes !== null && !(closes >= PATH_LIMITS.leastStripPx && closes <= PATH_LIMITS.px)) return 'width of the strip'
  return PATH_USES.includes(use) ? null : 'use'
}

/**
 * Where a layer lies on a frame (from 0). Between two keys it goes by the spacing of the earlier one, behind the last one at the
 * path's speed; every place is kept for `on` frames, and at a key it is at that key.
 */
export function placeOn(path: LayerPath, frame: number): Placing {
  const at = free(path, frame)
  return path.whole ? { ...at, x: roundedUp(at.x), y: roundedUp(at.y) } : at
}

function free({ keys, speed, on }: LayerPath, frame: number): Placing {
  const next = keys.findIndex(key => key.frame > frame)
  const from = keys[next < 0 ? keys.length - 1 : Math.max(0, next - 1)] as PathKey
  const since = Math.floor(Math.max(0, frame - from.frame) / on) * on
  const to = next <= 0 ? null : keys[next]
  if (!to) return { x: from.x + speed.x * since, y: from.y + speed.y * since, turnRad: from.turnRad }
  const share = shareOn(from, since, to.frame - from.frame, on)
  const between = (a: number, b: number) => a + (b - a) * share
  return { x: between(from.x, to.x), y: between(from.y, to.y), turnRad: between(from.turnRad, to.turnRad) }
}

/** How many places there are between two that are `frames` apart when each is kept for `on`. */
export const placesBetween = (frames: number, on: number): number => Math.ceil(frames / on) - 1

/** Whether the places between two can lie by halves: there are some, and no more than a chart holds. */
export const canLieByHalves = (frames: number, on: number): boolean => {
  const count = placesBetween(frames, on)
  return count > 0 && count <= MOST_TICKS
}

/** The share of the way from a place to the next, `since` frames (a whole number of `on`) after it, of `frames`. */
function shareOn({ wish, halves }: PathKey, since: number, frames: number, on: number): number {
  if (!halves || !canLieByHalves(frames, on)) return alongWish(wish, since / frames)
  const steps = alongTicks(wish, placesBetween(frames, on))
  return steps[since / on] ?? alongWish(wish, since / frames)
}

/** The shares of the way (0–1, past 1 in an overshoot) at which a layer lies between two places, in the order of time. */
export const sharesBetween = (key: PathKey, frames: number, on: number): number[] =>
  Array.from({ length: placesBetween(frames, on) }, (_, i) => shareOn(key, (i + 1) * on, frames, on))

/** To whole pixels, ties up: towards the greater number. */
const roundedUp = (px: number): number => Math.floor(px + 0.5)

/** The map from pixels of a layer's drawings to pixels of the picture on a frame (from 0). */
export function matrixOn(path: LayerPath, frame: number): Matrix {
  const { x, y, turnRad } = placeOn(path, frame)
  return turnRad === 0 ? translation(x, y) : after(rotation(turnRad, path.pivot), translation(x, y))
}

/**
 * The maps by which a drawing is laid down on a frame (from 0) of a picture `width` pixels wide: one; or for a strip that
 * closes one for every time it reaches into the picture. `left` and `right` bound what is drawn, in pixels of the layer.
 */
export function layingsOn(path: LayerPath, frame: number, width: number, left: number, right: number): Matrix[] {
  const once = matrixOn(path, frame)
  const { closes } = path
  if (closes === null || !(right > left)) return [once]
  const [, , , , dx] = once
  // A turned strip may reach in from farther off.
  const slack = path.keys.some(key => key.turnRad !== 0) ? width : 0
  const first = Math.floor((-slack - right - dx) / closes) + 1
  const last = Math.ceil((width + slack - left - dx) / closes) - 1
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) =>
    after(translation((first + i) * closes, 0), once),
  )
}

/**
 * How far what is seen jumps, in pixels, where a loop (frames from 0, `to` left out) begins again: from where the layer would lie
 * next to where it lies. A strip that has gone on by whole widths does not jump.
 */
export function seamPx(path: LayerPath, loop: LoopRange): number {
  const [ahead, again] = [placeOn(path, loop.to), placeOn(path, loop.from)]
  const dx = ahead.x - again.x
  const over = path.closes === null ? dx : dx - Math.round(dx / path.closes) * path.closes
  return Math.hypot(over, ahead.y - again.y)
}

/** Whether a layer lies where it was drawn on every frame. */
export const isResting = ({ keys, speed, closes }: LayerPath): boolean =>
  closes === null &&
  speed.x === 0 &&
  speed.y === 0 &&
  keys.every(({ x, y, turnRad }) => x === 0 && y === 0 && turnRad === 0)

/** What becomes of a path when `count` frames are put in before frame `at`: places from there on come so much later. */
export const pathAfterInsert = (path: LayerPath, at: number, count: number): LayerPath =>
  path.keys.every(key => key.frame < at) ? path : { ...path, keys: shifted(path.keys, at, count) }

const shifted = (keys: readonly PathKey[], at: number, count: number): PathKey[] =>
  keys.map(key => (key.frame >= at ? { ...key, frame: key.frame + count } : key))

/** What becomes of a path when frames [from, to) are taken out: of places that fall together the latest stays. */
export function pathAfterRemove(path: LayerPath, from: number, to: number): LayerPath {
  if (path.keys.every(key => key.frame < from)) return path
  const moved = path.keys.map(key => {
    const frame = key.frame < from ? key.frame : Math.max(from, key.frame - (to - from))
    return { ...key, frame }
  })
  return { ...path, keys: moved.filter((key, i) => key.frame !== moved[i + 1]?.frame) }
}

/** A path with a place on a frame (from 0) put in, or put in the stead of the one that is there. A new one keeps the spacing it lies in. */
export function withKey(path: LayerPath, frame: number, place: Partial<Placing>): LayerPath {
  const there = path.keys.find(key => key.frame === frame)
  const before = path.keys.filter(key => key.frame < frame).at(-1) ?? (path.keys[0] as PathKey)
  const key: PathKey = { ...(there ?? { ...before, ...free(path, frame) }), ...place, frame }
  const keys = [...path.keys.filter(one => one.frame !== frame), key].sort((a, b) => a.frame - b.frame)
  return { ...path, keys }
}

/** A path without its place on a frame; null when it was the only one. */
export function withoutKey(path: LayerPath, frame: number): LayerPath | null {
  const keys = path.keys.filter(key => key.frame !== frame)
  return keys.length > 0 ? { ...path, keys } : null
}

/** A path whose layer was enlarged by `factor` about (0, 0) and then moved by `dx`, `dy` pixels, as far as the bounds of paths let it. */
export const movedPath = (path: LayerPath, factor: number, dx = 0, dy = 0): LayerPath => ({
  ...path,
  keys: path.keys.map(key => ({ ...key, ...enlarged(key, factor) })),
  speed: enlarged(path.speed, factor),
  pivot: { x: within(path.pivot.x * factor + dx), y: within(path.pivot.y * factor + dy) },
  closes: path.closes === null ? null : Math.max(PATH_LIMITS.leastStripPx, within(path.closes * factor)),
})

const within = (px: number): number => Math.max(-PATH_LIMITS.px, Math.min(PATH_LIMITS.px, px))
const enlarged = ({ x, y }: Point, factor: number): Point => ({ x: within(x * factor), y: within(y * factor) })

/** A path in `ratio` times as many frames: places on the frame nearest to their moment, and as fast in a second as before. */
export function retimedPath(path: LayerPath, ratio: number): LayerPath {
  const keys = path.keys.map(key => ({ ...key, frame: Math.floor(key.frame * ratio + 0.5) }))
  return {
    ...path,
    keys: keys.filter((key, i) => key.frame !== keys[i + 1]?.frame),
    speed: enlarged(path.speed, 1 / ratio),
    on: Math.max(1, Math.min(PATH_LIMITS.on, Math.floor(path.on * ratio + 0.5))),
  }
}

/** That a picture goes by so quickly that it may judder, in a sentence; null where it does not, or stays. `under` is in seconds. */
export function judderOf(path: LayerPath, width: number, fps: number, under: number): string | null {
  const across = crossingSeconds(path, width, fps)
  if (across === null || across >= under) return null
  const seconds = Math.round(across * 10) / 10
  return `the picture goes by in ${seconds} s, under ${under} s: it may judder at ${fps} frames a second`
}

/** Seconds in which a picture of that width goes by at a path's last speed; null where it stays. */
export const crossingSeconds = ({ speed }: LayerPath, width: number, fps: number): number | null =>
  speed.x === 0 ? null : width / Math.abs(speed.x) / fps
