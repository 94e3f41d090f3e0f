import type { Saying } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'

/** Says something of frames `from` up to, but not with, `to`; at least of one. */
export const addSaying = (saying: Saying): Operation[] => [
  { kind: 'saying.add', saying: { ...saying, to: Math.max(saying.from + 1, saying.to) } },
]

/** Says it of other frames; where it would end before it begins, the other end goes along. */
export function changeSaying(saying: Saying, patch: Partial<Pick<Saying, 'from' | 'to'>>): Operation[] {
  const next = { ...saying, ...patch }
  if (next.to > next.from) return [{ kind: 'saying.set', id: saying.id, patch }]
  const both =
    patch.from === undefined
      ? { from: Math.max(0, next.to - 1), to: Math.max(1, next.to) }
      : { from: next.from, to: next.from + 1 }
  return [{ kind: 'saying.set', id: saying.id, patch: both }]
}

/** It is said no more. */
export const removeSaying = (id: string): Operation[] => [{ kind: 'saying.remove', id }]
