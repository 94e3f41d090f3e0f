import { expect, test } from '@jest/globals'
import { Writable } from 'node:stream'
import { pino } from 'pino'
import { streams } from '../src/http/streams.ts'
import type { ShotAccess } from '../src/services/access.ts'
import type { Visit } from '../src/services/accounts.ts'
import { announcer, type AccessGone, type Announcer } from '../src/services/announcer.ts'
import type { JournalRoom } from '../src/services/journalRoom.ts'

const access = { film: { id: 'f' }, shot: { id: 's', headSeq: 0 } } as unknown as ShotAccess
const visit = (session: string) =>
  ({ session, account: { id: session }, expiresAt: new Date(Date.now() + 60_000) }) as unknown as Visit

/** Streams of one shot, with an announcer that tells what it is told to tell. */
function open() {
  let hear: (seq: number) => unknown = () => undefined
  let gone: (what: AccessGone) => void = () => undefined
  const told = {
    hear: (_shot: string, hearer: typeof hear) => ((hear = hearer), () => undefined),
    onGone: (guard: typeof gone) => void (gone = guard),
  } as unknown as Announcer
  const journal = { after: () => Promise.reject(new Error('not now')) } as unknown as JournalRoom
  const all = streams(told, journal, { perAccount: 5, perServer: 5 })
  return { all, tell: (seq: number) => hear(seq), end: (what: AccessGone) => gone(what) }
}

test('a word that comes between the end of a stream and its closing goes nowhere, and harms nobody', async () => {
  const { all, tell, end } = open()
  const [mine, other] = [all.open(visit('a'), access, 'e'), all.open(visit('b'), access, 'e')]
  let heard = ''
  other.on('data', part => (heard += String(part)))
  const faults: unknown[] = []
  mine.on('error', error => faults.push(error))
  end({ kind: 'session', session: 'a' })
  await tell(7)
  await new Promise(done => setImmediate(done))
  expect([mine.writableEnded, mine.errored, faults]).toEqual([true, null, []])
  expect(heard).toContain('"seq":7')
})

test('one who hears of a change and fails, at once or later, is written down; the others still hear', async () => {
  let logged = ''
  const log = pino({}, new Writable({ write: (part, _encoding, done) => ((logged += String(part)), done()) }))
  const word = announcer(process.env.TEST_CLUSTER_URL as string, log)
  const heard: number[] = []
  word.hear('s', () => {
    throw new Error('at once')
  })
  word.hear('s', () => Promise.reject(new Error('later')))
  word.hear('s', seq => heard.push(seq))
  word.tell('s', 3)
  await new Promise(done => setImmediate(done))
  expect(heard).toEqual([3])
  expect(logged).toMatch(/at once[\s\S]*later/)
})
