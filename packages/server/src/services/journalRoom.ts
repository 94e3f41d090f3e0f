import { storedForm } from '@unhurried/core/document'
import { packStrokes, PostBatches } from '@unhurried/contract'
import type { DataSource } from 'typeorm'
import { readJson } from '../problems/readJson.ts'
import { parse } from '../problems/problem.ts'
import type { ShotAccess } from './access.ts'
import { filmService } from './films.ts'
import { journalService, type Knows } from './journal.ts'
import type { Doer } from './sift.ts'

type ShotNamed = Pick<ShotAccess['shot'], 'id' | 'filmId' | 'name' | 'bytes'>

/**
 * Everything that is done with the documents of shots. Requests come in as bytes and answers go out as bytes (JSON, but for
 * strokes): what costs time, reading and writing included, is done in here, and in here may be another thread.
 */
export interface JournalRoom {
  /** `{ seq, epoch, recent, document }` */
  open(shot: ShotNamed): Promise<Uint8Array>
  after(shot: ShotNamed, knows: Knows): Promise<Uint8Array>
  versions(shot: ShotNamed, drawing: string): Promise<Uint8Array>
  /** strokes packed as in the contract: those named, or all */
  samples(shot: ShotNamed, ids: readonly string[] | undefined): Promise<Uint8Array>
  post(shot: ShotNamed, by: Doer, body: Uint8Array): Promise<Uint8Array>
  /** a copy of the shot, as its card */
  duplicate(shot: ShotNamed): Promise<Uint8Array>
}

const bytesOf = (value: unknown): Uint8Array => Buffer.from(JSON.stringify(value))

/** The room in this thread, on connections of its own data source. */
export function journalRoom(source: DataSource): JournalRoom {
  const journal = journalService(source)
  const films = filmService(source)
  return {
    async open({ id }) {
      const { seq, epoch, recent, document } = await journal.read(id)
      return bytesOf({ seq, epoch, recent, document: storedForm(document) })
    },
    after: async ({ id }, knows) => bytesOf(await journal.after(id, knows)),
    versions: async ({ id }, drawing) => bytesOf({ versions: await journal.versions(id, drawing) }),
    samples: async ({ id }, ids) => packStrokes(await journal.samples(id, ids)),
    post: async ({ id }, by, body) => bytesOf(await journal.post(id, by, parse(PostBatches, readJson(body)))),
    duplicate: async shot => bytesOf(await films.addCopy(shot, (await journal.read(shot.id)).document)),
  }
}

/** What is light enough to be done between the requests of others: some milliseconds each. */
const LIGHT = { post: 64 * 1024, document: 1024 * 1024, strokes: 2 * 1024 * 1024, journal: 512 * 1024 }
/** Retiming goes through whole columns: more than a few such operations are only light on a small sheet. */
const FEW_MOVES = 2
const SMALL_SHEET = 100 * 1024
const MOVES = /"kind":\s*"(?:cycle|frames|take|layer)\./g

/** Sends what is light to one room and what is heavy to another, so that a heavy shot keeps nobody waiting. */
export function lanes(light: JournalRoom, heavy: JournalRoom): JournalRoom {
  const forDocument = ({ bytes }: ShotNamed) => (bytes.document <= LIGHT.document ? light : heavy)
  const forPost = ({ bytes }: ShotNamed, body: Uint8Array) => {
    if (body.length > LIGHT.post) return heavy
    const moves = Buffer.from(body).toString('latin1').match(MOVES)?.length ?? 0
    return bytes.document <= (moves <= FEW_MOVES ? LIGHT.document : SMALL_SHEET) ? light : heavy
  }
  return {
    open: shot => forDocument(shot).open(shot),
    after: (shot, knows) => (shot.bytes.journal <= LIGHT.journal ? light : heavy).after(shot, knows),
    versions: (shot, drawing) => (shot.bytes.journal <= LIGHT.journal ? light : heavy).versions(shot, drawing),
    samples: (shot, ids) => (ids || shot.bytes.strokes <= LIGHT.strokes ? light : heavy).samples(shot, ids),
    post: (shot, by, body) => forPost(shot, body).post(shot, by, body),
    duplicate: shot => forDocument(shot).duplicate(shot),
  }
}
