import type { AssetRef } from '../../assets/asset.ts'
import { kindOf } from '../elements/table.ts'
import type { Element, ShotDocument } from '../model/model.ts'
import * as beats from './beats.ts'
import * as clips from './clips.ts'
import { makeBench, runsOf, type Bench } from './bench.ts'
import * as drawings from './drawings.ts'
import * as guides from './guides.ts'
import { isId } from './ids.ts'
import type { AnyHandler, Handler, Operation, OperationKind } from './kinds.ts'
import { refusal, type Refusal } from '../model/refusal.ts'
import * as marks from './marks.ts'
import { pathSet } from './paths.ts'
import * as plan from './plan.ts'
import * as review from './review.ts'
import * as sheet from './sheet.ts'
import * as sounds from './sounds.ts'
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
  'chart.add': plan.charts.add,
  'chart.set': plan.charts.set,
  'chart.remove': plan.charts.remove,
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
  'swatch.add': swatches.swatches.add,
  'swatch.set': swatches.swatches.set,
  'swatch.remove': swatches.swatches.remove,
  'mark.add': marks.marks.add,
  'mark.set': marks.marks.set,
  'mark.remove': marks.marks.remove,
  'marks.place': marks.marksPlace,
  'beat.add': beats.beats.add,
  'beat.set': beats.beats.set,
  'beat.remove': beats.beats.remove,
  'pin.set': beats.pinSet,
  'path.set': pathSet,
  'note.add': beats.notes.add,
  'note.set': beats.notes.set,
  'note.remove': beats.notes.remove,
  'accepted.add': beats.accepted.add,
  'accepted.set': beats.accepted.set,
  'accepted.remove': beats.accepted.remove,
  'saying.add': review.sayings.add,
  'saying.set': review.sayings.set,
  'saying.remove': review.sayings.remove,
  'remark.add': review.remarks.add,
  'remark.set': review.remarks.set,
  'remark.remove': review.remarks.remove,
  'looked.set': review.lookedSet,
  'threshold.set': review.thresholdSet,
  'guide.add': guides.guides.add,
  'guide.set': guides.guides.set,
  'guide.remove': guides.guides.remove,
  'sound.add': sounds.sounds.add,
  'sound.set': sounds.sounds.set,
  'sound.remove': sounds.sounds.remove,
  'word.add': sounds.words.add,
  'word.set': sounds.words.set,
  'word.remove': sounds.words.remove,
  'clip.add': clips.clips.add,
  'clip.set': clips.clips.set,
  'clip.remove': clips.clips.remove,
  'point.add': clips.points.add,
  'point.set': clips.points.set,
  'point.remove': clips.points.remove,
}

/** Why an operation may not bring its new things in, for the sake of their ids; or null. */
function refuseIds(op: Operation): Refusal | null {
  const strange = handlerOf(op)
    .ids?.(op)
    .find(id => !isId(id))
  return strange === undefined ? null : refusal('bad-value', `id ${strange.slice(0, 40)}`)
}

const handlerOf = (op: Operation) => HANDLERS[op.kind] as AnyHandler

/** Why an operation cannot be done on a document, or null when it can. */
export function refuse(document: ShotDocument, op: Operation): Refusal | null {
  return refuseIds(op) ?? handlerOf(op).refuse(document, op, makeBench())
}

/** Which operation of a batch was refused, and why. */
export interface Refused {
  readonly ok: false
  readonly refusal: Refusal
  readonly index: number
}

/** A document after a batch, with the operations that undo it in the order to do them; or which operation was refused. */
export type BatchResult =
  { readonly ok: true; readonly document: ShotDocument; readonly inverse: readonly Operation[] } | Refused

/** A document after a batch that nobody undoes here. */
export type Done = { readonly ok: true; readonly document: ShotDocument } | Refused

/** Whether an operation changes what strokes and marks of drawings refer to. */
export const isReferred = (op: Operation): boolean => handlerOf(op).facts.referred
/** Id of the drawing whose look an operation changes, or null. */
export const drawingOf = (op: Operation): string | null => handlerOf(op).drawing?.(op) ?? null
/** What an operation sets, as a text, where undoing an earlier one that sets the same undoes it too; or null. */
export const joinOf = (op: Operation): string | null => handlerOf(op).joins?.(op) ?? null
/** The elements that operations bring onto drawings, in order. */
export const elementsBrought = (ops: readonly Operation[]): Element[] =>
  ops.flatMap(op => handlerOf(op).brings?.(op) ?? [])
/** The stored things that operations bring onto drawings: what must be stored before they can be. */
export const assetsUsed = (ops: readonly Operation[]): AssetRef[] =>
  elementsBrought(ops).map(element => kindOf(element).asset(element))
/** Their ids. */
export const assetIds = (ops: readonly Operation[]): string[] => assetsUsed(ops).map(({ id }) => id)
/** SHA-256 of the stored media that operations refer to. */
export const mediaUsed = (ops: readonly Operation[]): string[] => [
  ...new Set(ops.flatMap(op => handlerOf(op).media?.(op) ?? [])),
]

/** Does operations one after the other on a bench, and hands each to `before` with the document as it is then. */
function carryOut(
  document: ShotDocument,
  ops: readonly Operation[],
  bench: Bench,
  before?: (now: ShotDocument, op: Operation) => void,
): Done {
  let now = document
  let moved = false
  const settle = () => {
    if (moved) now = withTies(now, bench)
    moved = false
  }
  for (const [index, op] of ops.entries()) {
    const handler = handlerOf(op)
    if (handler.readsTies?.(op)) settle()
    const no = (bench.bounded ? refuseIds(op) : null) ?? handler.refuse(now, op, bench)
    if (no) return { ok: false, refusal: no, index }
    before?.(now, op)
    const runs = handler.facts.grows ? runsOf(now) : null
    now = handler.apply(now, op, bench)
    moved ||= handler.facts.movesTies
    const full = runs === null ? null : bench.room(runs, runsOf(now) - runs, 'runsPerShot')
    if (full) return { ok: false, refusal: full, index }
  }
  const runs = runsOf(now)
  settle()
  const full = bench.room(runs, runsOf(now) - runs, 'runsPerShot')
  return full ? { ok: false, refusal: full, index: ops.length - 1 } : { ok: true, document: now }
}

/** Does operations one after the other: all of them, or none when any is refused. Never changes what it is given. */
export function applyBatch(document: ShotDocument, ops: readonly Operation[]): BatchResult {
  const undo: Operation[][] = []
  const result = carryOut(document, ops, makeBench(), (now, op) => undo.push(handlerOf(op).invert(now, op)))
  return result.ok ? { ...result, inverse: undo.reverse().flat() } : result
}

/** Like applyBatch, for those who do not undo it. */
export const doBatch = (document: ShotDocument, ops: readonly Operation[]): Done => carryOut(document, ops, makeBench())

/**
 * A document after many batches that were taken in before, worked out in place on a private copy. What was in order then is
 * not held against bounds that came later. `index` of a refusal counts operations of all batches.
 */
export const replay = (document: ShotDocument, batches: readonly (readonly Operation[])[]): Done =>
  carryOut(document, batches.flat(), makeBench(false))

export { columnsCover, refuseFormat } from './plan.ts'
export { cyclesHold } from './takes.ts'
export { runsOf } from './bench.ts'
export { ID_FORM } from './ids.ts'
export { openedForm, storedForm, tiesHold } from './tied.ts'
export type { ElementChange, Operation, OperationKind, OperationOf } from './kinds.ts'
