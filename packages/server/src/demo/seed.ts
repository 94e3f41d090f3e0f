import { BATCHES_PER_REQUEST, freshDocument, samplesUsed, type Format, type Swatch } from '@unhurried/core/document'
import type { Logger } from 'pino'
import type { DataSource } from 'typeorm'
import { FilmRow, MemberRow, ShotRow, SnapshotRow } from '../db/entities.ts'
import { accountService } from '../services/accounts.ts'
import { journalService, type JournalService } from '../services/journal.ts'
import { ACORN, acornExercise } from './acorn.ts'
import { DEMO_ACCOUNT } from './account.ts'
import { HOP, hop, MARSH_SWATCHES, type Drawn } from './hop.ts'

const PAPER = '#fdfaf3'

/** Fills an empty installation with The Marsh Post, once: account, film and shots, drawn through the shots' journals. */
export async function seedDemo(source: DataSource, log: Logger): Promise<void> {
  const accounts = accountService(source)
  if (!(await accounts.isEmpty())) return
  log.info('drawing the demo film, about ten seconds')
  const owner = await accounts.create(DEMO_ACCOUNT)
  const journal = journalService(source)
  const film = await addFilm(source, owner.id, 'The Marsh Post')
  const { frames, ...format } = HOP
  const hopShot = await addShot(
    source,
    film,
    0,
    'Hop between lily pads',
    { ...format, paper: PAPER },
    frames,
    'Tilda',
    MARSH_SWATCHES,
  )
  await drawAll(journal, hopShot, owner.id, hop())
  const exercises = await addFilm(source, owner.id, 'Exercises')
  const { frames: fall, ...square } = ACORN
  const acornShot = await addShot(source, exercises, 0, 'A dropped acorn', { ...square, paper: PAPER }, fall, 'acorn')
  await drawAll(journal, acornShot, owner.id, acornExercise())
}

async function addFilm(source: DataSource, owner: string, name: string): Promise<string> {
  const film = await source.manager.save(FilmRow, { name, removedAt: null })
  await source.manager.insert(MemberRow, { filmId: film.id, accountId: owner, role: 'owner' })
  return film.id
}

async function addShot(
  source: DataSource,
  filmId: string,
  place: number,
  name: string,
  format: Format,
  frames: number,
  layer: string,
  swatches: readonly Swatch[] = [],
): Promise<string> {
  const shot = await source.manager.save(ShotRow, { filmId, name, place, headSeq: 0, removedAt: null })
  const fresh = freshDocument(format, frames, layer)
  const more = Object.fromEntries(swatches.map(swatch => [swatch.id, swatch]))
  const document = { ...fresh, swatches: { ...fresh.swatches, ...more } }
  await source.manager.insert(SnapshotRow, { shotId: shot.id, seq: 0, document: document as object })
  return shot.id
}

/** Commits a drawn shot as a desk does: in requests of a few dozen batches, each with the samples it uses. */
async function drawAll(journal: JournalService, shot: string, account: string, drawn: Drawn): Promise<void> {
  for (let i = 0; i < drawn.batches.length; i += BATCHES_PER_REQUEST) {
    const batches = drawn.batches.slice(i, i + BATCHES_PER_REQUEST)
    const used = batches.flatMap(batch => samplesUsed(batch.ops))
    const samples = Object.fromEntries(
      used.map(id => [id, Buffer.from(drawn.samples.get(id) ?? []).toString('base64')]),
    )
    const { refused } = await journal.post(shot, account, { since: i + batches.length, batches: [...batches], samples })
    if (refused[0]) throw new Error(`the demo cannot be drawn: ${refused[0].code} ${refused[0].what}`)
  }
}
