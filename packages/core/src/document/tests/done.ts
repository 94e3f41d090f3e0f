import { expect } from '@jest/globals'
import type { ShotDocument } from '../model/model.ts'
import { applyBatch, type Operation } from '../operations/index.ts'

/** A document after operations, which are undone exactly; throws where they are refused. */
export function done(document: ShotDocument, ops: readonly Operation[]): ShotDocument {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  expect(applyBatch(result.document, result.inverse)).toMatchObject({ ok: true, document })
  return result.document
}

/** Makes ids one after the other: id0, id1 … */
export function counting(): () => string {
  let n = 0
  return () => `id${n++}`
}
