import { fingerprint } from '../../fingerprint.ts'
import { isDelivered, type Answer, type Drawing, type Remark, type ShotDocument, type Take } from '../model/model.ts'
import { exposures, firstFrameOf, isBlank, layersInOrder } from '../model/selectors.ts'
import { find } from '../model/table.ts'
import type { Operation } from '../operations/index.ts'

/*
 * Looking a shot through: every drawing that goes out is seen closely once, by each who looks it through, and again when it has changed.
 */

const prints = new WeakMap<Drawing['elements'], string>()

/** All that is drawn on a drawing, as a fingerprint: of the same strokes it is the same. */
export function printOfDrawing({ elements }: Pick<Drawing, 'elements'>): string {
  const known = prints.get(elements)
  if (known !== undefined) return known
  const ids = Object.keys(elements).sort()
  const print = fingerprint(JSON.stringify(ids.map(id => find(elements, id))))
  prints.set(elements, print)
  return print
}

/** never: not looked at yet. changed: looked at, and drawn on since. seen: looked at as it is. */
export type LookedState = 'never' | 'changed' | 'seen'

/** Whether somebody has looked at a drawing as it is. */
export function lookedState(document: ShotDocument, by: string, drawing: Drawing): LookedState {
  const was = find(find(document.looked, by) ?? {}, drawing.id)
  return was === undefined ? 'never' : was === printOfDrawing(drawing) ? 'seen' : 'changed'
}

/** A frame on which drawings are seen for the first time. */
export interface Stop {
  /** from 0 */
  readonly frame: number
  /** from the lowest layer up */
  readonly drawings: readonly Drawing[]
}

/** The frames of a take on which something that goes out is new, in the order of time: whoever stops at each of them has seen every drawing. */
export function stopsOf(document: ShotDocument, take: Take): Stop[] {
  const seen = new Set<string>()
  const byFrame = new Map<number, Drawing[]>()
  for (const layer of layersInOrder(document).filter(isDelivered)) {
    for (const { drawing: id, start } of exposures(take, layer.id)) {
      const drawing = id === null || seen.has(id) ? undefined : find(document.drawings, id)
      if (!drawing || isBlank(drawing)) continue
      seen.add(drawing.id)
      byFrame.set(start, [...(byFrame.get(start) ?? []), drawing])
    }
  }
  return [...byFrame].sort(([a], [b]) => a - b).map(([frame, drawings]) => ({ frame, drawings }))
}

/** The stops on which somebody has not looked at everything as it is. */
export const stopsLeft = (document: ShotDocument, take: Take, by: string): Stop[] =>
  stopsOf(document, take).filter(({ drawings }) => drawings.some(one => lookedState(document, by, one) !== 'seen'))

/** Drawings of a take that go out and that somebody has not looked at as they are. */
export const notLookedAt = (document: ShotDocument, take: Take, by: string): Drawing[] =>
  stopsOf(document, take).flatMap(({ drawings }) => drawings.filter(one => lookedState(document, by, one) !== 'seen'))

/** Says that somebody has looked at drawings as they are; of those that are said to be looked at already, nothing. */
export function lookAt(document: ShotDocument, by: string, drawings: readonly Drawing[]): Operation[] {
  const fresh = drawings.filter(one => lookedState(document, by, one) !== 'seen')
  if (fresh.length === 0) return []
  return [{ kind: 'looked.set', by, drawings: Object.fromEntries(fresh.map(one => [one.id, printOfDrawing(one)])) }]
}

/** Drawings are to be looked at once more. */
export function lookAgain(document: ShotDocument, by: string, drawings: readonly Drawing[]): Operation[] {
  const known = drawings.filter(one => lookedState(document, by, one) !== 'never')
  if (known.length === 0) return []
  return [{ kind: 'looked.set', by, drawings: Object.fromEntries(known.map(one => [one.id, null])) }]
}

/** The frame of a take on which a remark is seen: where its drawing is now, or where it was made. */
export function frameOfRemark(document: ShotDocument, take: Take, { frame, drawing }: Remark): number {
  const about = drawing === null ? undefined : find(document.drawings, drawing)
  const isStill =
    about &&
    exposures(take, about.layer).some(
      run => run.drawing === about.id && run.start <= frame && frame < run.start + run.frames,
    )
  if (!about || isStill) return Math.min(frame, take.length - 1)
  return firstFrameOf(take, about) ?? Math.min(frame, take.length - 1)
}

/** Remarks in the order of time, with the frame of the take each is seen on. */
export const remarksOn = (document: ShotDocument, take: Take): { readonly remark: Remark; readonly frame: number }[] =>
  Object.values(document.remarks)
    .map(remark => ({ remark, frame: frameOfRemark(document, take, remark) }))
    .sort((a, b) => a.frame - b.frame || a.remark.id.localeCompare(b.remark.id))

/** Answers a remark. */
export const answerRemark = ({ id, answers }: Remark, answer: Answer): Operation[] => [
  { kind: 'remark.set', id, patch: { answers: [...answers, answer] } },
]

/** What somebody may change of another's remark: answer it, and close it. */
const OF_OTHERS: ReadonlySet<string> = new Set(['answers', 'closed'])

/** Whether whoever may look at a shot and remark on it, and no more, may do an operation; `by` is their account. */
export function mayReview(document: ShotDocument, op: Operation, by: string): boolean {
  switch (op.kind) {
    case 'looked.set':
      return op.by === by
    case 'remark.add':
      return op.remark.by === by && op.remark.answers.every(answer => answer.by === by)
    case 'remark.remove':
      return find(document.remarks, op.id)?.by === by
    case 'remark.set': {
      const remark = find(document.remarks, op.id)
      if (!remark) return false
      const { answers } = op.patch
      // Others' words stay as they are, in their order; one's own come and go.
      const foreign = (all: readonly Answer[]) => JSON.stringify(all.filter(answer => answer.by !== by))
      if (answers && foreign(answers) !== foreign(remark.answers)) return false
      return remark.by === by || Object.keys(op.patch).every(key => OF_OTHERS.has(key))
    }
    default:
      return false
  }
}
