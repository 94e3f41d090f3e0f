import { assetFault, type AssetName } from '@unhurried/core/assets'
import { STROKE_BYTES_PER_SHOT } from '@unhurried/contract'
import type { DataSource } from 'typeorm'
import { Problem } from '../problems/problem.ts'

/** What no batch has used after so long is let go: its desk sends it once more. */
const KEPT_HOURS = 24

/**
 * Stored things sent ahead of the batch that uses them, one by one, so that a step with many pictures is still one step. Until a
 * batch uses them nobody sees them.
 */
export function aheadService(source: DataSource) {
  return {
    /** Keeps one for a shot. Sent again it is known. Throws a Problem when it is not what it says, or there is no room for it. */
    async take(shotId: string, id: string, kind: AssetName, bytes: Buffer): Promise<void> {
      const fault = assetFault(kind, bytes)
      if (fault) throw new Problem('bad-request', `What was sent is no ${kind} that can be kept: ${fault}.`)
      await source.transaction(async tx => {
        // Two at once are counted one after the other.
        const [shot]: { stroke_bytes: string }[] = await tx.query(
          'SELECT stroke_bytes FROM shots WHERE id = $1 FOR UPDATE',
          [shotId],
        )
        await tx.query(`DELETE FROM assets_ahead WHERE created_at < now() - interval '${KEPT_HOURS} hours'`)
        const [waiting]: { sum: string | null }[] = await tx.query(
          'SELECT sum(octet_length(bytes)) AS sum FROM assets_ahead WHERE shot_id = $1 AND id <> $2',
          [shotId, id],
        )
        const used = Number(shot?.stroke_bytes ?? 0) + Number(waiting?.sum ?? 0)
        if (used + bytes.length > STROKE_BYTES_PER_SHOT) {
          throw new Problem('too-large', 'Strokes and pictures of this shot would be more than it may hold.')
        }
        await tx.query(
          `INSERT INTO assets_ahead (shot_id, id, kind, bytes) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING`,
          [shotId, id, kind, bytes],
        )
      })
    },
  }
}

export type AheadService = ReturnType<typeof aheadService>
