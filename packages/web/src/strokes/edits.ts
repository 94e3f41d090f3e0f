import {
  putNewDrawing,
  topZ,
  type Drawing,
  type Element,
  type Role,
  type Operation,
  type ShotDocument,
  type Take,
} from '@unhurried/core/document'
import {
  after,
  IDENTITY,
  paintLeft,
  paintParted,
  partedBy,
  partsLeft,
  touches,
  type Matrix,
  type Point,
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
type Drawn = Pick<Element, 'kind' | 'swatch' | 'width' | 'nib' | 'label'>

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
  const elements = paths.map((_, i): Element => {
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

/** The strokes of a drawing that a round tip touches along a track. */
export function touchedBy(
  drawing: Drawing,
  book: StrokeBook,
  track: readonly Point[],
  radius: number,
  takes: Takes = 'all',
): string[] {
  return Object.values(drawing.elements)
    .filter(element => {
      if (!takesOff(takes, element)) return false
      const stroke = book.placed(element)
      return stroke && touches(stroke, track, radius)
    })
    .map(element => element.id)
}

/** Operations that cut strokes, and the stored samples of the pieces that are new paths. */
export interface Cut {
  readonly ops: Operation[]
  readonly samples: Map<string, Uint8Array>
}

/** Pieces of a painted shape as elements of their own, in its place. */
function piecesOf(shape: Element, pieces: readonly (readonly Sample[])[], samples: Map<string, Uint8Array>): Element[] {
  return pieces.map(piece => {
    const stored = newId()
    samples.set(stored, packSamples(piece))
    return { ...shape, id: newId(), samples: stored, part: null, matrix: null }
  })
}

function cutOps(drawing: Drawing, removed: readonly string[], added: readonly Element[]): Operation[] {
  if (removed.length === 0) return []
  const off: Operation = { kind: 'elements.remove', drawing: drawing.id, ids: removed }
  return added.length ? [off, { kind: 'elements.add', drawing: drawing.id, elements: added }] : [off]
}

/** Takes out of lines and paint what a track rubs over: the parts that are left take their place. */
export function trimmed(
  drawing: Drawing,
  book: StrokeBook,
  track: readonly Point[],
  radius: number,
  takes: Takes = 'all',
): Cut {
  const removed: string[] = []
  const added: Element[] = []
  const samples = new Map<string, Uint8Array>()
  for (const element of Object.values(drawing.elements)) {
    const stroke = book.placed(element)
    if (!stroke || !takesOff(takes, element)) continue
    if (stroke.kind === 'shape') {
      const pieces = paintLeft(stroke.samples, track, radius)
      if (pieces) {
        removed.push(element.id)
        added.push(...piecesOf(element, pieces, samples))
      }
      continue
    }
    const left = partsLeft(stroke, track, radius)
    const isWhole = left.length === 1 && left[0]?.[0] === 0 && left[0][1] === stroke.samples.length - 1
    if (isWhole) continue
    const first = element.part?.[0] ?? 0
    removed.push(element.id)
    for (const [from, to] of left) added.push({ ...element, id: newId(), part: [first + from, first + to] })
  }
  return { ops: cutOps(drawing, removed, added), samples }
}

/** Cuts lines and paint where a loop crosses them; `inside` are the strokes, and pieces, that lie in it. */
export function cutByLoop(drawing: Drawing, book: StrokeBook, loop: readonly Point[]): Cut & { inside: string[] } {
  const removed: string[] = []
  const added: Element[] = []
  const inside: string[] = []
  const samples = new Map<string, Uint8Array>()
  for (const element of Object.values(drawing.elements)) {
    const stroke = book.placed(element)
    if (!stroke) continue
    if (stroke.kind === 'shape') {
      const parts = paintParted(stroke.samples, loop)
      if (!parts.inside.length || !parts.outside.length) {
        if (parts.inside.length) inside.push(element.id)
        continue
      }
      const within = piecesOf(element, parts.inside, samples)
      removed.push(element.id)
      added.push(...within, ...piecesOf(element, parts.outside, samples))
      inside.push(...within.map(piece => piece.id))
      continue
    }
    const parts = partedBy(loop, stroke)
    if (!parts.inside.length || !parts.outside.length) {
      if (parts.inside.length) inside.push(element.id)
      continue
    }
    const first = element.part?.[0] ?? 0
    removed.push(element.id)
    for (const which of ['inside', 'outside'] as const) {
      for (const [from, to] of parts[which]) {
        const id = newId()
        added.push({ ...element, id, part: [first + from, first + to] })
        if (which === 'inside') inside.push(id)
      }
    }
  }
  return { ops: cutOps(drawing, removed, added), samples, inside }
}

/** Operations with the samples they bring, and which strokes became which. */
export interface Reshaped {
  readonly ops: Operation[]
  readonly samples: Map<string, Uint8Array>
  readonly renamed: Map<string, string>
}

/** Gives strokes other samples: they lie in the same order, as wide as before. */
export function reshapeEdit(
  drawing: Drawing,
  book: StrokeBook,
  ids: ReadonlySet<string>,
  change: (samples: readonly Sample[], id: string) => readonly Sample[],
): Reshaped {
  const samples = new Map<string, Uint8Array>()
  const renamed = new Map<string, string>()
  const added: Element[] = []
  for (const element of Object.values(drawing.elements)) {
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
