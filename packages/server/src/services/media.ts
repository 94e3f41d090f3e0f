import { MEDIA_FORMS, mediaChunkBytes, mediaChunks, mediaForm, type MediaFormName } from '@unhurried/core/assets'
import type { MediaRoom, MediaState } from '@unhurried/contract'
import { createHash } from 'node:crypto'
import type { DataSource, EntityManager } from 'typeorm'
import { Problem } from '../problems/problem.ts'

/** How large one recording or clip may be, and all of a film together, in bytes. */
export interface MediaBounds {
  readonly oneBytes: number
  readonly filmBytes: number
}

/** What no shot refers to is let go after so long; so is what has begun to be sent and goes on no more. */
const KEPT_HOURS = 24

interface MediaRow {
  bytes: string
  form: MediaFormName | null
  whole: boolean
}

/** A stored recording or clip, as it is served. */
export interface StoredMedia {
  readonly bytes: number
  readonly type: string
  /** its bytes from one place up to, but not with, another, piece by piece */
  read(from: number, to: number): AsyncGenerator<Buffer>
}

const unknown = () => new Problem('not-found', 'There is no such recording or clip.')

async function find(tx: EntityManager | DataSource, film: string, id: string): Promise<MediaRow> {
  const [row]: MediaRow[] = await tx.query('SELECT bytes, form, whole FROM media WHERE film_id = $1 AND id = $2', [
    film,
    id,
  ])
  if (!row) throw unknown()
  return row
}

/** How media come in: told of, piece by piece, and looked at when all are there. */
function intake(source: DataSource, bounds: MediaBounds) {
  return {
    /** Says that media are going to be sent, and asks what of them is still missing. Throws a Problem where there is no room. */
    async begin(film: string, id: string, bytes: number): Promise<MediaState> {
      return source.transaction(async tx => {
        // Two at once are counted one after the other.
        await tx.query('SELECT 1 FROM films WHERE id = $1 FOR UPDATE', [film])
        const [there]: MediaRow[] = await tx
          .query(`UPDATE media SET touched_at = now() WHERE film_id = $1 AND id = $2 RETURNING bytes, form, whole`, [
            film,
            id,
          ])
          .then(([rows]: [MediaRow[]]) => rows)
        if (there && Number(there.bytes) !== bytes) {
          throw new Problem('bad-request', 'The same recording or clip was said to have another length.')
        }
        if (there?.whole) return { whole: true, missing: [] }
        if (!there) {
          if (bytes > bounds.oneBytes)
            throw new Problem('too-large', `It has ${inMB(bytes)}; one may have ${inMB(bounds.oneBytes)}.`)
          await letGo(tx, film)
          const [{ sum }]: [{ sum: string | null }] = await tx.query(
            'SELECT sum(bytes) AS sum FROM media WHERE film_id = $1',
            [film],
          )
          if (Number(sum ?? 0) + bytes > bounds.filmBytes) {
            throw new Problem(
              'too-large',
              `The film holds ${inMB(Number(sum ?? 0))} of ${inMB(bounds.filmBytes)} of recordings, clips and pictures: there is no room for ${inMB(bytes)} more.`,
            )
          }
          await tx.query('INSERT INTO media (film_id, id, bytes) VALUES ($1, $2, $3)', [film, id, bytes])
        }
        const rows: { place: number }[] = await tx.query(
          'SELECT place FROM media_chunks WHERE film_id = $1 AND id = $2',
          [film, id],
        )
        const have = new Set(rows.map(row => row.place))
        const all = Array.from({ length: mediaChunks(bytes) }, (_, place) => place)
        return { whole: false, missing: all.filter(place => !have.has(place)) }
      })
    },

    /** Keeps one piece. Sent again it is known. Throws a Problem when it is not as long as that piece is. */
    async take(film: string, id: string, place: number, bytes: Buffer): Promise<void> {
      const row = await find(source, film, id)
      const all = Number(row.bytes)
      if (place >= mediaChunks(all)) throw new Problem('bad-request', `There is no piece ${place}.`)
      if (bytes.length !== mediaChunkBytes(all, place)) {
        throw new Problem(
          'bad-request',
          `Piece ${place} has ${mediaChunkBytes(all, place)} bytes, not ${bytes.length}.`,
        )
      }
      if (row.whole) return
      await source.query(
        `INSERT INTO media_chunks (film_id, id, place, bytes) SELECT $1, $2, $3, $4
         WHERE EXISTS (SELECT 1 FROM media WHERE film_id = $1 AND id = $2 AND NOT whole) ON CONFLICT DO NOTHING`,
        [film, id, place, bytes],
      )
    },

    /** Says that all has been sent. What turns out to be something else is let go, with a Problem. */
    async finish(film: string, id: string): Promise<void> {
      const row = await find(source, film, id)
      if (row.whole) return
      const chunks = mediaChunks(Number(row.bytes))
      const hash = createHash('sha256')
      let form: MediaFormName | null = null
      for (let place = 0; place < chunks; place++) {
        const [chunk]: { bytes: Buffer }[] = await source.query(
          'SELECT bytes FROM media_chunks WHERE film_id = $1 AND id = $2 AND place = $3',
          [film, id, place],
        )
        if (!chunk) throw new Problem('bad-request', `Piece ${place} of ${chunks} is missing.`)
        if (place === 0) form = mediaForm(chunk.bytes)
        hash.update(chunk.bytes)
      }
      const isIt = hash.digest('hex') === id
      if (!isIt || form === null) {
        await source.query('DELETE FROM media WHERE film_id = $1 AND id = $2 AND NOT whole', [film, id])
        throw new Problem(
          'bad-request',
          isIt ? 'It is no recording or clip that can be kept.' : 'What was sent is not what it was said to be.',
        )
      }
      await source.query('UPDATE media SET whole = true, form = $3 WHERE film_id = $1 AND id = $2', [film, id, form])
    },
  }
}

/**
 * Recordings and clips of a film. They are known by the SHA-256 of their bytes, so that the same one is stored once; they come in pieces,
 * in any order, and go on where they were cut off.
 */
export function mediaService(source: DataSource, bounds: MediaBounds) {
  const taking = intake(source, bounds)
  return {
    ...taking,

    /** Stores a whole recording or clip at once. */
    async store(film: string, { id, bytes }: { readonly id: string; readonly bytes: Buffer }): Promise<void> {
      const { missing } = await taking.begin(film, id, bytes.length)
      for (const place of missing) {
        const from = place * mediaChunkBytes(bytes.length, 0)
        await taking.take(film, id, place, bytes.subarray(from, from + mediaChunkBytes(bytes.length, place)))
      }
      await taking.finish(film, id)
    },

    /** How much there is of a film, and how much there may be. */
    async room(film: string): Promise<MediaRoom> {
      const [row]: { sum: string | null }[] = await source.query(
        'SELECT sum(bytes) AS sum FROM media WHERE film_id = $1',
        [film],
      )
      return { used: Number(row?.sum ?? 0), ...bounds }
    },

    /** What is stored under an id. Throws a Problem when it is not there, or not all of it yet. */
    async open(film: string, id: string): Promise<StoredMedia> {
      const row = await find(source, film, id)
      if (!row.whole || !row.form) throw unknown()
      const all = Number(row.bytes)
      async function* read(from: number, to: number): AsyncGenerator<Buffer> {
        const size = mediaChunkBytes(all, 0)
        for (let place = Math.floor(from / size); place * size < to; place++) {
          const start = Math.max(0, from - place * size)
          const [chunk]: { bytes: Buffer }[] = await source.query(
            'SELECT substring(bytes FROM $4 FOR $5) AS bytes FROM media_chunks WHERE film_id = $1 AND id = $2 AND place = $3',
            [film, id, place, start + 1, Math.min(size, to - place * size) - start],
          )
          // It was let go while it was read.
          if (!chunk) throw unknown()
          yield chunk.bytes
        }
      }
      return { bytes: all, type: MEDIA_FORMS[row.form].type, read }
    },

    /** Lets go of what nothing refers to any more, in all films. How many recordings and clips went. */
    sweep: async (): Promise<number> => letGo(source, null),
  }
}

export type MediaService = ReturnType<typeof mediaService>

const inMB = (bytes: number): string => `${Math.ceil(bytes / 1024 / 1024)} MB`

/** Lets go of what no shot and no model sheet of its film refers to, and of what nobody goes on sending, once it is old enough. */
async function letGo(tx: EntityManager | DataSource, film: string | null): Promise<number> {
  const [, gone]: [unknown, number] = await tx.query(
    `DELETE FROM media m WHERE ($1::uuid IS NULL OR m.film_id = $1) AND m.touched_at < now() - interval '${KEPT_HOURS} hours'
       AND (NOT m.whole OR (NOT EXISTS (
         SELECT 1 FROM media_uses u JOIN shots s ON s.id = u.shot_id WHERE s.film_id = m.film_id AND u.id = m.id)
         AND NOT EXISTS (SELECT 1 FROM assets_ahead a JOIN shots s ON s.id = a.shot_id WHERE s.film_id = m.film_id AND a.media = m.id)
         AND NOT EXISTS (SELECT 1 FROM models o WHERE o.film_id = m.film_id
           AND o.model->'views' @> jsonb_build_array(jsonb_build_object('media', m.id)))))`,
    [film],
  )
  return gone
}
