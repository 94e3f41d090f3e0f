import type { ShotDocument } from '../model.ts'
import * as beats from './beats.ts'
import * as drawings from './drawings.ts'
import type { Handler, Operation, OperationKind, Refusal } from './kinds.ts'
import * as marks from './marks.ts'
import * as plan from './plan.ts'
import * as sheet from './sheet.ts'
import * as swatches from './swatches.ts'
import * as takes from './takes.ts'
import { withTies } from './tied.ts'

/** Every kind has its handler; a missing one does not compile. */
const HANDLERS: { readonly [K in OperationKind]: Handler<K> } = {
  'format.set': plan.formatSet,
  'shot.set': plan.shotSet,
  'layer.add': plan.layerAdd,
  'layer.set': plan.layerSet,
  'layer.remove': plan.layerRemove,
  'drawing.add': drawings.drawingAdd,
  'drawing.set': drawings.drawingSet,
  'drawing.remove': drawings.drawingRemove,
  'elements.add': drawings.elementsAdd,
  'elements.set': drawings.elementsSet,
  'elements.remove': drawings.elementsRemove,
  'chart.add': plan.chartAdd,
  'chart.set': plan.chartSet,
  'chart.remove': plan.chartRemove,
  'exposure.write': sheet.exposureWrite,
  'frames.insert': sheet.framesInsert,
  'frames.remove': sheet.framesRemove,
  'loop.set': sheet.loopSet,
  'cycle.add': takes.cycleAdd,
  'cycle.set': takes.cycleSet,
  'cycle.remove': takes.cycleRemove,
  'take.add': takes.takeAdd,
  'take.set': takes.takeSet,
  'take.remove': takes.takeRemove,
  'swatch.add': swatches.swatchAdd,
  'swatch.set': swatches.swatchSet,
  'swatch.remove': swatches.swatchRemove,
  'mark.add': marks.markAdd,
  'mark.set': marks.markSet,
  'mark.remove': marks.markRemove,
  'marks.place': marks.marksPlace,
  'beat.add': beats.beatAdd,
  'beat.set': beats.beatSet,
  'beat.remove': beats.beatRemove,
  'pin.set': beats.pinSet,
  'note.add': beats.noteAdd,
  'note.set': beats.noteSet,
  'note.remove': beats.noteRemove,
}

const handlerOf = (op: Operation) => HANDLERS[op.kind] as Handler<OperationKind>

/** Why an operation cannot be done on a document, or null when it can. */
export function refuse(document: ShotDocument, op: Operation): Refusal | null {
  return handlerOf(op).refuse(document, op)
}

/** A document after a batch, with the operations that undo it in the order to do them; or which operation was refused. */
export type BatchResult =
  | { readonly ok: true; readonly document: ShotDocument; readonly inverse: readonly Operation[] }
  | { readonly ok: false; readonly refusal: Refusal; readonly index: number }

/** Does operations one after the other: all of them, or none when any is refused. Never changes what it is given. */
export function applyBatch(document: ShotDocument, ops: readonly Operation[]): BatchResult {
  let now = document
  const undo: Operation[][] = []
  for (const [index, op] of ops.entries()) {
    const handler = handlerOf(op)
    const no = handler.refuse(now, op)
    if (no) return { ok: false, refusal: no, index }
    undo.push(handler.invert(now, op))
    now = withTies(handler.apply(now, op), op)
  }
  return { ok: true, document: now, inverse: undo.reverse().flat() }
}

export { columnsCover, refuseFormat } from './plan.ts'
export { cyclesHold } from './takes.ts'
export { tiesHold } from './tied.ts'
export type { ElementChange, Operation, OperationKind, OperationOf, Refusal, RefusalCode } from './kinds.ts'
