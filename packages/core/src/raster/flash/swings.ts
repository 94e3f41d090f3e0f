import type { Cells } from './cells.ts'

/** Lighter (or redder) is 1, darker (or less red) is −1. */
export type Direction = 1 | -1
/** Hears of every transition that is complete: its cell, its way, and the first frame of the state that it leads to. */
export type Completed = (cell: number, direction: Direction, frame: number) => void

/** Something that follows all cells of a film over its frames. */
export interface Swings {
  /** the light of one more frame (counted from 0) */
  add(cells: Cells, frame: number): void
  /** no more frames come: what swings last is complete */
  end(): void
}

/** All the light there is, as cells have it. */
const FULL = 65_535
const isSame = (cells: Cells, before: Cells, i: number): boolean =>
  cells[i] === before[i] && cells[i + 1] === before[i + 1] && cells[i + 2] === before[i + 2]

/** A number that is followed in every cell, and what counts as a swing of it. */
interface Followed {
  /** what is followed, of linear red, green and blue, 0–1 each */
  value(r: number, g: number, b: number): number
  /** whether so large a change is one; smaller ones belong to the swing that they interrupt */
  isChange(amount: number): boolean
  /** a property of a state that is asked of transitions */
  isOf?(r: number, g: number, b: number): boolean
  /** whether a change from one state to another is a transition; each is told by its number and whether it has the property */
  counts(from: number, to: number, fromIs: boolean, toIs: boolean): boolean
}

/**
 * Follows a number in every cell from extremum to extremum, over however many frames each change takes. A transition is told once the next one sets out (or at the
 * end), on the first frame on which its extremum was reached.
 */
export function swings(count: number, { value, isChange, isOf, counts }: Followed, told: Completed): Swings {
  const ways = new Int8Array(count)
  const [from, to] = [new Float64Array(count), new Float64Array(count)]
  const [fromIs, toIs] = [new Uint8Array(count), new Uint8Array(count)]
  /** first frames of both extrema */
  const [fromAt, toAt] = [new Int32Array(count), new Int32Array(count)]
  let last: Cells | null = null

  const complete = (cell: number) => {
    if (counts(from[cell] as number, to[cell] as number, fromIs[cell] === 1, toIs[cell] === 1)) {
      told(cell, ways[cell] as Direction, toAt[cell] as number)
    }
  }
  function extremum(cell: number, now: number, is: number, frame: number): void {
    to[cell] = now
    toIs[cell] = is
    toAt[cell] = frame
  }
  /** Until a cell has changed once, its lowest lies in `from` and its highest in `to`. */
  function setOut(cell: number, now: number, is: number, frame: number): void {
    if (now > (to[cell] as number)) extremum(cell, now, is, frame)
    else if (now < (from[cell] as number)) {
      from[cell] = now
      fromIs[cell] = is
      fromAt[cell] = frame
    }
    if (!isChange((to[cell] as number) - (from[cell] as number))) return
    ways[cell] = 1
    if ((toAt[cell] as number) > (fromAt[cell] as number)) return
    // It went down: what was highest is where it came from.
    const [high, highIs] = [to[cell] as number, toIs[cell] as number]
    ways[cell] = -1
    extremum(cell, from[cell] as number, fromIs[cell] as number, fromAt[cell] as number)
    from[cell] = high
    fromIs[cell] = highIs
  }

  return {
    add(cells, frame) {
      const before = last
      for (let cell = 0, i = 0; cell < count; cell++, i += 3) {
        // What stays as it was is at no new extremum.
        if (before && isSame(cells, before, i)) continue
        const r = (cells[i] as number) / FULL
        const g = (cells[i + 1] as number) / FULL
        const b = (cells[i + 2] as number) / FULL
        const now = value(r, g, b)
        const is = isOf?.(r, g, b) ? 1 : 0
        const way = ways[cell] as number
        if (!before) {
          from[cell] = to[cell] = now
          fromIs[cell] = toIs[cell] = is
          fromAt[cell] = toAt[cell] = frame
        } else if (way === 0) setOut(cell, now, is, frame)
        else {
          const past = way * (now - (to[cell] as number))
          if (past > 0) extremum(cell, now, is, frame)
          else if (isChange(-past)) {
            complete(cell)
            from[cell] = to[cell] as number
            fromIs[cell] = toIs[cell] as number
            ways[cell] = -way
            extremum(cell, now, is, frame)
          }
        }
      }
      last = cells
    },
    end() {
      for (let cell = 0; cell < count; cell++) if (ways[cell] !== 0) complete(cell)
    },
  }
}

/** Change of relative luminance that counts, as a share of the greatest there is; the darker state is below so much. */
const LIGHT_CHANGE = 0.1
const DARKER_BELOW = 0.8
/** Numbers that were rounded are still as large as they were. */
const ROUNDED = 1e-5

/** General flashes: relative luminance (WCAG 2.2, "general flash and red flash thresholds"; ITU-R BT.709 weights). */
export const lightSwings = (count: number, told: Completed): Swings =>
  swings(
    count,
    {
      value: (r, g, b) => 0.2126 * r + 0.7152 * g + 0.0722 * b,
      isChange: amount => amount >= LIGHT_CHANGE - ROUNDED,
      counts: (from, to) => Math.min(from, to) < DARKER_BELOW - ROUNDED,
    },
    told,
  )

/** A state is of a saturated red when so much of its light is. */
const RED_SHARE = 0.8
/** Change of (R − G − B) · 320 that counts. */
const RED_CHANGE = 20
const isRed = (r: number, g: number, b: number): boolean => r > 0 && r >= (RED_SHARE - ROUNDED) * (r + g + b)

/** Red flashes by how much red outweighs the rest. */
export const redSwings = (count: number, told: Completed): Swings =>
  swings(
    count,
    {
      value: (r, g, b) => Math.max(0, r - g - b) * 320,
      isChange: amount => amount > RED_CHANGE,
      isOf: isRed,
      counts: (_from, _to, fromIs, toIs) => fromIs || toIs,
    },
    told,
  )

/** Change of chromaticity that counts (CIE 1976 UCS), and what has less light than this has none. */
const HUE_CHANGE = 0.2
const LEAST_LIGHT = 0.01
/** The red of the screen, u′ and v′. */
const SCREEN_RED = [0.4507, 0.5229] as const
const apart = (u: number, v: number, u2: number, v2: number): number => Math.sqrt((u - u2) ** 2 + (v - v2) ** 2)
const UNKNOWN = 0
const RED = 1
const AWAY = -1

/**
 * Red flashes by chromaticity: a saturated red, and a state that lies more than 0.2 from it (WCAG 2.2). Black has no chromaticity and is passed over. Of each state the one
 * that lies nearest to the red of the screen, or farthest from it, is held against the next.
 */
export function hueSwings(count: number, told: Completed): Swings {
  const states = new Int8Array(count)
  /** whether the state was come to from another */
  const isCome = new Uint8Array(count)
  const [us, vs, offs] = [new Float64Array(count), new Float64Array(count), new Float64Array(count)]
  const at = new Int32Array(count)
  let last: Cells | null = null
  const complete = (cell: number) => {
    if (isCome[cell]) told(cell, states[cell] as Direction, at[cell] as number)
  }
  function hold(cell: number, u: number, v: number, off: number, frame: number): void {
    us[cell] = u
    vs[cell] = v
    offs[cell] = off
    at[cell] = frame
  }
  return {
    add(cells, frame) {
      const before = last
      last = cells
      for (let cell = 0, i = 0; cell < count; cell++, i += 3) {
        if (before && isSame(cells, before, i)) continue
        const r = (cells[i] as number) / FULL
        const g = (cells[i + 1] as number) / FULL
        const b = (cells[i + 2] as number) / FULL
        if (r + g + b < LEAST_LIGHT) continue
        // sRGB to CIE XYZ (IEC 61966-2-1), then u′ = 4X / (X + 15Y + 3Z), v′ = 9Y / (X + 15Y + 3Z).
        const x = 0.4124 * r + 0.3576 * g + 0.1805 * b
        const y = 0.2126 * r + 0.7152 * g + 0.0722 * b
        const all = x + 15 * y + 3 * (0.0193 * r + 0.1192 * g + 0.9505 * b)
        const u = (4 * x) / all
        const v = (9 * y) / all
        const off = apart(u, v, SCREEN_RED[0], SCREEN_RED[1])
        const state = states[cell] as number
        const is = isRed(r, g, b)
        if (state === UNKNOWN) {
          states[cell] = is ? RED : AWAY
          hold(cell, u, v, off, frame)
          continue
        }
        const isFar = apart(u, v, us[cell] as number, vs[cell] as number) > HUE_CHANGE
        if (isFar && (state === RED || is)) {
          complete(cell)
          states[cell] = state === RED ? AWAY : RED
          isCome[cell] = 1
          hold(cell, u, v, off, frame)
        } else if (state === RED ? is && off < (offs[cell] as number) : off > (offs[cell] as number)) {
          hold(cell, u, v, off, frame)
        }
      }
    },
    end() {
      for (let cell = 0; cell < count; cell++) complete(cell)
    },
  }
}
