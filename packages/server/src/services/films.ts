import { freshDocument, type ShotDocument } from '@unhurried/core/document'
import { BYTES_PER_FILM, type MemberRole, type NewShot, type Shelf, type ShotCard } from '@unhurried/contract'
import { In, IsNull, type DataSource, type EntityManager } from 'typeorm'
import { FilmRow, MemberRow, ShotRow } from '../db/entities.ts'
import { Problem } from '../problems/problem.ts'
import { heftOf, written } from './states.ts'

/** A shot as a card of the shelf. */
export const toCard = (row: Pick<ShotRow, 'id' | 'filmId' | 'name' | 'headSeq' | 'removedAt'>): ShotCard => ({
  id: row.id,
  film: row.filmId,
  name: row.name,
  seq: row.headSeq,
  removed: row.removedAt !== null,
})

/** The most films of one owner, shots in one film, and shots of one owner, those in the bin included: a shelf stays quick. */
const MOST_FILMS = 200
const MOST_SHOTS = 500
const MOST_OWNED_SHOTS = 4000

export function filmService(source: DataSource) {
  const films = source.getRepository(FilmRow)
  const shots = source.getRepository(ShotRow)
  const members = source.getRepository(MemberRow)

  async function addShot(
    filmId: string,
    name: string,
    document: ShotDocument,
    samplesFrom?: string,
  ): Promise<ShotCard> {
    const { text, hash } = written(document)
    return source.transaction(async tx => {
      const place = await placeIn(tx, filmId)
      const row = await tx.save(ShotRow, {
        filmId,
        name,
        place,
        headSeq: 0,
        removedAt: null,
        documentBytes: heftOf(document),
      })
      await tx.query('INSERT INTO snapshots (shot_id, seq, document, hash) VALUES ($1, 0, $2::json, $3)', [
        row.id,
        text,
        hash,
      ])
      if (samplesFrom) await copyStrokes(tx, filmId, samplesFrom, row.id)
      return toCard(row)
    })
  }

  return {
    async shelf(account: string): Promise<Shelf> {
      const memberships = await members.findBy({ accountId: account })
      const roles = new Map(memberships.map(m => [m.filmId, m.role]))
      const ids = [...roles.keys()]
      const filmRows = await films.find({ where: { id: In(ids), removedAt: IsNull() }, order: { createdAt: 'ASC' } })
      const shotRows = await shots.find({ where: { filmId: In(ids), removedAt: IsNull() }, order: { place: 'ASC' } })
      return {
        films: filmRows.map(({ id, name, study }) => ({
          id,
          name,
          study,
          role: roles.get(id) as MemberRole,
          shots: shotRows.filter(shot => shot.filmId === id).map(toCard),
        })),
      }
    },

    async create(account: string, name: string): Promise<{ id: string }> {
      return source.transaction(async tx => {
        const owned = await tx.countBy(MemberRow, { accountId: account, role: 'owner' })
        if (owned >= MOST_FILMS) throw new Problem('too-large', `One account may own at most ${MOST_FILMS} films.`)
        const film = await tx.save(FilmRow, { name, study: '', removedAt: null })
        await tx.insert(MemberRow, { filmId: film.id, accountId: account, role: 'owner' })
        return { id: film.id }
      })
    },

    /** Names a film anew, or says whose work it is a study of. */
    change: async (id: string, patch: { readonly name?: string; readonly study?: string }) => {
      if (Object.keys(patch).length > 0) await films.update({ id }, patch)
    },
    setRemoved: async (id: string, removed: boolean) =>
      void (await films.update({ id }, { removedAt: removed ? new Date() : null })),

    addShot: (filmId: string, wanted: NewShot) =>
      addShot(filmId, wanted.name, freshDocument(wanted.format, wanted.frames, wanted.layer)),

    /** A shot of its own with the same drawings; its journal starts anew. */
    addCopy: (shot: Pick<ShotRow, 'id' | 'filmId' | 'name'>, document: ShotDocument) =>
      addShot(shot.filmId, `${shot.name} (copy)`.slice(0, 80), document, shot.id),

    /** Lays shots of a film in an order; those not named lie behind them, in the order they had. */
    async order(film: string, ids: readonly string[]): Promise<void> {
      await source.query(
        `UPDATE shots SET place = o.place FROM (
           SELECT id, (row_number() OVER (ORDER BY array_position($2::uuid[], id), place, created_at) - 1)::int AS place
           FROM shots WHERE film_id = $1) o
         WHERE shots.id = o.id AND shots.place <> o.place`,
        [film, ids],
      )
    },

    renameShot: async (id: string, name: string) => void (await shots.update({ id }, { name })),
    setShotRemoved: async (id: string, removed: boolean) =>
      void (await shots.update({ id }, { removedAt: removed ? new Date() : null })),
  }
}

export type FilmService = ReturnType<typeof filmService>

async function placeIn(tx: EntityManager, filmId: string): Promise<number> {
  const [{ here, next, owned }]: [{ here: number; next: number; owned: number }] = await tx.query(
    `SELECT (SELECT count(*)::int FROM shots WHERE film_id = $1) AS here,
       (SELECT coalesce(max(place) + 1, 0)::int FROM shots WHERE film_id = $1) AS next,
       (SELECT count(*)::int FROM shots s JOIN members m ON m.film_id = s.film_id AND m.role = 'owner'
        WHERE m.account_id IN (SELECT account_id FROM members WHERE film_id = $1 AND role = 'owner')) AS owned`,
    [filmId],
  )
  if (here >= MOST_SHOTS) throw new Problem('too-large', `A film holds at most ${MOST_SHOTS} shots.`)
  if (owned >= MOST_OWNED_SHOTS) throw new Problem('too-large', `One owner has at most ${MOST_OWNED_SHOTS} shots.`)
  return next
}

async function copyStrokes(tx: EntityManager, filmId: string, from: string, to: string): Promise<void> {
  const [{ bytes, film }]: [{ bytes: string; film: string }] = await tx.query(
    `SELECT stroke_bytes AS bytes, (SELECT sum(stroke_bytes + journal_bytes) FROM shots WHERE film_id = $2) AS film
     FROM shots WHERE id = $1`,
    [from, filmId],
  )
  if (Number(film) + Number(bytes) > BYTES_PER_FILM) {
    throw new Problem('too-large', 'The film has no room for a copy: it holds as much as a film may.')
  }
  await tx.query(
    'INSERT INTO assets (shot_id, id, kind, bytes, media) SELECT $1, id, kind, bytes, media FROM assets WHERE shot_id = $2',
    [to, from],
  )
  await tx.query(
    'INSERT INTO media_uses (shot_id, id) SELECT $1, id FROM media_uses WHERE shot_id = $2 ON CONFLICT DO NOTHING',
    [to, from],
  )
  await tx.query('UPDATE shots SET stroke_bytes = $2 WHERE id = $1', [to, bytes])
}
