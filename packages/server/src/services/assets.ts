import { assetFault, type AssetRef } from '@unhurried/core/assets'
import { AssetText } from '@unhurried/contract'
import { createHash } from 'node:crypto'
import type { DataSource, EntityManager } from 'typeorm'

/** The bytes of a stored thing as a desk sent them; null when they are no bytes. */
export type Sent = ReadonlyMap<string, Buffer | null>

/** Decodes what came with a request. What each of it is, and whether it is that, is asked when something shows it. */
export function readAssets(texts: Readonly<Record<string, unknown>>): Sent {
  return new Map(
    Object.entries(texts).map(([id, text]) => {
      const encoded = AssetText.safeParse(text)
      return [id, encoded.success ? Buffer.from(encoded.data, 'base64') : null]
    }),
  )
}

const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')

/** Stored things that batches being taken in may use: those stored, and those sent along that were used so far. */
export interface AssetShelf {
  /** why a batch may not use a thing as it was sent with it, or null */
  fault(ref: AssetRef, sent: Sent): 'unknown-asset' | 'unfit-asset' | 'other-content' | null
  /** bytes that using these things would add */
  adds(refs: readonly AssetRef[], sent: Sent): number
  use(refs: readonly AssetRef[], sent: Sent): void
  /** what was used and is new, to be written down; nothing else is kept */
  fresh(): readonly { readonly id: string; readonly kind: string; readonly bytes: Buffer }[]
  /** what was used and had been sent ahead, by id: to be kept from now on */
  fromAhead(): readonly string[]
}

/** A stored thing as it is known here. */
interface Known {
  readonly kind: string
  readonly hash: string
  /** its bytes, where it was sent ahead and nothing uses it yet */
  readonly aheadBytes: number | null
}

/** What waits for a batch of a shot ($1), with its SHA-256 and its length in bytes, wherever its bytes lie. */
export const AHEAD = `
  SELECT a.id, a.kind, COALESCE(a.media, encode(sha256(a.bytes), 'hex')) AS hash,
    COALESCE(octet_length(a.bytes), m.bytes)::int AS length
  FROM assets_ahead a JOIN shots s ON s.id = a.shot_id LEFT JOIN media m ON m.film_id = s.film_id AND m.id = a.media
  WHERE a.shot_id = $1`

/** Looks all the things that some batches use up at once. */
export async function assetShelf(tx: EntityManager, shotId: string, wanted: readonly AssetRef[]): Promise<AssetShelf> {
  const ids = [...new Set(wanted.map(({ id }) => id))]
  const rows: { id: string; kind: string; hash: string; ahead: number | null }[] =
    ids.length === 0
      ? []
      : await tx.query(
          `SELECT id, kind, hash, length AS ahead FROM (${AHEAD}) waiting WHERE id = ANY($2)
           UNION ALL SELECT id, kind, hash, NULL FROM assets_whole WHERE shot_id = $1 AND id = ANY($2)`,
          [shotId, ids],
        )
  // What is stored already counts for more than what was sent ahead under the same name.
  const storedLast = [...rows.filter(row => row.ahead !== null), ...rows.filter(row => row.ahead === null)]
  const known = new Map(
    storedLast.map(({ id, kind, hash, ahead }): [string, Known] => [id, { kind, hash, aheadBytes: ahead }]),
  )
  const moved: string[] = []
  const fresh: { id: string; kind: string; bytes: Buffer }[] = []
  const checked = new WeakMap<Buffer, Map<string, boolean>>()

  /** Bytes may be sent for many batches; they are read once. */
  function isFit(kind: AssetRef['kind'], bytes: Buffer): boolean {
    const answers = checked.get(bytes) ?? new Map<string, boolean>()
    const fit = answers.get(kind) ?? assetFault(kind, bytes) === null
    checked.set(bytes, answers.set(kind, fit))
    return fit
  }
  const news = (refs: readonly AssetRef[], sent: Sent): (readonly [AssetRef, Buffer])[] =>
    [...new Map(refs.map(ref => [ref.id, ref])).values()].flatMap(ref => {
      const bytes = sent.get(ref.id)
      return known.has(ref.id) || !bytes ? [] : [[ref, bytes] as const]
    })

  return {
    fault(ref, sent) {
      const stored = known.get(ref.id)
      const bytes = sent.get(ref.id)
      if (bytes === null || (stored && stored.kind !== ref.kind)) return 'unfit-asset'
      if (bytes && stored && hashOf(bytes) !== stored.hash) return 'other-content'
      if (bytes) return stored || isFit(ref.kind, bytes) ? null : 'unfit-asset'
      return stored ? null : 'unknown-asset'
    },
    adds: (refs, sent) =>
      news(refs, sent).reduce((sum, [, bytes]) => sum + bytes.length, 0) +
      [...new Set(refs.map(({ id }) => id))].reduce((sum, id) => sum + (known.get(id)?.aheadBytes ?? 0), 0),
    use(refs, sent) {
      for (const [{ id, kind }, bytes] of news(refs, sent)) {
        known.set(id, { kind, hash: hashOf(bytes), aheadBytes: null })
        fresh.push({ id, kind, bytes })
      }
      for (const { id } of refs) {
        const one = known.get(id)
        if (!one || one.aheadBytes === null) continue
        known.set(id, { ...one, aheadBytes: null })
        moved.push(id)
      }
    },
    fresh: () => fresh,
    fromAhead: () => moved,
  }
}

/** What the media of the film know pictures of a shot by, by their own ids: of those asked for, or of all. */
export async function pictureNames(source: DataSource, shotId: string, ids?: readonly string[]) {
  const rows: { id: string; media: string }[] = await source.query(
    'SELECT id, media FROM assets WHERE shot_id = $1 AND media IS NOT NULL AND ($2::text[] IS NULL OR id = ANY($2))',
    [shotId, ids ?? null],
  )
  return Object.fromEntries(rows.map(({ id, media }) => [id, media]))
}
