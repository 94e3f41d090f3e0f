import { fullestBlock, type Block } from './block.ts'
import type { Cells, FlashGrid } from './cells.ts'
import { hueSwings, lightSwings, redSwings, type Direction, type Swings } from './swings.ts'

/** general: lighter and darker. red: a saturated red comes and goes. */
export const FLASH_KINDS = ['general', 'red'] as const
export type FlashKind = (typeof FLASH_KINDS)[number]

/** Opposite changes that follow one another within a second: so many are more than three flashes; one fewer is close to it. */
export const FLASHING_CHANGES = 8
export const NEARLY_FLASHING = FLASHING_CHANGES - 1

/** A stretch of a film in which it flashes, or nearly does. */
export interface Flashing {
  readonly kind: FlashKind
  /** frames: the first change, and the last (both with) */
  readonly first: number
  readonly last: number
  /** the most opposite changes within any second of it */
  readonly changes: number
  /** where, in cells of the grid, and how many cells of it change together */
  readonly block: Block
}

/** What was found in a film. */
export interface FlashReport {
  readonly flashing: readonly Flashing[]
  /** the largest share of a block (0–1) that becomes lighter, or darker, on each frame */
  readonly shares: readonly number[]
}

/** Changes of one direction that many cells of one block make at once. */
interface Change {
  readonly frame: number
  readonly direction: Direction
  readonly cells: Uint8Array
}

/** Cells by the frame on which they complete a transition of a direction. */
type Completions = ReadonlyMap<number, Uint8Array>

/**
 * Follows the light of a film over its frames. Held frames need not be told again: `add` says from which frame on a picture is seen, rising. `end` says how many frames there
 * were, and answers what flashes. `fps`: frames a second.
 */
export function flashMeter(grid: FlashGrid, fps: number) {
  const count = grid.across * grid.down
  const books = { general: bookOf(count), red: bookOf(count) }
  const all: Swings[] = [
    lightSwings(count, books.general.note),
    redSwings(count, books.red.note),
    hueSwings(count, books.red.note),
  ]
  return {
    add: (cells: Cells, frame: number) => all.forEach(one => one.add(cells, frame)),
    end(frames: number): FlashReport {
      all.forEach(one => one.end())
      return {
        flashing: FLASH_KINDS.flatMap(kind =>
          flashingOf(kind, changesOf(books[kind].lighter, books[kind].darker, grid), grid, fps),
        ),
        shares: Array.from({ length: frames }, (_, frame) => {
          const { lighter, darker } = books.general
          const most = Math.max(...[lighter, darker].map(book => cellsOn(book, frame, grid)))
          return most / (4 * grid.enough)
        }),
      }
    },
  }
}

/** A book of completed transitions, both ways. */
function bookOf(count: number) {
  const [lighter, darker] = [new Map<number, Uint8Array>(), new Map<number, Uint8Array>()]
  return {
    lighter: lighter as Completions,
    darker: darker as Completions,
    note(cell: number, direction: Direction, frame: number): void {
      const book = direction > 0 ? lighter : darker
      const cells = book.get(frame) ?? new Uint8Array(count)
      if (!book.has(frame)) book.set(frame, cells)
      cells[cell] = 1
    },
  }
}

function cellsOn(book: Completions, frame: number, grid: FlashGrid): number {
  const cells = book.get(frame)
  return cells ? fullestBlock(cells, grid).cells : 0
}

/** Changes in the order of time. What is complete on a frame or the next belongs together, unless that of the next is enough by itself. */
function changesOf(lighter: Completions, darker: Completions, grid: FlashGrid): Change[] {
  const found: Change[] = []
  for (const [direction, book] of [
    [1, lighter],
    [-1, darker],
  ] as const) {
    for (const [frame, now] of book) {
      const next = book.get(frame + 1)
      const alone = isEnough(now, grid)
      if (!alone && (!next || isEnough(next, grid))) continue
      const cells = next ? now.map((cell, i) => cell | (next[i] as number)) : now
      if (alone || isEnough(cells, grid)) found.push({ frame, direction, cells })
    }
  }
  return found.sort((a, b) => a.frame - b.frame || a.direction - b.direction)
}

const isEnough = (cells: Uint8Array, grid: FlashGrid): boolean =>
  sum(cells) > grid.enough && fullestBlock(cells, grid).cells > grid.enough

function sum(cells: Uint8Array): number {
  let all = 0
  for (const cell of cells) all += cell
  return all
}

/** The block in which two changes share the most cells, if it is enough of them. */
function shared(one: Change, other: Change, grid: FlashGrid): Block | null {
  const both = one.cells.map((cell, i) => cell & (other.cells[i] as number))
  if (sum(both) <= grid.enough) return null
  const block = fullestBlock(both, grid)
  return block.cells > grid.enough ? block : null
}

/** A row of changes, each opposite to the last and sharing enough of a block with it. */
interface Row {
  readonly first: number
  readonly block: Block
}

/**
 * Stretches with many opposite changes within a second. Of every change the rows that end with it are known by their length: of each length the one that began last.
 */
function flashingOf(kind: FlashKind, changes: readonly Change[], grid: FlashGrid, fps: number): Flashing[] {
  const rows: (Row | undefined)[][] = []
  const found: Flashing[] = []
  for (const [i, change] of changes.entries()) {
    const own: (Row | undefined)[] = [undefined, { first: change.frame, block: { left: 0, top: 0, cells: 0 } }]
    for (let j = i - 1; j >= 0; j--) {
      const before = changes[j] as Change
      if (change.frame - before.frame >= fps) break
      if (before.frame === change.frame || before.direction === change.direction) continue
      const block = shared(before, change, grid)
      if (!block) continue
      for (const [length, row] of (rows[j] as (Row | undefined)[]).entries()) {
        const isLater = row && row.first > (own[length + 1]?.first ?? -1)
        if (isLater && change.frame - row.first < fps) own[length + 1] = { first: row.first, block }
      }
    }
    rows.push(own)
    const most = own.length - 1
    const row = own[most]
    if (row && most >= NEARLY_FLASHING)
      found.push({ kind, first: row.first, last: change.frame, changes: most, block: row.block })
  }
  return stretches(found)
}

/** Neighbouring finds as one stretch, as grave as its gravest. */
function stretches(found: readonly Flashing[]): Flashing[] {
  const joined: Flashing[] = []
  for (const one of [...found].sort((a, b) => a.first - b.first || a.last - b.last)) {
    const before = joined[joined.length - 1]
    if (!before || one.first > before.last) joined.push(one)
    else {
      const graver = one.changes > before.changes ? one : before
      joined[joined.length - 1] = { ...graver, first: before.first, last: Math.max(before.last, one.last) }
    }
  }
  return joined
}

/** How many frames of a loop are gone through before it is judged: whole turns, at least two seconds, and at least one beyond the first turn. */
export const framesToJudge = (loopFrames: number, fps: number): number =>
  Math.ceil(Math.max(2 * fps, loopFrames + fps) / loopFrames) * loopFrames
