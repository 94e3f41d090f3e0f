import { joinOf, type Operation } from '../operations/index.ts'

/** One step that can be undone (or redone): what it was, and the operations that do so. */
export interface Step {
  readonly label: string
  readonly ops: readonly Operation[]
}

/** The steps of one desk, newest last. Plain data: it is kept across reloads. */
export interface History {
  readonly undo: readonly Step[]
  readonly redo: readonly Step[]
}

export const EMPTY_HISTORY: History = { undo: [], redo: [] }

/** Steps kept. More than an evening's strokes. */
export const MOST_STEPS = 1000

/** After something new was done: it can be undone, and what had been undone before cannot be redone any more. */
export function done(history: History, step: Step): History {
  return { undo: [...history.undo.slice(-(MOST_STEPS - 1)), step], redo: [] }
}

/**
 * After something was done that belongs to the step before: nudging a stroke ten times is undone at once. Only changes of
 * the same properties of the same strokes are joined, for then undoing the earlier one undoes both; anything else becomes
 * a step of its own.
 */
export function doneJoining(history: History, step: Step): History {
  const last = history.undo[history.undo.length - 1]
  return last && last.label === step.label && undoesToo(last, step)
    ? { undo: history.undo, redo: [] }
    : done(history, step)
}

/** Whether undoing `last` also undoes `step`: both set the same properties of the same elements, and nothing else. */
function undoesToo(last: Step, step: Step): boolean {
  const [a, b] = [last.ops[0], step.ops[0]]
  if (last.ops.length !== 1 || step.ops.length !== 1 || !a || !b || a.kind !== b.kind) return false
  const joined = joinOf(a)
  return joined !== null && joined === joinOf(b)
}

/** After the newest step was undone by committing its ops; `inverse` does it again. */
export function undone(history: History, inverse: readonly Operation[]): History {
  const step = history.undo[history.undo.length - 1]
  if (!step) return history
  return { undo: history.undo.slice(0, -1), redo: [...history.redo, { label: step.label, ops: inverse }] }
}

/** After the newest undone step was redone; `inverse` undoes it. */
export function redone(history: History, inverse: readonly Operation[]): History {
  const step = history.redo[history.redo.length - 1]
  if (!step) return history
  return { undo: [...history.undo, { label: step.label, ops: inverse }], redo: history.redo.slice(0, -1) }
}
