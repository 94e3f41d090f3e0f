import { cycleEnd, patternFrame, periodOf, type Cycle } from '../../time/cycle.ts'
import { lengthOf, slice, type Run } from '../../time/exposure.ts'
import { patternWith, touchesCycle, withPattern } from './layerForm.ts'
import { proposed, type Proposal, type NotDone } from './proposal.ts'
import type { ShotDocument, Take } from '../model/model.ts'
import { applyBatch, type Operation } from '../operations/index.ts'
import { followingOf, settle, type Change, type Manner, type Settling } from './room.ts'
import { columnOf, cycleAt } from '../model/selectors.ts'
import { get } from '../model/table.ts'

/** A change of one layer, nothing to change (null), or why it cannot be made. */
export type LayerChange = Change | NotDone | null

const isRefusal = (change: Change | NotDone): change is NotDone => 'ok' in change

/** The changes of all layers, settled together; the first refusal when there is one. */
export function settleAll(
  document: ShotDocument,
  take: Take,
  changes: readonly LayerChange[],
  manner: Manner,
  how: Settling = {},
): Proposal {
  const wanted = changes.filter(change => change !== null)
  const no = wanted.find(isRefusal)
  if (no) return no
  return settle(document, take, wanted as readonly Change[], manner, how)
}

/**
 * Frames [from, to) of a layer changed. Inside one turn of a linked cycle its pattern is changed instead, and so every turn;
 * frames that lie partly in a cycle are refused.
 */
export function stretchChange(
  take: Take,
  layer: string,
  from: number,
  to: number,
  change: (stretch: readonly Run[]) => readonly Run[],
  manner: Manner,
): LayerChange {
  if (!touchesCycle(take, layer, from, to)) {
    return { layer, from, to, stretch: change(slice(columnOf(take, layer), from, to)), cycle: null }
  }
  const cycle = cycleAt(take, layer, from)
  if (!cycle || to > cycleEnd(cycle, take.length)) return { ok: false, code: 'crosses-cycle' }
  const start = patternFrame(cycle, from)
  return patternChange(take, cycle, start, start + to - from, change, manner)
}

/** Frames [a, b) of a cycle's pattern changed, and so every turn of it. */
export function patternChange(
  take: Take,
  cycle: Cycle,
  a: number,
  b: number,
  change: (stretch: readonly Run[]) => readonly Run[],
  manner: Manner,
): LayerChange {
  if (b > periodOf(cycle)) return { ok: false, code: 'crosses-cycle' }
  const pattern = patternWith(cycle, a, b, change(slice(cycle.pattern, a, b)), followingOf(manner))
  const next = withPattern(cycle, pattern, take.length, followingOf(manner) === 'ripple')
  return next ? cycleChange(take, cycle, next) : { ok: false, code: 'nothing-left' }
}

/** A linked cycle replaced by another that begins where it does. */
export function cycleChange(take: Take, cycle: Cycle, next: Cycle): Change {
  const to = cycleEnd(cycle, take.length)
  const frames = cycleEnd(next, Math.max(to, next.to ?? take.length)) - next.from
  return { layer: cycle.layer, from: cycle.from, to, stretch: [{ drawing: null, frames }], cycle: next }
}

/** One layer changed in one stretch. */
export const editStretch = (
  document: ShotDocument,
  take: Take,
  layer: string,
  from: number,
  to: number,
  change: (stretch: readonly Run[]) => readonly Run[],
  manner: Manner,
  how: Settling = {},
): Proposal => settleAll(document, take, [stretchChange(take, layer, from, to, change, manner)], manner, how)

/**
 * A change after which what follows moves, where it is followed by drawings up to the end of the shot without a free frame:
 * widened to the end, the last of them held for so much less or longer. The change itself where that cannot be.
 */
export function throughTheEnd(take: Take, change: Change): Change {
  const { layer, from, to, stretch } = change
  const tail = slice(columnOf(take, layer), to, take.length)
  const last = tail[tail.length - 1]
  const left = (last?.frames ?? 0) - (lengthOf(stretch) - (to - from))
  if (!last || left < 1 || tail.some(run => run.drawing === null) || touchesCycle(take, layer, to, take.length))
    return change
  const ending = [...tail.slice(0, -1), { ...last, frames: left }]
  return { layer, from, to: take.length, stretch: [...stretch, ...ending], cycle: null }
}

/** Edits one after the other, each on the document that the ones before lead to; all of them or the first refusal. */
export function inTurn(
  document: ShotDocument,
  take: string,
  edits: readonly ((document: ShotDocument, take: Take) => Proposal)[],
): Proposal {
  let now = document
  const ops: Operation[] = []
  for (const edit of edits) {
    const step = edit(now, get(now.takes, take))
    if (!step.ok) return step
    const result = applyBatch(now, step.ops)
    if (!result.ok) return { ok: false, code: 'too-much' }
    now = result.document
    ops.push(...step.ops)
  }
  return proposed(ops)
}

/** What of a thing is another in `next`; null where nothing is. */
export function changedIn<T extends object>(thing: T, next: T): Partial<T> | null {
  const changed = (Object.keys(next) as (keyof T)[]).filter(key => next[key] !== thing[key])
  return changed.length > 0 ? (Object.fromEntries(changed.map(key => [key, next[key]])) as Partial<T>) : null
}
