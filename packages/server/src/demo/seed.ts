import { BATCHES_PER_REQUEST, assetIds } from '@unhurried/core/document'
import type { Logger } from 'pino'
import type { DataSource } from 'typeorm'
import { accountService } from '../services/accounts.ts'
import { filmService } from '../services/films.ts'
import { journalService, type JournalService } from '../services/journal.ts'
import { mediaService } from '../services/media.ts'
import { modelService } from '../services/models.ts'
import { ACORN, acornExercise } from './acorn.ts'
import { DEMO_ACCOUNT } from './account.ts'
import { heronLifts, heronShivers } from './heron.ts'
import { HOP, hop } from './hop.ts'
import { hangingLantern, jellyPebbles, mistOverStone, reedInTheWind } from './exercises.ts'
import { LANTERN, lantern } from './lantern.ts'
import { MARCHING, marching } from './marching.ts'
import { modelSheet } from './modelSheet.ts'
import { STAMP, stamp } from './stamp.ts'
import { WALTZ } from './reeds.ts'
import { waltz } from './waltz.ts'
import { meantSo } from './meant.ts'
import { LETTER, troubledHop } from './troubled.ts'
import type { Drawn, StudyPaper } from './study.ts'

/** Exercises with their guides laid, half drawn. */
const EXERCISES = [
  ['A hanging lantern', 'lantern', hangingLantern],
  ['Jelly pebbles', 'pebbles', jellyPebbles],
  ['A reed in the wind', 'reed', reedInTheWind],
  ['Mist over a warm stone', 'mist', mistOverStone],
] as const

const paperOf = ({ width, height, fps, frames, paper }: StudyPaper): StudyPaper => ({
  width,
  height,
  fps,
  frames,
  paper,
})
const NO_BOUNDS = { oneBytes: Infinity, filmBytes: Infinity }

/** Fills an empty installation with The Marsh Post, once: account, film and shots, drawn through the shots' journals. */
export async function seedDemo(source: DataSource, log: Logger): Promise<void> {
  const accounts = accountService(source)
  if (!(await accounts.isEmpty())) return
  log.info('drawing the demo film, about twenty seconds')
  // What is drawn is worked out first: nothing is left half done where that fails.
  const [hopping, lamp, walking, puff, nut, reeds] = [hop(), lantern(), marching(), stamp(), acornExercise(), waltz()]
  const [lifting, shivering] = [heronLifts(), heronShivers()]
  const troubled = troubledHop()
  const studies = EXERCISES.map(([name, layer, make]) => ({ name, layer, ...make() }))
  const owner = await accounts.create(DEMO_ACCOUNT)
  const journal = journalService(source)
  const films = filmService(source)

  const media = mediaService(source, NO_BOUNDS)
  const draw = async (film: string, name: string, shot: StudyPaper, layer: string, drawn: Drawn) => {
    for (const recording of drawn.recordings) await media.store(film, recording)
    const { frames, ...format } = shot
    const { id } = await films.addShot(film, { name, frames, layer, format })
    await drawAll(journal, id, owner.id, drawn)
    const { document, seq } = await journal.read(id)
    const meant = meantSo(name, document, drawn.samples)
    if (meant.length > 0) await drawAll(journal, id, owner.id, { ...drawn, batches: meant }, seq)
  }
  const marsh = await films.create(owner.id, 'The Marsh Post')
  const { model, pictures } = modelSheet()
  for (const picture of pictures) await media.store(marsh.id, picture)
  await modelService(source).keep(marsh.id, 'tilda', 0, model)
  await draw(marsh.id, 'Hop between lily pads', HOP, 'Tilda', hopping)
  await draw(marsh.id, 'Lantern', LANTERN, 'flame', lamp)
  await draw(marsh.id, 'Marching home', MARCHING, 'Tilda', walking)
  await draw(marsh.id, 'The stamp', STAMP, 'face', puff)
  await draw(marsh.id, 'Reed waltz', paperOf(WALTZ), 'rough', reeds)
  await draw(marsh.id, 'Heron lifts a foot', lifting.paper, 'pencil', lifting.drawn)
  await draw(marsh.id, 'Heron shivers', shivering.paper, 'pencil', shivering.drawn)
  const exercises = await films.create(owner.id, 'Exercises')
  await draw(exercises.id, 'A dropped acorn', ACORN, 'acorn', nut)
  await modelService(source).keep(exercises.id, 'letter', 0, LETTER)
  await draw(exercises.id, 'A troubled hop', HOP, 'Tilda', troubled)
  for (const { name, layer, paper, drawn } of studies) await draw(exercises.id, name, paper, layer, drawn)
}

/** Commits a drawn shot as a desk does: in requests of a few dozen batches, each with the samples it uses. */
async function drawAll(journal: JournalService, shot: string, account: string, drawn: Drawn, since = 0): Promise<void> {
  for (let i = 0; i < drawn.batches.length; i += BATCHES_PER_REQUEST) {
    const batches = drawn.batches.slice(i, i + BATCHES_PER_REQUEST)
    const used = batches.flatMap(batch => assetIds(batch.ops))
    const samples = Object.fromEntries(
      used.map(id => [id, Buffer.from(drawn.samples.get(id) ?? []).toString('base64')]),
    )
    const { refused } = await journal.post(
      shot,
      { account, onlyReviews: false },
      { since: since + i, batches: [...batches], samples },
    )
    if (refused[0]) throw new Error(`the demo cannot be drawn: ${refused[0].code} ${refused[0].what}`)
  }
}
