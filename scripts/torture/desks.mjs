// Desks that draw on and on, as the application's own do: what is not acknowledged is sent again until it is.
import { randomUUID } from 'node:crypto'

const OWNER = { email: 'otter@marsh-post.example', name: 'Otter', password: 'under-the-lily-pads' }
const PATIENCE_MS = 20_000
const sleep = ms => new Promise(done => setTimeout(done, ms))

/** Asks a server as somebody who is signed in; answers with status and body, or null when nobody answers. */
export function visitor(cookie) {
  const ask = async (url, method, path, body, more = {}) => {
    try {
      const reply = await fetch(`${url}${path}`, {
        method,
        headers: { Cookie: cookie, 'Content-Type': 'application/json', ...more },
        body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
        signal: AbortSignal.timeout(PATIENCE_MS),
      })
      const text = await reply.text()
      return { status: reply.status, body: text.startsWith('{') ? JSON.parse(text) : text }
    } catch {
      return null
    }
  }
  return Object.assign(ask, { cookie })
}

/** Signs in; the very first time the account is made. */
export async function signIn(url, account = OWNER) {
  const enter = path =>
    fetch(`${url}${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(path === '/api/owner' ? account : { email: account.email, password: account.password }),
    })
  let reply = await enter('/api/session')
  if (!reply.ok) reply = await enter('/api/owner')
  return visitor(reply.headers.get('set-cookie').split(';')[0])
}

export async function makeShot(ask, url, frames = 24) {
  const film = (await ask(url, 'POST', '/api/films', { name: 'Torture' })).body.id
  const format = { width: 640, height: 360, fps: 24, paper: '#fdfaf3' }
  return (await ask(url, 'POST', `/api/films/${film}/shots`, { name: 'Reed', frames, format })).body.id
}

export const batch = (...ops) => ({ id: randomUUID().replaceAll('-', ''), label: 'torture', ops })
const SAMPLE = Buffer.from([1, 1, 16, 32, 128]).toString('base64')
export const element = (id, samples = id) => ({
  id,
  kind: 'line',
  z: 1,
  samples,
  part: null,
  matrix: null,
  swatch: 'graphite',
  width: 4,
  nib: { look: 'ink', ends: 'round', thinning: 0.62 },
  label: null,
})
export const drawing = (id, number, elements = {}, layer = 'layer-1') => ({
  kind: 'drawing.add',
  drawing: { id, layer, number, role: 'key', elements, marks: {} },
})

/** A desk on a shot: each batch a stroke of its own and, now and then, a frame put in. `stop` waits until all is safe. */
export function makeDesk(ask, servers, shot, name) {
  const acknowledged = new Set()
  const refused = []
  let [pending, waiting, seq] = [[], [], 0]
  let running = true
  let isOver = null
  let sent = 0
  const times = []

  function draw() {
    const id = `${name}-${sent++}`
    const ops = [{ kind: 'elements.add', drawing: 'sheet', elements: [element(id)] }]
    if (sent % 7 === 0) ops.push({ kind: 'frames.insert', take: 'take-1', at: 0, count: 1, fill: {} })
    return { ...batch(...ops), id }
  }

  async function send() {
    pending = [...pending, ...waiting].slice(0, 50)
    waiting = []
    const server = servers[Math.floor(Math.random() * servers.length)]
    const samples = Object.fromEntries(pending.map(one => [one.id, SAMPLE]))
    const began = performance.now()
    const reply = await ask(server.url, 'POST', `/api/shots/${shot}/journal`, { since: seq, batches: pending, samples })
    if (reply?.status !== 200) return sleep(100)
    times.push(performance.now() - began)
    for (const id of reply.body.done) acknowledged.add(id)
    refused.push(...reply.body.refused)
    const settled = new Set([...reply.body.done, ...reply.body.refused.map(one => one.id)])
    pending = pending.filter(one => !settled.has(one.id))
    seq = reply.body.head
  }

  async function run() {
    while (running || pending.length > 0) {
      if (running && pending.length < 20) waiting = Array.from({ length: 1 + Math.floor(Math.random() * 3) }, draw)
      await send()
      await sleep(Math.random() * 40)
    }
  }
  isOver = run()
  return {
    acknowledged,
    refused,
    times,
    drawn: () => sent,
    async stop() {
      running = false
      await isOver
    },
  }
}

/** What a shot holds of what desks were told is stored: how much is missing, doubled, or there and never drawn. */
export async function countLosses(ask, url, shot, desks) {
  const { body } = await ask(url, 'GET', `/api/shots/${shot}`)
  const there = new Set(Object.keys(body.document.drawings.sheet.elements))
  const all = desks.flatMap(desk => [...desk.acknowledged])
  const lost = all.filter(id => !there.has(id)).length
  const inserts = all.filter(id => (Number(id.split('-').pop()) + 1) % 7 === 0).length
  const doubled = body.document.takes['take-1'].length - 24 - inserts
  const entries = body.seq - 1
  return {
    acknowledged: all.length,
    lost,
    doubled: doubled + Math.max(0, entries - all.length),
    strange: there.size - all.length,
  }
}
