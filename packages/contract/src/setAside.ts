import type { Batch as CoreBatch } from '@unhurried/core/document'
import { z } from 'zod'
import { AssetText } from './api.ts'
import { migrateOperations } from './migrations.ts'
import { Batch } from './operations.ts'
import { Id, Name } from './pieces.ts'

/** Says what a file is, in the file. */
export const SET_ASIDE_KIND = 'unhurried-sketch set aside'

/** A change that the server did not take, as a file: what was done, and the strokes it brings. */
export const SetAsideFile = z.strictObject({
  kind: z.literal(SET_ASIDE_KIND),
  /** the document schema that the operations were written for */
  schema: z.number().int(),
  label: Name,
  /** why it was not taken */
  code: z.string().max(60),
  what: z.string().max(500),
  at: z.iso.datetime(),
  ops: z.array(z.looseObject({ kind: z.string() })).min(1),
  samples: z.record(Id, AssetText),
})
export type SetAsideFile = z.infer<typeof SetAsideFile>

/** A file read; or in words what is wrong with it. */
export type SetAsideReading =
  | { readonly ok: true; readonly file: SetAsideFile; readonly batch: CoreBatch }
  | { readonly ok: false; readonly words: string }

/** Reads such a file, of any schema so far, and gives the change a new name. */
export function readSetAside(text: string, id: string): SetAsideReading {
  try {
    const file = SetAsideFile.parse(JSON.parse(text))
    const batch = Batch.parse({ id, label: file.label, ops: migrateOperations(file.ops, file.schema) })
    return { ok: true, file, batch }
  } catch (error) {
    if (error instanceof z.ZodError) {
      const issue = error.issues[0]
      return { ok: false, words: `${issue?.path.map(String).join('.') || 'file'}: ${issue?.message}` }
    }
    return { ok: false, words: error instanceof RangeError ? error.message : 'this is no file of this kind' }
  }
}
