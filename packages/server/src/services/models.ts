import type { ModelCard } from '@unhurried/contract'
import { MODEL_LIMITS, type ModelSheet } from '@unhurried/core/models'
import type { DataSource } from 'typeorm'
import { Problem } from '../problems/problem.ts'

const changed = () =>
  new Problem('moved-on', 'Somebody else changed this model sheet meanwhile: it is shown as it is now.')

/** Model sheets of films. Each is changed as a whole; whoever changes one says which turn of it was changed. */
export function modelService(source: DataSource) {
  return {
    /** All of a film, the oldest first. */
    of: (film: string): Promise<ModelCard[]> =>
      source.query('SELECT id, turn, model FROM models WHERE film_id = $1 ORDER BY created_at, id', [film]),

    /** Keeps one, a new one at turn 0. Throws a Problem where it was changed meanwhile, is gone, or there are too many. */
    async keep(film: string, id: string, turn: number, model: ModelSheet): Promise<ModelCard> {
      if (turn > 0) {
        const [rows]: [{ turn: number }[]] = await source.query(
          'UPDATE models SET model = $4, turn = turn + 1 WHERE film_id = $1 AND id = $2 AND turn = $3 RETURNING turn',
          [film, id, turn, model],
        )
        if (!rows[0]) throw changed()
        return { id, turn: rows[0].turn, model }
      }
      return source.transaction(async tx => {
        // Two at once are counted one after the other.
        await tx.query('SELECT 1 FROM films WHERE id = $1 FOR UPDATE', [film])
        const [{ count }]: [{ count: number }] = await tx.query(
          'SELECT count(*)::int AS count FROM models WHERE film_id = $1',
          [film],
        )
        if (count >= MODEL_LIMITS.sheets) {
          throw new Problem('too-large', `A film holds at most ${MODEL_LIMITS.sheets} model sheets.`)
        }
        const made: unknown[] = await tx.query(
          'INSERT INTO models (film_id, id, model) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING RETURNING id',
          [film, id, model],
        )
        if (made.length === 0) throw changed()
        return { id, turn: 1, model }
      })
    },

    /** Takes one off; that it is gone already is no fault. */
    remove: async (film: string, id: string): Promise<void> =>
      void (await source.query('DELETE FROM models WHERE film_id = $1 AND id = $2', [film, id])),
  }
}

export type ModelService = ReturnType<typeof modelService>
