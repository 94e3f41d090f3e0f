import { DOCUMENT_SCHEMA, LIMITS, type ShotDocument as CoreDocument } from '@unhurried/core/document'
import { LONGEST_SHOT_FRAMES } from '@unhurried/core/time'
import { z } from 'zod'
import { Chart } from './charts.ts'
import * as p from './pieces.ts'

const Take = z
  .strictObject({
    id: p.Id,
    name: p.Name,
    length: p.FrameCount,
    loop: p.Loop,
    columns: p.tableOf(z.array(p.Run).max(LONGEST_SHOT_FRAMES).readonly(), LIMITS.layers),
  })
  .readonly()

const Swatch = z.strictObject({ id: p.Id, name: p.Name, colour: p.Colour }).readonly()

export const ShotDocument = z
  .strictObject({
    schema: z.literal(DOCUMENT_SCHEMA),
    format: p.Format,
    layers: p.tableOf(p.Layer, LIMITS.layers),
    drawings: p.tableOf(p.Drawing, LIMITS.drawings),
    charts: p.tableOf(Chart, LIMITS.charts),
    takes: p.tableOf(Take, 100),
    swatches: p.tableOf(Swatch, 500),
  })
  .readonly()

type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never
export const DOCUMENT_AGREES: Same<z.infer<typeof ShotDocument>, CoreDocument> = true

/**
 * Brings a stored document of any earlier schema up to the present one, step by step. Each step is pure and knows only
 * its two neighbours; there is one schema so far and no step yet. Throws on a document from the future.
 */
export function migrateDocument(stored: { schema: number }): CoreDocument {
  if (stored.schema !== DOCUMENT_SCHEMA) {
    throw new RangeError(`this document has schema ${stored.schema}; up to ${DOCUMENT_SCHEMA} can be read`)
  }
  return stored as CoreDocument
}
