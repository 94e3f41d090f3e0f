// `npm run torture`: what the house promises, held against what can go wrong. `-- --small` is the share in `npm test`.
import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureBuilt, ensureDebianPackages, ensureNpmPackages } from './prepare.mjs'
import { say, tell } from './say.mjs'
import { countLosses, batch, drawing, makeDesk, makeShot, signIn } from './torture/desks.mjs'
import { FAULTS, fillDisk } from './torture/faults.mjs'
import { bystander } from './torture/bystander.mjs'
import { HEAVY } from './torture/heavy.mjs'
import { hostileRound } from './torture/hostile.mjs'
import { makeHouse } from './torture/house.mjs'

const isSmall = process.argv.includes('--small')
const SIZE = isSmall
  ? {
      rounds: 7,
      shots: 2,
      desksPerShot: 3,
      restMs: 150,
      pauseMs: 9500,
      sets: 2500,
      cycles: 500,
      tied: 10,
      strokes: 20_000,
    }
  : {
      rounds: 84,
      shots: 4,
      desksPerShot: 5,
      restMs: 400,
      pauseMs: 10_500,
      sets: 25_000,
      cycles: 7500,
      tied: 38,
      strokes: 120_000,
    }
/** Few answers on a machine that does other things too: the small share only tells what hangs. */
const OTHERS_WAIT_MS = isSmall ? 1000 : 100

const rows = []
let failed = 0
function row(what, figure, met) {
  rows.push({ what, figure, met })
  if (!met) failed++
}
const quantile = (values, q) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * q))] ?? NaN
const ms = value => `${Math.round(value)} ms`
const memoryOf = pid => Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024

async function faults(house, ask) {
  const [first] = house.servers
  const shots = []
  for (let i = 0; i < SIZE.shots; i++) {
    const shot = await makeShot(ask, first.url)
    await ask(first.url, 'POST', `/api/shots/${shot}/journal`, {
      since: 0,
      batches: [batch(drawing('sheet', 1))],
      samples: {},
    })
    const desks = Array.from({ length: SIZE.desksPerShot }, (_, d) => makeDesk(ask, house.servers, shot, `s${i}d${d}`))
    shots.push({ shot, desks })
  }
  const kinds = Object.keys(FAULTS)
  const done = {}
  for (let round = 0; round < SIZE.rounds; round++) {
    const kind = kinds[round % kinds.length]
    await new Promise(rest => setTimeout(rest, SIZE.restMs))
    await FAULTS[kind](house, house.servers[round % house.servers.length], SIZE)
    done[kind] = (done[kind] ?? 0) + 1
  }
  await Promise.all(shots.flatMap(({ desks }) => desks.map(desk => desk.stop())))
  const total = { acknowledged: 0, lost: 0, doubled: 0, strange: 0, refused: 0 }
  for (const { shot, desks } of shots) {
    const losses = await countLosses(ask, first.url, shot, desks)
    for (const key of Object.keys(losses)) total[key] += losses[key]
    total.refused += desks.reduce((n, desk) => n + desk.refused.length, 0)
  }
  row(
    `${SIZE.rounds} faults (${Object.entries(done)
      .map(([kind, n]) => `${n} × ${kind}`)
      .join(', ')})`,
    `${total.acknowledged} batches acknowledged, ${total.lost} lost, ${total.doubled} doubled, ${total.strange + total.refused} strange`,
    total.acknowledged > 0 && total.lost === 0 && total.doubled === 0 && total.strange === 0 && total.refused === 0,
  )
}

/** While one process stands still in the middle of taking something in, the other goes on. */
async function paused(house, ask) {
  const [one, other] = house.servers
  const shot = await makeShot(ask, one.url)
  await ask(one.url, 'POST', `/api/shots/${shot}/journal`, {
    since: 0,
    batches: [batch(drawing('sheet', 1))],
    samples: {},
  })
  const desk = makeDesk(ask, [one], shot, 'held')
  await new Promise(rest => setTimeout(rest, 300))
  one.signal('SIGSTOP')
  const elsewhere = await bystander(ask, other.url, await makeShot(ask, other.url))
  const same = await bystander(ask, other.url, shot)
  await new Promise(rest => setTimeout(rest, SIZE.pauseMs))
  one.signal('SIGCONT')
  const [times, onIt] = [await elsewhere.stop(), await same.stop()]
  await desk.stop()
  row('one process paused: other shots wait at most', ms(Math.max(...times)), Math.max(...times) < 1000)
  row(
    '… and the same shot, by the other process',
    `${onIt.length} answers, at most ${ms(Math.max(...onIt))}`,
    onIt.length > 10,
  )
}

async function hostile(house, ask) {
  const [{ direct: url }] = house.servers
  const shot = await makeShot(ask, url)
  const before = JSON.stringify((await ask(url, 'GET', `/api/shots/${shot}`)).body.document)
  const times = await bystander(ask, url, await makeShot(ask, url))
  const { asked, wrong } = await hostileRound(ask, url, shot)
  const waited = await times.stop()
  const after = JSON.stringify((await ask(url, 'GET', `/api/shots/${shot}`)).body.document)
  row(
    `${asked} hostile requests`,
    `${wrong.length} answered wrongly, ${before === after ? 'nothing' : 'something'} changed`,
    wrong.length === 0 && before === after,
  )
  for (const words of wrong) console.log(`  ! ${words}`)
  row('… others wait (p99)', ms(quantile(waited, 0.99)), quantile(waited, 0.99) < OTHERS_WAIT_MS)
}

async function heavy(house, ask) {
  const [{ direct: url, pid }] = house.servers
  const counts = [SIZE.sets, SIZE.cycles, SIZE.tied, SIZE.strokes]
  for (const [i, [what, act]] of Object.entries(HEAVY).entries()) {
    const times = await bystander(ask, url, await makeShot(ask, url))
    const figures = await act(ask, url, counts[i])
    const waited = await times.stop()
    const opened = figures.openMs === undefined ? '' : `, opens in ${ms(figures.openMs)}`
    const fitted = figures.fitted === undefined ? '' : `, ${figures.fitted} fit`
    row(
      `${counts[i].toLocaleString('en')} ${what}`,
      `${ms(figures.ms)}${fitted}${opened}`,
      figures.refused.length === 0 && !(figures.openMs > 5000) && figures.left === 0,
    )
    row('… others wait (p99)', ms(quantile(waited, 0.99)), quantile(waited, 0.99) < OTHERS_WAIT_MS)
  }
  row('most memory of a server process so far', `${Math.round(memoryOf(pid))} MB`, memoryOf(pid) < 1200)
}

/** On a disk of its own that is small enough to be filled; left out where none can be had. */
async function fullDisk() {
  const small = mkdtempSync(join(tmpdir(), 'unhurried-small-'))
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=160m,mode=0755', 'tmpfs', small])
  if (mounted.status !== 0) {
    say('A disk that fills up is left out: a small one cannot be had here.')
    return rmSync(small, { recursive: true, force: true })
  }
  const folder = join(small, 'postgres')
  mkdirSync(folder)
  let house = null
  try {
    house = await makeHouse(folder)
    const ask = await signIn(house.servers[0].url)
    const shot = await makeShot(ask, house.servers[0].url)
    await ask(house.servers[0].url, 'POST', `/api/shots/${shot}/journal`, {
      since: 0,
      batches: [batch(drawing('sheet', 1))],
      samples: {},
    })
    const desk = makeDesk(ask, house.servers, shot, 'full')
    await new Promise(rest => setTimeout(rest, 800))
    await fillDisk(small)
    // A database that could not write its log has stopped, and is started again with room.
    if (spawnSync('true').status === 0) {
      try {
        house.cluster.ask('SELECT 1')
      } catch {
        house.cluster.crash()
        house.cluster.startAgain()
      }
    }
    await new Promise(rest => setTimeout(rest, 800))
    await desk.stop()
    const losses = await countLosses(ask, house.servers[0].url, shot, [desk])
    row(
      'the disk full for a while',
      `${losses.acknowledged} acknowledged, ${losses.lost} lost, ${losses.doubled} doubled`,
      losses.lost === 0 && losses.doubled === 0,
    )
  } finally {
    await house?.stop()
    spawnSync('umount', [small])
    rmSync(small, { recursive: true, force: true })
  }
}

await tell(async () => {
  ensureDebianPackages()
  ensureNpmPackages()
  ensureBuilt()
  say(isSmall ? 'A small share of the torture, under a minute.' : 'The whole torture, about ten minutes.')
  const house = await makeHouse()
  try {
    const ask = await signIn(house.servers[0].url)
    await faults(house, ask)
    if (!isSmall) await paused(house, ask)
    await hostile(house, ask)
    await heavy(house, ask)
    const { ok, lines } = house.verify()
    row('every shot held against its journal', lines.at(-1), ok)
    if (!ok) for (const line of lines) console.log(`  ${line}`)
  } finally {
    await house.stop()
  }
  if (!isSmall) await fullDisk()
  const width = Math.max(...rows.map(one => Math.min(70, one.what.length)))
  for (const { what, figure, met } of rows) console.log(`${met ? '✓' : '✗'} ${what.padEnd(width)}  ${figure}`)
  if (failed > 0) process.exitCode = 1
})
