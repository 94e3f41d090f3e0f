import { ASSET_KINDS, assetFault, type AssetName } from '@unhurried/core/assets'
import { STROKE_BYTES_PER_SHOT } from '@unhurried/contract'
import type { DataSource, EntityManager } from 'typeorm'
import { Problem } from '../problems/problem.ts'
import { AHEAD } from './assets.ts'
import type { MediaService } from './media.ts'

/** What no batch has used after so long is let go: its desk sends it once more. */
const KEPT_HOURS = 24

/** What is to be kept, and where its bytes lie: here, or with the media of the film under this name. */
interface Coming {
  readonly id: string
  readonly kind: AssetName
  readonly length: number
  readonly bytes: Buffer | null
  readonly media: string | null
}

/**
 * Stored things sent ahead of the batch that uses them, one by one, so that a step with many pictures is still one step. Until a
 * batch uses them nobody sees them.
 */
export function aheadService(source: DataSource, media: MediaService) {
  /** Throws a Problem when it is not what it says. */
  function look(kind: AssetName, bytes: Buffer): void {
    const fault = assetFault(kind, bytes)
    if (fault) throw new Problem('bad-request', `What was sent is no ${kind} that can be kept: ${fault}.`)
  }

  /** Keeps one, where there is room for it. Throws a Problem where there is none. */
  async function keep(shotId: string, coming: Coming): Promise<void> {
    await source.transaction(async tx => {
      // Two at once are counted one after the other.
      const [shot]: { stroke_bytes: string }[] = await tx.query(
        'SELECT stroke_bytes FROM shots WHERE id = $1 FOR UPDATE',
        [shotId],
      )
      await tx.query(`DELETE FROM assets_ahead WHERE created_at < now() - interval '${KEPT_HOURS} hours'`)
      const used = Number(shot?.stroke_bytes ?? 0) + (await waitingBytes(tx, shotId, coming.id))
      if (used + coming.length > STROKE_BYTES_PER_SHOT) {
        throw new Problem('too-large', 'Strokes and pictures of this shot would be more than it may hold.')
      }
      await tx.query(
        `INSERT INTO assets_ahead (shot_id, id, kind, bytes, media) VALUES ($1, $2, $3, $4, $5) ON CONFLICT DO NOTHING`,
        [shotId, coming.id, coming.kind, coming.bytes, coming.media],
      )
    })
  }

  return {
    /** Keeps one for a shot. Sent again it is known. Throws a Problem when it is not what it says, or there is no room for it. */
    async take(shotId: string, id: string, kind: AssetName, bytes: Buffer): Promise<void> {
      look(kind, bytes)
      await keep(shotId, { id, kind, length: bytes.length, bytes, media: null })
    },

    /** The same for a picture that was sent in pieces: its SHA-256 is all that comes. Throws a Problem when the film does not have all of it. */
    async name(shotId: string, film: string, id: string, name: string): Promise<void> {
      const stored = await media.open(film, name)
      if (stored.bytes > ASSET_KINDS.picture.mostBytes) {
        throw new Problem('too-large', 'It is larger than a picture of a drawing may be.')
      }
      const pieces: Buffer[] = []
      for await (const piece of stored.read(0, stored.bytes)) pieces.push(piece)
      look('picture', Buffer.concat(pieces))
      await keep(shotId, { id, kind: 'picture', length: stored.bytes, bytes: null, media: name })
    },
  }
}

/** How many bytes wait for batches of a shot, one of them aside. */
async function waitingBytes(tx: EntityManager, shotId: string, aside: string): Promise<number> {
  const [waiting]: { sum: string | null }[] = await tx.query(
    `SELECT sum(length) AS sum FROM (${AHEAD}) waiting WHERE id <> $2`,
    [shotId, aside],
  )
  return Number(waiting?.sum ?? 0)
}

export type AheadService = ReturnType<typeof aheadService>
