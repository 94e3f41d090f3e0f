import { freshDocument, type ShotDocument } from '@unhurried/core/document'
import type { MemberRole, NewShot, Shelf, ShotCard } from '@unhurried/contract'
import { In, IsNull, type DataSource } from 'typeorm'
import { FilmRow, MemberRow, ShotRow, SnapshotRow } from '../db/entities.ts'
import type { JournalService } from './journal.ts'

export const toCard = (row: ShotRow): ShotCard => ({
  id: row.id,
  film: row.filmId,
  name: row.name,
  seq: row.headSeq,
  removed: row.removedAt !== null,
})

export function filmService(source: DataSource, journal: JournalService) {
  const films = source.getRepository(FilmRow)
  const shots = source.getRepository(ShotRow)
  const members = source.getRepository(MemberRow)

  async function addShot(
    filmId: string,
    name: string,
    document: ShotDocument,
    samplesFrom?: string,
  ): Promise<ShotCard> {
    return source.transaction(async tx => {
      const place = await tx.countBy(ShotRow, { filmId })
      const row = await tx.save(ShotRow, { filmId, name, place, headSeq: 0, removedAt: null })
      await tx.insert(SnapshotRow, { shotId: row.id, seq: 0, document: document as object })
      if (samplesFrom) {
        const copy = `INSERT INTO stroke_samples (shot_id, id, bytes) SELECT $1, id, bytes FROM stroke_samples WHERE shot_id = $2`
        await tx.query(copy, [row.id, samplesFrom])
      }
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
        films: filmRows.map(({ id, name }) => ({
          id,
          name,
          role: roles.get(id) as MemberRole,
          shots: shotRows.filter(shot => shot.filmId === id).map(toCard),
        })),
      }
    },

    async create(account: string, name: string): Promise<{ id: string }> {
      return source.transaction(async tx => {
        const film = await tx.save(FilmRow, { name, removedAt: null })
        await tx.insert(MemberRow, { filmId: film.id, accountId: account, role: 'owner' })
        return { id: film.id }
      })
    },

    rename: async (id: string, name: string) => void (await films.update({ id }, { name })),
    setRemoved: async (id: string, removed: boolean) =>
      void (await films.update({ id }, { removedAt: removed ? new Date() : null })),

    addShot: (filmId: string, wanted: NewShot) =>
      addShot(filmId, wanted.name, freshDocument(wanted.format, wanted.frames, wanted.layer)),

    /** A shot of its own with the same drawings; its journal starts anew. */
    async duplicateShot(shot: ShotRow): Promise<ShotCard> {
      const { document } = await journal.read(shot.id)
      return addShot(shot.filmId, `${shot.name} (copy)`.slice(0, 80), document, shot.id)
    },

    renameShot: async (id: string, name: string) => void (await shots.update({ id }, { name })),
    setShotRemoved: async (id: string, removed: boolean) =>
      void (await shots.update({ id }, { removedAt: removed ? new Date() : null })),
  }
}

export type FilmService = ReturnType<typeof filmService>
