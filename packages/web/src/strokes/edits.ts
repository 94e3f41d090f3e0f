import {
  elementsInOrder,
  isStroke,
  kindOf,
  putNewDrawing,
  strokesOn,
  topZ,
  type Drawing,
  type Element,
  type Operation,
  type Piece,
  type Role,
  type ShotDocument,
  type Stroke,
  type Take,
} from '@unhurried/core/document'
import {
  after,
  IDENTITY,
  endedAtEdge,
  leftBefore,
  type Matrix,
  type Point,
  type Range,
  type Sample,
} from '@unhurried/core/geometry'
import { packSamples } from '@unhurried/core/geometry'
import { newId } from '../local/ids.ts'
import type { StrokeBook } from '../paint/strokes.ts'

/** Operations with the stroke samples they bring along. */
export interface StrokeEdit {
  readonly ops: Operation[]
  readonly samples: Map<string, Uint8Array>
  /** the new strokes */
  readonly ids: readonly string[]
  /** the frame the drawing lies on, when one had to be made */
  readonly frame: number | null
}

/** What a stroke is drawn as. */
type Drawn = Pick<Stroke, 'kind' | 'swatch' | 'width' | 'nib' | 'label'>

/**
 * New strokes on the present drawing, or on a new one when the frame is empty: one step to undo. Null on a layer tied to
 * another where no line is drawn yet.
 */
export function strokesEdit(
  where: {
    document: ShotDocument
    take: Take
    layer: string
    frame: number
    hold: number
    drawing: Drawing | null
    role?: Role
  },
  paths: readonly (readonly Sample[])[],
  drawn: Drawn,
): StrokeEdit | null {
  const { document, take, layer, frame, hold } = where
  const role = where.role ?? 'key'
  const made = where.drawing ? null : putNewDrawing(document, take, layer, frame, hold, null, role, newId)
  if (!where.drawing && !made?.ok) return null
  const put = made?.ok ? made : null
  const z = where.drawing ? topZ(where.drawing) : 1
  const elements = paths.map((_, i): Stroke => {
    return { ...drawn, id: newId(), z: z + i, samples: newId(), part: null, matrix: null }
  })
  const drawing = where.drawing?.id ?? put?.drawing ?? ''
  return {
    ops: [...(put?.ops ?? []), { kind: 'elements.add', drawing, elements }],
    samples: new Map(elements.map((element, i) => [element.samples, packSamples(paths[i] ?? [])])),
    ids: elements.map(element => element.id),
    frame: put?.frame ?? null,
  }
}

/** What rubbing and trimming take off: everything, or lines or paint alone. */
export const TAKES = ['all', 'line', 'shape'] as const
export type Takes = (typeof TAKES)[number]
const takesOff = (takes: Takes, element: Element) => takes === 'all' || takes === element.kind

/** What of a drawing a round tip touches along a track, as it is painted: the topmost last. */
export const touchedBy = (drawing: Drawing, book: StrokeBook, track: readonly Point[], radius: number): string[] =>
  elementsInOrder(drawing)
    .filter(element => {
      const placed = book.placed(element)
      return placed && kindOf(element).touched(placed, track, radius)
    })
    .map(element => element.id)

/** What of that is rubbed out: strokes of the kind that is taken off. A picture stays, so that lines over it can be rubbed out. */
export const rubbedBy = (
  drawing: Drawing,
  book: StrokeBook,
  track: readonly Point[],
  radius: number,
  takes: Takes = 'all',
): string[] =>
  touchedBy(drawing, book, track, radius).filter(id => {
    const element = drawing.elements[id]
    return element && isStroke(element) && takesOff(takes, element)
  })

/** Operations that cut strokes, and the stored samples of the pieces that are new paths. */
export interface Cut {
  readonly ops: Operation[]
  readonly samples: Map<string, Uint8Array>
}

/** What is cut of a drawing, gathered until it is done. */
function cutting(drawing: Drawing) {
  const removed: string[] = []
  const added: Stroke[] = []
  const samples = new Map<string, Uint8Array>()
  return {
    /** puts pieces in the place of an element; their ids */
    replace(element: Element, pieces: readonly Piece[]): string[] {
      if (!removed.includes(element.id)) removed.push(element.id)
      return pieces.map(({ stroke, path }) => {
        const id = newId()
        const own = path ? newId() : stroke.samples
        if (path) samples.set(own, packSamples(path))
        added.push({ ...stroke, id, samples: own })
        return id
      })
    },
    done(): Cut {
      if (removed.length === 0) return { ops: [], samples }
      const off: Operation = { kind: 'elements.remove', drawing: drawing.id, ids: removed }
      return {
        ops: added.length ? [off, { kind: 'elements.add', drawing: drawing.id, elements: added }] : [off],
        samples,
      }
    },
  }
}

/** Takes out of lines and paint what a track rubs over: the parts that are left take their place. */
export function trimmed(
  drawing: Drawing,
  book: StrokeBook,
  track: readonly Point[],
  radius: number,
  takes: Takes = 'all',
): Cut {
  const cut = cutting(drawing)
  for (const element of Object.values(drawing.elements)) {
    const placed = takesOff(takes, element) ? book.placed(element) : null
    const left = placed && kindOf(element).left(element, placed, track, radius)
    if (left) cut.replace(element, left)
  }
  return cut.done()
}

/** Takes off what of a drawing's lines runs on behind parts that lie before it; which lines are never cut is told. */
export function cutBehind(
  drawing: Drawing,
  book: StrokeBook,
  parts: readonly (readonly Point[])[],
  spared: ReadonlySet<string>,
): Cut & { readonly lines: number } {
  const cut = cutting(drawing)
  let lines = 0
  for (const element of Object.values(drawing.elements)) {
    const placed = element.kind === 'line' && !spared.has(element.id) ? book.placed(element) : null
    if (element.kind !== 'line' || !placed) continue
    // One part after the other: what is left before one may run on behind the next.
    let ranges: readonly Range[] = [[0, placed.samples.length - 1]]
    let isCut = false
    for (const part of parts) {
      ranges = ranges.flatMap(([from, to]) => {
        const left = leftBefore(part, { ...placed, samples: placed.samples.slice(from, to + 1) })
        if (left) isCut = true
        return left?.map(([a, b]): Range => [from + a, from + b]) ?? [[from, to] as const]
      })
    }
    if (!isCut) continue
    lines++
    cut.replace(
      element,
      ranges.map(([from, to]) => ({
        stroke: { ...element, part: null, matrix: null, width: placed.width },
        path: endedAtEdge(parts, placed.samples.slice(from, to + 1)),
      })),
    )
  }
  return { ...cut.done(), lines }
}

/** Cuts lines and paint where a loop crosses them; `inside` is what, whole or as a piece, lies in it. */
export function cutByLoop(drawing: Drawing, book: StrokeBook, loop: readonly Point[]): Cut & { inside: string[] } {
  const cut = cutting(drawing)
  const inside: string[] = []
  for (const element of Object.values(drawing.elements)) {
    const placed = book.placed(element)
    const parts = placed && kindOf(element).parted(element, placed, loop)
    if (parts === 'inside') inside.push(element.id)
    if (!parts || typeof parts === 'string') continue
    inside.push(...cut.replace(element, parts.inside))
    cut.replace(element, parts.outside)
  }
  return { ...cut.done(), inside }
}

/** Operations with the samples they bring, and which strokes became which. */
export interface Reshaped {
  readonly ops: Operation[]
  readonly samples: Map<string, Uint8Array>
  readonly renamed: Map<string, string>
}

/** Gives strokes other samples: they lie in the same order, as wide as before. What is no stroke stays as it is. */
export function reshapeEdit(
  drawing: Drawing,
  book: StrokeBook,
  ids: ReadonlySet<string>,
  change: (samples: readonly Sample[], id: string) => readonly Sample[],
): Reshaped {
  const samples = new Map<string, Uint8Array>()
  const renamed = new Map<string, string>()
  const added: Stroke[] = []
  for (const element of strokesOn(drawing)) {
    const placed = ids.has(element.id) && book.placed(element)
    if (!placed) continue
    const [id, sampleId] = [newId(), newId()]
    samples.set(sampleId, packSamples(change(placed.samples, element.id)))
    renamed.set(element.id, id)
    added.push({ ...element, id, samples: sampleId, part: null, matrix: null, width: placed.width })
  }
  if (added.length === 0) return { ops: [], samples, renamed }
  const ops: Operation[] = [
    { kind: 'elements.remove', drawing: drawing.id, ids: [...renamed.keys()] },
    { kind: 'elements.add', drawing: drawing.id, elements: added },
  ]
  return { ops, samples, renamed }
}

/** Moves, scales or turns strokes by a map. */
export function moveOps(drawing: Drawing, ids: ReadonlySet<string>, by: Matrix): Operation[] {
  const changes = [...ids].flatMap(id => {
    const element = drawing.elements[id]
    return element ? [{ id, patch: { matrix: tidy(after(element.matrix ?? IDENTITY, by)) } }] : []
  })
  return changes.length ? [{ kind: 'elements.set', drawing: drawing.id, changes }] : []
}

/** Six decimals are far finer than a pixel at any size the desk allows, and keep the journal small. */
const tidy = (m: Matrix): Matrix => m.map(v => Math.round(v * 1e6) / 1e6) as unknown as Matrix
