import {
  assetIds,
  commit as commitTo,
  done,
  doneJoining,
  redone,
  sayingsAlong,
  undone,
  type History,
  type Operation,
  type Proposal,
  type Refusal,
} from '@unhurried/core/document'
import { MOST_OPERATIONS } from '@unhurried/contract'
import { markRaw } from 'vue'
import * as local from '../../local/database.ts'
import { newId } from '../../local/ids.ts'
import { oneLine } from '../../words/oneLine.ts'
import { refusedInWords, whyNotInWords } from '../../words/refusals.ts'
import type { OwnStrokes } from './ownStrokes.ts'
import { deskName, type OpenState } from './state.ts'

export interface CommitOptions {
  /** stroke samples that the operations bring along */
  readonly samples?: ReadonlyMap<string, Uint8Array>
  /** whether this belongs to the step before when it is of the same kind */
  readonly joins?: boolean
  /** what is no change of what is drawn or timed, and is not stepped back through */
  readonly isAside?: boolean
}

/** The steps of the shot on the desk: done, undone, done again. `changed` is called once there is something to be sent. */
export function makeSteps(state: OpenState, strokes: OwnStrokes, changed: () => void) {
  const { id, replica, history, notice } = state
  const desk = deskName()

  function perform(label: string, ops: readonly Operation[]): { inverse: readonly Operation[] } | Refusal {
    const before = replica.value
    if (!before) throw new Error('no shot is open')
    // Labels hold names that people typed, and are stored like them.
    const batch = { id: newId(), label: oneLine(label), ops }
    const result = commitTo(before, batch)
    if (!result.ok) return result.refusal
    replica.value = markRaw(result.replica)
    void local.keep(id.value, batch, strokes.unsent(assetIds(ops))).catch(() => {
      notice.value = 'This machine’s storage is full or closed: changes are only safe once the server has them.'
    })
    changed()
    return { inverse: result.inverse }
  }

  /** The one way to change the shot: at once here, kept on this machine, sent on. Answers with a refusal or null. */
  function commit(label: string, ops: readonly Operation[], more: CommitOptions = {}): Refusal | null {
    if (ops.length === 0) return null
    const { document } = replica.value ?? {}
    const all = document ? [...ops, ...sayingsAlong(document, ops)] : ops
    if (all.length > MOST_OPERATIONS) {
      // The server would not take it in, and everything done afterwards would wait behind it.
      notice.value = `That is ${all.length} changes at once; at most ${MOST_OPERATIONS} can be one step. Do it in parts.`
      return { code: 'too-many', what: 'changes at once' }
    }
    if (more.samples) strokes.make(more.samples)
    const result = perform(label, all)
    if ('code' in result) {
      notice.value = `That cannot be done: ${refusedInWords(result)}.`
      return result
    }
    if (more.isAside) return null
    setHistory((more.joins ? doneJoining : done)(history.value, { label, ops: result.inverse }))
    return null
  }

  /** Commits an edit of the sheet, or tells why it cannot be done. Answers whether it was done. */
  function carryOut(label: string, step: Proposal, more: CommitOptions = {}): boolean {
    if (step.ok) return commit(label, step.ops, more) === null
    notice.value = whyNotInWords(step)
    return false
  }

  /** What is to be kept of the history: one at a time, behind the step itself, and always the newest. */
  let unkept: { readonly shot: string; readonly history: History } | null = null
  let isKeeping = false
  async function keepHistories(): Promise<void> {
    if (isKeeping) return
    isKeeping = true
    for (let one = unkept; one; one = unkept) {
      unkept = null
      await local.keepHistory(one.shot, desk, one.history).catch(() => undefined)
    }
    isKeeping = false
  }

  function setHistory(next: History): void {
    history.value = next
    const before = unkept
    unkept = { shot: id.value, history: next }
    if (before && before.shot !== id.value) void local.keepHistory(before.shot, desk, before.history)
    setTimeout(() => void keepHistories())
  }

  function step(which: 'undo' | 'redo', move: (h: History, inverse: readonly Operation[]) => History) {
    const stack = history.value[which]
    const top = stack[stack.length - 1]
    if (!top) return null
    const result = perform(`${which}: ${top.label}`, top.ops)
    if ('code' in result) {
      notice.value = `“${top.label}” cannot be ${which === 'undo' ? 'undone' : 'redone'} any more: what it touched has changed since.`
      setHistory({ ...history.value, [which]: stack.slice(0, -1) })
      return null
    }
    setHistory(move(history.value, result.inverse))
    return top.ops
  }

  return {
    commit,
    carryOut,
    /** Undoes the newest step and answers with its ops, or null when there was nothing to undo. */
    undo: (): readonly Operation[] | null => step('undo', undone),
    redo: (): readonly Operation[] | null => step('redo', redone),
  }
}
