import { unpackSamplesSafe } from '@unhurried/core/geometry'
import { SampleText } from '@unhurried/contract'
import { createHash } from 'node:crypto'
import type { EntityManager } from 'typeorm'

/** A stroke as a desk sent it: its bytes, or why they are none. */
export type SentStroke = { readonly ok: true; readonly bytes: Buffer } | { readonly ok: false; readonly fault: string }

/** Decodes and checks the samples of a request, each on its own. */
export function readStrokes(samples: Readonly<Record<string, unknown>>): Map<string, SentStroke> {
  return new Map(Object.entries(samples).map(([id, text]) => [id, readStroke(text)]))
}

function readStroke(text: unknown): SentStroke {
  const encoded = SampleText.safeParse(text)
  if (!encoded.success) return { ok: false, fault: encoded.error.issues[0]?.message ?? 'must be base64' }
  const bytes = Buffer.from(encoded.data, 'base64')
  const result = unpackSamplesSafe(bytes)
  return result.ok ? { ok: true, bytes } : { ok: false, fault: result.fault }
}

const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')

/** Strokes that batches being taken in may use: those stored, and those sent along that were used so far. */
export interface StrokeShelf {
  /** why a batch may not use a stroke as it was sent with it, or null */
  fault(
    id: string,
    sent: ReadonlyMap<string, SentStroke>,
  ): { code: 'unknown-samples' | 'unfit-samples' | 'other-content' } | null
  /** bytes that using these strokes would add */
  adds(ids: readonly string[], sent: ReadonlyMap<string, SentStroke>): number
  use(ids: readonly string[], sent: ReadonlyMap<string, SentStroke>): void
  /** what was used and is new, to be written down; nothing else is kept */
  fresh(): ReadonlyMap<string, Buffer>
}

/** Looks all the strokes that some batches use up at once. */
export async function strokeShelf(tx: EntityManager, shotId: string, wanted: readonly string[]): Promise<StrokeShelf> {
  const rows: { id: string; hash: Buffer }[] =
    wanted.length === 0
      ? []
      : await tx.query('SELECT id, sha256(bytes) AS hash FROM stroke_samples WHERE shot_id = $1 AND id = ANY($2)', [
          shotId,
          wanted,
        ])
  const known = new Map(rows.map(row => [row.id, row.hash.toString('hex')]))
  const fresh = new Map<string, Buffer>()
  const news = (ids: readonly string[], sent: ReadonlyMap<string, SentStroke>): [string, Buffer][] =>
    [...new Set(ids)].flatMap(id => {
      const stroke = sent.get(id)
      return known.has(id) || !stroke?.ok ? [] : [[id, stroke.bytes]]
    })

  return {
    fault(id, sent) {
      const stroke = sent.get(id)
      const hash = known.get(id)
      if (stroke && !stroke.ok) return { code: 'unfit-samples' }
      if (stroke && hash !== undefined && hashOf(stroke.bytes) !== hash) return { code: 'other-content' }
      return stroke || hash !== undefined ? null : { code: 'unknown-samples' }
    },
    adds: (ids, sent) => news(ids, sent).reduce((sum, [, bytes]) => sum + bytes.length, 0),
    use(ids, sent) {
      for (const [id, bytes] of news(ids, sent)) {
        known.set(id, hashOf(bytes))
        fresh.set(id, bytes)
      }
    },
    fresh: () => fresh,
  }
}
