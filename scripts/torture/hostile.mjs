// Requests nobody should send. None may be answered with a fault of the server, change anything, or take others' time.
import { connect } from 'node:net'
import { gzipSync } from 'node:zlib'
import { batch, drawing, element } from './desks.mjs'

const deep = levels => '['.repeat(levels) + ']'.repeat(levels)

/** One round of hostile requests against a shot. Answers with their number and what was answered wrongly. */
export async function hostileRound(ask, url, shot) {
  const journal = `/api/shots/${shot}/journal`
  const known = { since: 0, batches: [], samples: {} }
  const wrong = []
  let asked = 0
  const expect = async (what, doing, allowed) => {
    asked++
    // Refused in the middle of a large body, a connection may end before the answer is read: asked once more.
    const reply = (await doing()) ?? (await doing())
    const status = reply?.status ?? 0
    if (!allowed(status)) wrong.push(`${what}: ${status}`)
  }
  const refusal = status => status >= 400 && status < 500
  const bodies = {
    empty: '',
    'half a body': '{"since":0,"batches":[',
    'no object': 'null',
    'deep lists': `{"since":0,"batches":${deep(100_000)},"samples":{}}`,
    'deep things': `{"since":0,"batches":[${'{"a":'.repeat(5000)}1${'}'.repeat(5000)}],"samples":{}}`,
    'a million lists': `{"since":0,"batches":[${'[],'.repeat(1_000_000)}[]],"samples":{}}`,
    'too large': JSON.stringify({ ...known, samples: { a: 'A'.repeat(9_000_000) } }),
    'a number too large': JSON.stringify({ ...known, since: 2 ** 31 }),
    'a number that is none': '{"since":1e999,"batches":[],"samples":{}}',
    'a name of the language': '{"since":0,"batches":[],"samples":{"__proto__":"AAAA","constructor":"AAAA"}}',
    'fifty-one batches': JSON.stringify({ ...known, batches: Array.from({ length: 51 }, () => batch()) }),
    'a batch without a name': JSON.stringify({ ...known, batches: [{ label: 'x', ops: [] }] }),
  }
  for (const [what, body] of Object.entries(bodies)) {
    const isFine = what === 'a name of the language'
    await expect(
      what,
      () => ask(url, 'POST', journal, body),
      status => refusal(status) || (isFine && status === 200),
    )
  }
  for (const encoding of ['gzip', 'br', 'deflate', 'utf-9', 'gzip, gzip']) {
    const packed = gzipSync(Buffer.alloc(2_000_000)).toString('latin1')
    await expect(encoding, () => ask(url, 'POST', journal, packed, { 'Content-Encoding': encoding }), refusal)
  }
  for (const path of [
    '/%zz',
    '/%00',
    '/..%2f..%2f..%2fetc%2fpasswd',
    '/api/%zz',
    `${journal}?after=9999999999999`,
    `${journal}?after=-1`,
    '/api/shots/%00',
    `/api/shots/${shot}/versions?drawing=__proto__`,
    `/api/shots/${shot}/samples?ids=${'a,'.repeat(500)}`,
  ]) {
    await expect(path, () => ask(url, 'GET', path), refusal)
  }
  for (const headers of [
    { Origin: 'http://elsewhere.example' },
    { Origin: 'null' },
    { 'Sec-Fetch-Site': 'cross-site' },
  ]) {
    await expect(JSON.stringify(headers), () => ask(url, 'POST', '/api/films', { name: 'x' }, headers), refusal)
  }
  for (const ops of hostileOps()) {
    const reply = await ask(url, 'POST', journal, { ...known, batches: [batch(ops)] })
    asked++
    if (reply?.status !== 200 || reply.body.refused.length !== 1) wrong.push(`${ops.kind}: ${reply?.status}`)
  }
  asked++
  if (!(await slowBody(url))) wrong.push('a slow body was waited for')
  return { asked, wrong }
}

/** Operations that are no operations, or that no document can take. */
function* hostileOps() {
  yield { kind: 'shot.burn' }
  yield { kind: 'constructor' }
  yield { kind: 'elements.add', drawing: '__proto__', elements: [element('x')] }
  yield { kind: 'elements.add', drawing: 'sheet', elements: [{ ...element('x'), width: 1e300 }] }
  yield { kind: 'elements.add', drawing: 'sheet', elements: [{ ...element('x'), matrix: [1e300, 0, 0, 1, 0, 0] }] }
  yield { kind: 'frames.insert', take: 'take-1', at: 0, count: 20_000, fill: {} }
  yield { kind: 'frames.remove', take: 'take-1', at: 0, count: 20_000 }
  yield { kind: 'exposure.write', take: 'take-1', layer: 'layer-1', from: 0, runs: [{ drawing: 'nobody', frames: 1 }] }
  yield drawing('x', 1, { y: element('z') })
}

/** Whether a connection that sends a byte now and then is ended within twenty seconds. */
function slowBody(url) {
  const { hostname, port, host } = new URL(url)
  return new Promise(done => {
    const socket = connect(Number(port), hostname)
    const began = Date.now()
    socket.on('error', () => undefined)
    socket.on('close', () => done(Date.now() - began < 20_000))
    socket.write(
      `POST /api/session HTTP/1.1\r\nHost: ${host}\r\nContent-Type: application/json\r\nContent-Length: 100\r\n\r\n`,
    )
    const drip = setInterval(() => (socket.destroyed ? clearInterval(drip) : socket.write(' ')), 500)
    setTimeout(() => (clearInterval(drip), socket.destroy()), 21_000).unref()
  })
}
