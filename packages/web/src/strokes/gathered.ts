import { elementsInOrder, isStroke, topZ, type Drawing, type Element, type Operation } from '@unhurried/core/document'
import { bent, map, type Matrix, type Point, type Sample } from '@unhurried/core/geometry'
import { newId } from '../local/ids.ts'
import { moveOps, reshapeEdit, type Reshaped } from './edits.ts'
import type { Colours } from '../paint/colours.ts'
import { painterOf } from '../paint/elements.ts'
import { inked, paintInked, type Brush } from '../paint/nibs.ts'
import type { StrokeBook } from '../paint/strokes.ts'

/** What is done to gathered strokes: a map of the paper, or a bend about a root. */
export type Change =
  | { readonly kind: 'map'; readonly by: Matrix }
  | { readonly kind: 'bend'; readonly root: Point; readonly tip: Point; readonly angleRad: number }

const bender = (change: Extract<Change, { kind: 'bend' }>) => (samples: readonly Sample[]) =>
  bent(samples, change.root, change.tip, change.angleRad)

interface Shown {
  readonly by: Matrix | null
  paint(brush: Brush, colours: Colours): void
}

/** What is gathered of a drawing as it would look, for showing it while it is moved. */
export function changeGathered(drawing: Drawing, book: StrokeBook, ids: ReadonlySet<string>, change: Change): Shown[] {
  return elementsInOrder(drawing).flatMap((element): Shown[] => {
    if (!ids.has(element.id)) return []
    const placed = change.kind === 'bend' && isStroke(element) ? book.placed(element) : null
    if (change.kind === 'bend' && placed && isStroke(element)) {
      const ink = inked(bender(change)(placed.samples), placed.kind, placed.width, placed.nib)
      return [{ by: null, paint: (brush, colours) => paintInked(brush, ink, colours(element)) }]
    }
    const by = change.kind === 'map' ? change.by : null
    return [{ by, paint: (brush, colours) => painterOf(element).drawn(brush, element, colours, book) }]
  })
}

const NONE: Reshaped = { ops: [], samples: new Map(), renamed: new Map() }

/**
 * The change done to the gathered strokes of drawings. Marks, and the sheets of paint that lie `under` it, go along with a
 * drawing that is moved whole. Strokes whose samples change become others; `renamed` tells which.
 */
export function gatheredEdit(
  drawings: readonly Drawing[],
  book: StrokeBook,
  ids: ReadonlySet<string>,
  change: Change,
  under: (drawing: Drawing) => readonly Drawing[] = () => [],
): Reshaped {
  return drawings.reduce<Reshaped>((all, drawing) => {
    const here = new Set([...ids].filter(id => drawing.elements[id]))
    if (here.size === 0) return all
    const isWhole = here.size === Object.keys(drawing.elements).length
    const one: Reshaped =
      change.kind === 'map'
        ? {
            ...NONE,
            ops: [...moveOps(drawing, here, change.by), ...(isWhole ? alongWith(drawing, change.by, under) : [])],
          }
        : reshapeEdit(drawing, book, here, bender(change))
    return {
      ops: [...all.ops, ...one.ops],
      samples: new Map([...all.samples, ...one.samples]),
      renamed: new Map([...all.renamed, ...one.renamed]),
    }
  }, NONE)
}

/** Marks lie on tenths of a pixel. */
export const tenths = ({ x, y }: Point): Point => ({ x: Math.round(x * 10) / 10, y: Math.round(y * 10) / 10 })

function alongWith(drawing: Drawing, by: Matrix, under: (drawing: Drawing) => readonly Drawing[]): Operation[] {
  const paint = under(drawing).flatMap(sheet => moveOps(sheet, new Set(Object.keys(sheet.elements)), by))
  return [...marksAlong(drawing, by), ...paint]
}

function marksAlong(drawing: Drawing, by: Matrix): Operation[] {
  const places = Object.entries(drawing.marks).map(([id, at]) => {
    const to = map(by, at)
    return [id, { ...tenths(to), planted: at.planted }] as const
  })
  return places.length ? [{ kind: 'marks.place', drawing: drawing.id, places: Object.fromEntries(places) }] : []
}

/** Strokes added to a drawing above everything on it, with new ids, moved by a map when one is given. */
export function addedCopies(
  drawing: Drawing,
  elements: readonly Element[],
  by: Matrix | null,
): { ops: Operation[]; ids: string[] } {
  if (elements.length === 0) return { ops: [], ids: [] }
  const z = topZ(drawing)
  const copies = elements.map((element, i) => ({ ...element, id: newId(), z: z + i }))
  const added: Operation = { kind: 'elements.add', drawing: drawing.id, elements: copies }
  const ids = copies.map(copy => copy.id)
  if (!by) return { ops: [added], ids }
  const whole = { ...drawing, elements: Object.fromEntries(copies.map(copy => [copy.id, copy])) }
  return { ops: [added, ...moveOps(whole, new Set(ids), by)], ids }
}
