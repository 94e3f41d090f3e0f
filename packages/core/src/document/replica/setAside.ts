import type { Drawing, Element, ShotDocument } from '../model/model.ts'
import { inKnownColour, kindOf } from '../elements/table.ts'
import type { Refusal } from '../model/refusal.ts'
import { doBatch, elementsBrought, type Operation } from '../operations/index.ts'
import type { Batch } from './replica.ts'
import { isBlank, topZ } from '../model/selectors.ts'
import { find, has } from '../model/table.ts'

/**
 * What was drawn in one document and is not in another of the same shot: for each drawing, the operation that brings it, or
 * the strokes it lacks. Timing is left as it is.
 */
export function drawnOnlyIn(before: ShotDocument, now: ShotDocument): Operation[] {
  return Object.values(before.drawings).flatMap((drawing): Operation[] => {
    const known = find(now.drawings, drawing.id)
    if (!known) return isBlank(drawing) ? [] : [{ kind: 'drawing.add', drawing: { ...drawing, marks: {} } }]
    const lacking = Object.values(drawing.elements).filter(element => !has(known.elements, element.id))
    return lacking.length ? [{ kind: 'elements.add', drawing: drawing.id, elements: lacking }] : []
  })
}

/** How something that was set aside is laid down again. */
export type LaidDown =
  | {
      readonly ok: true
      /** as it was, or only its strokes, on the drawing in the hand */
      readonly how: 'as-it-was' | 'strokes'
      readonly ops: readonly Operation[]
      /** new ids of stored things by old ones: what was refused may share its ids with something else */
      readonly renamed: ReadonlyMap<string, string>
    }
  | { readonly ok: false; readonly refusal: Refusal }

/**
 * Lays a batch that the journal refused down again: as it was when that is possible by now, else its strokes onto `drawing`.
 * `brings` says of which stored things the bytes are at hand; they get ids of their own.
 */
export function layDownAgain(
  document: ShotDocument,
  batch: Pick<Batch, 'ops'>,
  drawing: Drawing | null,
  brings: (asset: string) => boolean,
  newId: () => string,
): LaidDown {
  const renamed = new Map<string, string>()
  const own = (element: Element): Element => {
    const kind = kindOf(element)
    const { id } = kind.asset(element)
    if (!brings(id)) return element
    const known = renamed.get(id) ?? newId()
    renamed.set(id, known)
    return kind.showing(element, known)
  }
  const ops = batch.ops.map((op): Operation => {
    if (op.kind === 'elements.add') return { ...op, elements: op.elements.map(own) }
    if (op.kind !== 'drawing.add') return op
    const elements = Object.fromEntries(Object.entries(op.drawing.elements).map(([id, e]) => [id, own(e)]))
    return { ...op, drawing: { ...op.drawing, elements } }
  })
  const result = doBatch(document, ops)
  if (result.ok) return { ok: true, how: 'as-it-was', ops, renamed }

  const strokes = elementsBrought(ops)
  if (!drawing || strokes.length === 0) return { ok: false, refusal: result.refusal }
  const swatch = Object.keys(document.swatches)[0] as string
  const z = topZ(drawing)
  const elements = strokes.map((element, i) => inKnownColour(document, { ...element, id: newId(), z: z + i }, swatch))
  const added: Operation[] = [{ kind: 'elements.add', drawing: drawing.id, elements }]
  const second = doBatch(document, added)
  return second.ok ? { ok: true, how: 'strokes', ops: added, renamed } : { ok: false, refusal: second.refusal }
}
