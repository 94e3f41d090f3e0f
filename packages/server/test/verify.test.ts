import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals'
import { FIRST } from '@unhurried/core/document'
import { createHash } from 'node:crypto'
import { verifyAll } from '../src/services/verify.ts'
import {
  batch,
  type Bench,
  benchWithOwner,
  filmWithShot,
  newDrawing,
  post,
  stroke,
  visitor,
  type Visitor,
} from './harness.ts'

let b: Bench
let agent: Visitor
let shot: string

beforeAll(async () => {
  ;({ b, agent } = await benchWithOwner())
})
beforeEach(async () => {
  ;({ shot } = await filmWithShot(agent))
  const longer = (i: number) => batch(`l${i}`, { kind: 'frames.insert', take: FIRST.take, at: 0, count: 1, fill: {} })
  await post(agent, shot, [newDrawing('d1', 1), stroke('a'), ...Array.from({ length: 40 }, (_, i) => longer(i))])
  await post(
    agent,
    shot,
    Array.from({ length: 30 }, (_, i) => longer(40 + i)),
  )
})
afterAll(() => b.close())

const found = async (mend = false) => (await verifyAll(b.source, mend)).findings.filter(f => f.shot === shot)
const opened = async () => (await (await visitor(b.another(), 'owner')).get(`/api/shots/${shot}`)).body

test('what is in order is said to be, and counted', async () => {
  const { shots, entries, strokes, findings } = await verifyAll(b.source, false)
  expect([shots, entries, strokes, findings]).toEqual([1, 72, 1, []])
})

test('a wrong document is found though its hash is right, and made anew from the journal', async () => {
  const right = await opened()
  const [{ text }] = await b.source.query(
    'SELECT document::text AS text FROM snapshots WHERE shot_id = $1 AND seq > 0',
    [shot],
  )
  const wrong = text.replace('"length":94', '"length":93')
  expect(wrong).not.toBe(text)
  await b.source.query('UPDATE snapshots SET document = $2::json, hash = $3 WHERE shot_id = $1 AND seq > 0', [
    shot,
    wrong,
    createHash('sha256').update(wrong).digest('hex'),
  ])
  expect((await opened()).document).not.toEqual(right.document)
  expect(await found()).toMatchObject([
    { what: 'the document written down at 72 is not what the journal makes', mended: false },
  ])
  expect(await found(true)).toMatchObject([{ mended: true }])
  expect(await found()).toEqual([])
  expect((await opened()).document).toEqual(right.document)
})

test('a number, sums and strokes that are wrong are mended; what only the journal knows is told', async () => {
  await b.source.query('UPDATE shots SET head_seq = 70, journal_bytes = 1 WHERE id = $1', [shot])
  await b.source.query("INSERT INTO assets (shot_id, id, kind, bytes) VALUES ($1, 'unused', 'samples', 'x')", [shot])
  expect((await found(true)).map(f => [f.what, f.mended])).toEqual([
    ['says that its newest entry is 70, and it is 72', true],
    ['keeps 1 strokes (1 bytes) that nothing ever used', true],
    ['counts its bytes wrong', true],
  ])
  expect(await found()).toEqual([])
  await b.source.query("DELETE FROM assets WHERE shot_id = $1 AND id = 's1'", [shot])
  await b.source.query('DELETE FROM journal WHERE shot_id = $1 AND seq = 50', [shot])
  const left = (await found(true)).filter(f => !f.mended).map(f => f.what)
  expect(left).toContain('entry 50 of the journal is missing')
  expect(left).toContain('lacks the samples of 1 strokes: s1')
})
