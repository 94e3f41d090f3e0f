import type { Bin } from '@unhurried/contract'
import type { DataSource } from 'typeorm'

interface FilmInBin {
  id: string
  name: string
  removed_at: Date
  shots: number
}
interface ShotInBin {
  id: string
  name: string
  film: string
  removed_at: Date
}

/**
 * What was removed from the shelf: it lies here for some days and can be put back, is thrown away by the owner of its film,
 * or goes by itself when its days are over.
 */
export function binService(source: DataSource, days: number) {
  const leaves = (removed: Date) => new Date(removed.getTime() + days * 24 * 60 * 60 * 1000).toISOString()

  return {
    /** Everything in the bin that an account may put back, the newest first. */
    async of(account: string): Promise<Bin> {
      const films: FilmInBin[] = await source.query(
        `SELECT f.id, f.name, f.removed_at,
           (SELECT count(*)::int FROM shots s WHERE s.film_id = f.id AND s.removed_at IS NULL) AS shots
         FROM films f JOIN members m ON m.film_id = f.id
         WHERE m.account_id = $1 AND m.role = 'owner' AND f.removed_at IS NOT NULL ORDER BY f.removed_at DESC`,
        [account],
      )
      const shots: (ShotInBin & { role: string })[] = await source.query(
        `SELECT s.id, s.name, f.name AS film, s.removed_at, m.role
         FROM shots s JOIN films f ON f.id = s.film_id JOIN members m ON m.film_id = f.id
         WHERE m.account_id = $1 AND m.role <> 'reviewer' AND s.removed_at IS NOT NULL AND f.removed_at IS NULL
         ORDER BY s.removed_at DESC`,
        [account],
      )
      const times = ({ removed_at }: { removed_at: Date }) => ({
        removedAt: removed_at.toISOString(),
        leavesAt: leaves(removed_at),
      })
      return {
        days,
        films: films.map(row => ({ id: row.id, name: row.name, shots: row.shots, ...times(row) })),
        shots: shots.map(row => ({
          id: row.id,
          name: row.name,
          film: row.film,
          mayThrowAway: row.role === 'owner',
          ...times(row),
        })),
      }
    },

    /** Throws a film or a shot away for good, if it lies in the bin. Its strokes and journal go with it. */
    throwAway: async (what: 'film' | 'shot', id: string): Promise<void> =>
      void (await source.query(`DELETE FROM ${what}s WHERE id = $1 AND removed_at IS NOT NULL`, [id])),

    /** Throws away for good all that an account owns and that lies in the bin now. */
    async empty(account: string): Promise<void> {
      const owned = `SELECT film_id FROM members WHERE account_id = $1 AND role = 'owner'`
      await source.query(
        `DELETE FROM shots WHERE removed_at IS NOT NULL AND film_id IN (${owned})
         AND NOT EXISTS (SELECT 1 FROM films f WHERE f.id = film_id AND f.removed_at IS NOT NULL)`,
        [account],
      )
      await source.query(`DELETE FROM films WHERE removed_at IS NOT NULL AND id IN (${owned})`, [account])
    },

    /** Throws away what has lain there for its time: `now` is the moment it is counted from. How many films and shots went. */
    async sweep(now = new Date()): Promise<number> {
      const before = new Date(now.getTime() - days * 24 * 60 * 60 * 1000)
      let gone = 0
      for (const table of ['shots', 'films']) {
        const due: { id: string }[] = await source.query(`SELECT id FROM ${table} WHERE removed_at < $1`, [before])
        // One after the other: a film may hold much, and nobody waits for it.
        for (const { id } of due) {
          await source.query(`DELETE FROM ${table} WHERE id = $1 AND removed_at < $2`, [id, before])
          gone++
        }
      }
      return gone
    },
  }
}

export type BinService = ReturnType<typeof binService>
