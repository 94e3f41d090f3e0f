import {
  putNewDrawing,
  topZ,
  type Drawing,
  type Element,
  type Operation,
  type ShotDocument,
  type Take,
} from '@unhurried/core/document'
import {
  after,
  gathers,
  IDENTITY,
  partedBy,
  partsLeft,
  touches,
  type Matrix,
  type Point,
  type Sample,
} from '@unhurried/core/geometry'
import { packSamples } from '@unhurried/core/geometry'
import { newId } from '../stores/ids.ts'
import type { StrokeBook } from './strokes.ts'

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
  where: { document: ShotDocument; take: Take; layer: string; frame: number; hold: number; drawing: Drawing | null },
  paths: readonly (readonly Sample[])[],
  drawn: Drawn,
): StrokeEdit | null {
  const { document, take, layer, frame, hold } = where
  const made = where.drawing ? null : putNewDrawing(document, take, layer, frame, hold, null, 'key', newId)
  if (!where.drawing && !made) return null
  const z = where.drawing ? topZ(where.drawing) : 1
  const elements = paths.map((_, i): Element => {
    return { ...drawn, id: newId(), z: z + i, samples: newId(), part: null, matrix: null }
  })
  const drawing = where.drawing?.id ?? made?.drawing ?? ''
  return {
    ops: [...(made?.ops ?? []), { kind: 'elements.add', drawing, elements }],
    samples: new Map(elements.map((element, i) => [element.samples, packSamples(paths[i] ?? [])])),
    ids: elements.map(element => element.id),
    frame: made?.frame ?? null,
  }
}

/** The strokes of a drawing that a round tip touches along a track. */
export function touchedBy(drawing: Drawing, book: StrokeBook, track: readonly Point[], radius: number): string[] {
  return Object.values(drawing.elements)
    .filter(element => {
      const stroke = book.placed(element)
      return stroke && touches(stroke, track, radius)
    })
    .map(element => element.id)
}

/** Takes out of lines what a track rubs over: the parts that are left take the line's place. Shapes are taken whole. */
export function trimOps(drawing: Drawing, book: StrokeBook, track: readonly Point[], radius: number): Operation[] {
  const removed: string[] = []
  const added: Element[] = []
  for (const element of Object.values(drawing.elements)) {
    const stroke = book.placed(element)
    if (!stroke) continue
    if (stroke.kind === 'shape') {
      if (touches(stroke, track, radius)) removed.push(element.id)
      continue
    }
    const left = partsLeft(stroke, track, radius)
    const isWhole = left.length === 1 && left[0]?.[0] === 0 && left[0][1] === stroke.samples.length - 1
    if (isWhole) continue
    const first = element.part?.[0] ?? 0
    removed.push(element.id)
    for (const [from, to] of left) added.push({ ...element, id: newId(), part: [first + from, first + to] })
  }
  if (removed.length === 0) return []
  const ops: Operation[] = [{ kind: 'elements.remove', drawing: drawing.id, ids: removed }]
  if (added.length) ops.push({ kind: 'elements.add', drawing: drawing.id, elements: added })
  return ops
}

/** Cuts lines where a loop crosses them. Shapes are taken whole when most of them lies inside. */
export function cutOps(
  drawing: Drawing,
  book: StrokeBook,
  loop: readonly Point[],
): { ops: Operation[]; inside: string[] } {
  const removed: string[] = []
  const added: Element[] = []
  const inside: string[] = []
  for (const element of Object.values(drawing.elements)) {
    const stroke = book.placed(element)
    if (!stroke) continue
    const parts = stroke.kind === 'line' ? partedBy(loop, stroke) : null
    if (!parts?.inside.length || !parts.outside.length) {
      if (parts ? parts.inside.length : gathers(loop, stroke)) inside.push(element.id)
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
  if (removed.length === 0) return { ops: [], inside }
  const ops: Operation[] = [
    { kind: 'elements.remove', drawing: drawing.id, ids: removed },
    { kind: 'elements.add', drawing: drawing.id, elements: added },
  ]
  return { ops, inside }
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
