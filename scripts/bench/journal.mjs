// How fast strokes are acknowledged when commits are durable: one desk, fifty on shots of their own, fifty on one shot,
// beside bare INSERT + COMMIT of the same bytes. Answers with rows for the table.
import { createRequire } from 'node:module'
import { batch, drawing, element, makeShot, signIn } from '../torture/desks.mjs'

const pg = createRequire(new URL('../../packages/server/package.json', import.meta.url))('pg')

const DESKS = 50
const PER_SECOND = 2
const SECONDS = 10
/** A second of drawing: about 120 samples. */
const SAMPLES = Buffer.from([1, 120, ...Array.from({ length: 120 }, (_, i) => [16 + (i % 5), 8, 128]).flat()]).toString(
  'base64',
)

const sleep = ms => new Promise(done => setTimeout(done, ms))
const quantile = (values, q) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * q))] ?? NaN
const ms = value => `${value.toFixed(1)} ms`

/** Calls `act` at an even pace from each of many at once; answers with the milliseconds each took. */
async function paced(many, act) {
  const times = []
  await Promise.all(
    Array.from({ length: many }, async (_, i) => {
      await sleep((i * 1000) / PER_SECOND / many)
      for (let k = 0; k < PER_SECOND * SECONDS; k++) {
        const next = sleep(1000 / PER_SECOND)
        const began = performance.now()
        await act(i, k)
        times.push(performance.now() - began)
        await next
      }
    }),
  )
  return times
}

export async function journalRows(cluster, url) {
  const { demo } = await (await fetch(`${url}/api/session`)).json()
  const ask = await signIn(url, demo)
  const rows = []
  const database = cluster.ownUrl()
  const admin = new pg.Client({ connectionString: database })
  await admin.connect()
  const commits = async () => {
    await sleep(1200)
    const { rows: found } = await admin.query(
      'SELECT xact_commit::int AS n FROM pg_stat_database WHERE datname = current_database()',
    )
    return found[0].n
  }
  const known = new Map()
  const stroke = async (shot, i, k) => {
    const id = `s${i}x${k}x${Math.random().toString(36).slice(2, 8)}`
    const one = batch({ kind: 'elements.add', drawing: 'sheet', elements: [element(id)] })
    const body = { since: known.get(`${shot} ${i}`) ?? 0, batches: [one], samples: { [id]: SAMPLES } }
    const reply = await ask(url, 'POST', `/api/shots/${shot}/journal`, body)
    if (reply?.status !== 200 || reply.body.done.length !== 1)
      throw new Error(`not acknowledged: ${JSON.stringify(reply)}`)
    known.set(`${shot} ${i}`, reply.body.head)
  }
  const shotWithSheet = async () => {
    const shot = await makeShot(ask, url)
    await ask(url, 'POST', `/api/shots/${shot}/journal`, {
      since: 0,
      batches: [batch(drawing('sheet', 1))],
      samples: {},
    })
    return shot
  }

  // Bare: the same bytes into a table, committed, from as many connections at the same pace.
  await admin.query('CREATE TABLE IF NOT EXISTS bare (id text PRIMARY KEY, ops json, bytes bytea)')
  const pool = new pg.Pool({ connectionString: database, max: 12 })
  const ops = JSON.stringify([{ kind: 'elements.add', drawing: 'sheet', elements: [element('x')] }])
  const bytes = Buffer.from(SAMPLES, 'base64')
  const bare = await paced(DESKS, (i, k) =>
    pool.query('INSERT INTO bare VALUES ($1, $2, $3)', [`${i}-${k}-${Math.random()}`, ops, bytes]),
  )
  await pool.end()
  const beside = times => `${(quantile(times, 0.5) / quantile(bare, 0.5)).toFixed(1)} × bare INSERT + COMMIT (p50)`
  rows.push({
    what: `bare INSERT + COMMIT, ${DESKS} at ${PER_SECOND} a second (p99)`,
    figure: ms(quantile(bare, 0.99)),
    budget: '–',
    met: true,
    ratio: `p50 ${ms(quantile(bare, 0.5))}`,
  })

  const alone = []
  const own = await shotWithSheet()
  for (let k = 0; k < 80; k++) {
    const began = performance.now()
    await stroke(own, 0, k)
    if (k >= 20) alone.push(performance.now() - began)
  }
  const p95 = quantile(alone, 0.95)
  rows.push({
    what: 'acknowledging a stroke, durable, one desk (p95)',
    figure: ms(p95),
    budget: '< 50 ms',
    met: p95 < 50,
    ratio: beside(alone),
  })

  const shots = []
  for (let i = 0; i < DESKS; i++) shots.push(await shotWithSheet())
  const owns = await paced(DESKS, (i, k) => stroke(shots[i], i, k))
  const p99 = quantile(owns, 0.99)
  rows.push({
    what: `… ${DESKS} desks on shots of their own, ${PER_SECOND} a second (p99)`,
    figure: ms(p99),
    budget: '< 250 ms',
    met: p99 < 250,
    ratio: beside(owns),
  })

  // On one shot, nobody listening and then everybody: listening must not cost the database anything for each desk.
  const strokes = DESKS * PER_SECOND * SECONDS
  const perStroke = []
  for (const listening of [0, 1, 20]) {
    const shot = await shotWithSheet()
    const ends = []
    for (let i = 0; i < listening; i++) {
      const end = new AbortController()
      ends.push(end)
      const stream = await fetch(`${url}/api/shots/${shot}/events`, {
        headers: { Cookie: ask.cookie },
        signal: end.signal,
      })
      void stream.body.pipeTo(new WritableStream()).catch(() => undefined)
    }
    const before = await commits()
    const times = await paced(DESKS, (i, k) => stroke(shot, i, k))
    perStroke.push(((await commits()) - before) / strokes)
    for (const end of ends) end.abort()
    const crowd = quantile(times, 0.99)
    rows.push({
      what: `… ${DESKS} desks on one shot, ${listening} listening (p99)`,
      figure: ms(crowd),
      budget: '< 250 ms',
      met: crowd < 250,
      ratio: `${beside(times)}, ${perStroke.at(-1).toFixed(2)} transactions a stroke`,
    })
  }
  await admin.end()
  return rows
}
