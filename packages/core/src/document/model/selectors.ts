import { cycleEnd, type Cycle } from '../../time/cycle.ts'
import { drawingAt, drawingsOf, placed, runAt, type PlacedRun } from '../../time/exposure.ts'
import {
  isStroke,
  type Chart,
  type Drawing,
  type Element,
  type ElementForms,
  type Layer,
  type Mark,
  type ShotDocument,
  type Stroke,
  type Swatch,
  type Take,
} from './model.ts'
import { find, get, sizeOf } from './table.ts'

/** Layers from the lowest up, as they are painted. */
export function layersInOrder(document: ShotDocument): Layer[] {
  return Object.values(document.layers).sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1))
}

const paintOrder = new WeakMap<Drawing, readonly Element[]>()

const RANKS: Readonly<Record<keyof ElementForms, number>> = { picture: 0, shape: 1, line: 2 }

/** The elements of a drawing in the order they are painted: pictures, shapes, lines, each from the lowest z up. */
export function elementsInOrder(drawing: Drawing): readonly Element[] {
  const known = paintOrder.get(drawing)
  if (known) return known
  const sorted = Object.values(drawing.elements).sort(
    (a, b) => RANKS[a.kind] - RANKS[b.kind] || a.z - b.z || (a.id < b.id ? -1 : 1),
  )
  paintOrder.set(drawing, sorted)
  return sorted
}

/** The pen strokes of a drawing in the order they are painted: what has samples, a colour and a nib. */
export const strokesOn = (drawing: Drawing): Stroke[] => elementsInOrder(drawing).filter(isStroke)

/** A z above everything in the drawing. */
export function topZ(drawing: Drawing): number {
  return Object.values(drawing.elements).reduce((top, element) => Math.max(top, element.z), 0) + 1
}

/** Whether nothing is on a drawing. */
export const isBlank = (drawing: Drawing): boolean => sizeOf(drawing.elements) === 0

/** The colours of a shot as they lie on the palette strip. */
export const swatchesInOrder = (document: ShotDocument): Swatch[] =>
  Object.values(document.swatches).sort((a, b) => a.order - b.order)

/** The column of a layer in a take. */
export const columnOf = (take: Take, layer: string) => find(take.columns, layer) ?? []

/** The drawing exposed on a layer at a frame, or null. */
export function exposedDrawing(document: ShotDocument, take: Take, layer: string, frame: number): Drawing | null {
  const id = drawingAt(columnOf(take, layer), frame)
  return id === null ? null : (find(document.drawings, id) ?? null)
}

/** Where each drawing of a layer is first exposed: runs that show a drawing, in order, with start frames. */
export function exposures(take: Take, layer: string): PlacedRun[] {
  return placed(columnOf(take, layer)).filter(run => run.drawing !== null)
}

/** First frame on which a drawing is exposed, or null. */
export function firstFrameOf(take: Take, drawing: Drawing): number | null {
  return exposures(take, drawing.layer).find(run => run.drawing === drawing.id)?.start ?? null
}

/** How many separate exposures of a drawing a take has. More than one: it is shared. */
export function exposureCount(take: Take, drawing: Drawing): number {
  return exposures(take, drawing.layer).filter(run => run.drawing === drawing.id).length
}

/**
 * The number for a new drawing that starts on `frame` (from 0) of a layer: the frame's number as people count it when
 * that is free, else the next free one above.
 */
export function freeNumber(
  document: ShotDocument,
  layer: string,
  frame: number,
  alsoTaken: readonly number[] = [],
): number {
  const taken = new Set(alsoTaken)
  for (const drawing of Object.values(document.drawings)) if (drawing.layer === layer) taken.add(drawing.number)
  let number = frame + 1
  while (taken.has(number)) number++
  return number
}

/** The two keys of a layer around a frame: the last that starts on or before it, and the next one after that. */
export interface KeyPair {
  readonly from: Drawing
  readonly to: Drawing
  readonly fromFrame: number
  readonly toFrame: number
}

/** The keys around a frame, or null when there are not two. On or after the last key: the last pair. */
export function keysAround(document: ShotDocument, take: Take, layer: string, frame: number): KeyPair | null {
  const keys = exposures(take, layer).filter(run => find(document.drawings, run.drawing as string)?.role === 'key')
  const distinct = keys.filter((run, i) => i === 0 || run.drawing !== keys[i - 1]?.drawing)
  if (distinct.length < 2) return null
  const after = distinct.findIndex(run => run.start > frame)
  const to = after === -1 ? distinct.length - 1 : Math.max(1, after)
  const [a, b] = [distinct[to - 1] as PlacedRun, distinct[to] as PlacedRun]
  return {
    from: get(document.drawings, a.drawing as string),
    to: get(document.drawings, b.drawing as string),
    fromFrame: a.start,
    toFrame: b.start,
  }
}

/** The chart between two keys, of the drawings themselves or of a part (a mark); or null. */
export function chartBetween(
  document: ShotDocument,
  from: string,
  to: string,
  part: string | null = null,
): Chart | null {
  return Object.values(document.charts).find(c => c.from === from && c.to === to && c.part === part) ?? null
}

/** The take that is worked on. */
export const currentTake = (document: ShotDocument): Take => get(document.takes, document.current)

/** Takes in their order. */
export function takesInOrder(document: ShotDocument): Take[] {
  return Object.values(document.takes).sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1))
}

/** The marks of a layer in their order. */
export function marksOf(document: ShotDocument, layer: string): Mark[] {
  return Object.values(document.marks)
    .filter(mark => mark.layer === layer)
    .sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1))
}

/** The reference drawing for volume: the first key exposed on the layer that has something on it. */
export function referenceKey(document: ShotDocument, take: Take, layer: string): Drawing | null {
  for (const id of drawingsOf(columnOf(take, layer))) {
    const drawing = get(document.drawings, id)
    if (drawing.role === 'key' && !isBlank(drawing)) return drawing
  }
  return null
}

/**
 * Neighbouring drawings of a layer around a frame for the light table: up to `count` different ones before (nearest
 * first), the present one and blank ones left out; of keys only when told so. With `loop` (a frame range) the search goes
 * round the loop.
 */
export function neighbours(
  document: ShotDocument,
  take: Take,
  layer: string,
  frame: number,
  direction: -1 | 1,
  count: number,
  loop: { from: number; to: number } | null,
  keysOnly = false,
): string[] {
  const column = columnOf(take, layer)
  const present = drawingAt(column, frame)
  const found: string[] = []
  const range = loop && frame >= loop.from && frame < loop.to ? loop : { from: 0, to: take.length }
  const wraps = range === loop
  let at = frame
  for (let left = range.to - range.from; left > 0 && found.length < count;) {
    const run = runAt(column, at)
    const next = run ? (direction < 0 ? run.start - 1 : run.start + run.frames) : at + direction
    left -= Math.max(1, Math.abs(next - at))
    at = next
    if (at < range.from || at >= range.to) {
      if (!wraps) break
      at = direction < 0 ? range.to - 1 : range.from
    }
    const drawing = drawingAt(column, at)
    if (drawing === null || drawing === present || found.includes(drawing)) continue
    const sheet = get(document.drawings, drawing)
    if (!isBlank(sheet) && (!keysOnly || sheet.role === 'key')) found.push(drawing)
  }
  return found
}

/** The layer whose timing a layer shows: the one it follows, or itself. */
export const timedBy = (document: ShotDocument, layer: string): string => find(document.layers, layer)?.follows ?? layer

/** The linked cycles of a layer in a take. */
export const cyclesOf = (take: Take, layer: string): Cycle[] =>
  Object.values(take.cycles)
    .filter(cycle => cycle.layer === layer)
    .sort((a, b) => a.from - b.from)

/** The linked cycle that covers a frame of a layer, or null. */
export function cycleAt(take: Take, layer: string, frame: number): Cycle | null {
  return cyclesOf(take, layer).find(c => frame >= c.from && frame < cycleEnd(c, take.length)) ?? null
}
