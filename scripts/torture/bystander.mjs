// Somebody at another shot who asks for small things all the while: in a thread, so that only the house is waited for.
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads'
import { batch, visitor } from './desks.mjs'

/** Begins; `stop` answers with the milliseconds that each answer took. */
export async function bystander(ask, url, shot) {
  const worker = new Worker(new URL(import.meta.url), { workerData: { cookie: ask.cookie, url, shot } })
  await new Promise(ready => worker.once('message', ready))
  return {
    async stop() {
      const times = new Promise(done => worker.once('message', done))
      worker.postMessage('stop')
      return times
    },
  }
}

async function standBy({ cookie, url, shot }) {
  const ask = visitor(cookie)
  const times = []
  let running = true
  parentPort.once('message', () => (running = false))
  for (let i = 0; running; i++) {
    const began = performance.now()
    const loop = { kind: 'loop.set', take: 'take-1', loop: { from: 0, to: 1 + (i % 9) } }
    const batches = i % 2 ? [batch(loop)] : []
    const reply = await ask(url, 'POST', `/api/shots/${shot}/journal`, { since: 0, batches, samples: {} })
    if (reply?.status === 200 && i > 3) times.push(performance.now() - began)
    if (i === 3) parentPort.postMessage('ready')
    await new Promise(done => setTimeout(done, 15))
  }
  parentPort.postMessage(times)
  parentPort.close()
}

if (!isMainThread && workerData?.cookie) void standBy(workerData)
