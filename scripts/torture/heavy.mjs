// What is legal and heavy: done to one shot while others go on, whose waiting is measured.
import { batch, drawing, element, makeShot } from './desks.mjs'

const SAMPLE = Buffer.from([1, 1, 16, 32, 128]).toString('base64')

/** Sends batches until all are done or refused; answers with how long it took and what was refused. */
async function sendAll(ask, url, shot, batches, samples = {}) {
  const began = performance.now()
  const refused = []
  let left = batches
  for (let tries = 0; left.length > 0 && tries < 400; tries++) {
    const reply = await ask(url, 'POST', `/api/shots/${shot}/journal`, {
      since: 0,
      batches: left.slice(0, 50),
      samples,
    })
    if (reply?.status !== 200)
      throw new Error(`a heavy request was answered with ${reply?.status} ${JSON.stringify(reply?.body).slice(0, 200)}`)
    refused.push(...reply.body.refused)
    const settled = new Set([...reply.body.done, ...reply.body.refused.map(one => one.id)])
    left = left.filter(one => !settled.has(one.id))
  }
  return { ms: performance.now() - began, refused, left: left.length }
}

const inBatches = (ops, size = 500) =>
  Array.from({ length: Math.ceil(ops.length / size) }, (_, i) => batch(...ops.slice(i * size, (i + 1) * size)))

/** Cases by name: each answers with the figures of what it did. */
export const HEAVY = {
  'single changes among 5,000 strokes': async (ask, url, count) => {
    const shot = await makeShot(ask, url)
    const elements = Array.from({ length: 5000 }, (_, i) => element(`n${i}`, 's'))
    await sendAll(ask, url, shot, [batch(drawing('d', 1)), batch({ kind: 'elements.add', drawing: 'd', elements })], {
      s: SAMPLE,
    })
    const ops = Array.from({ length: count }, (_, i) => ({
      kind: 'elements.set',
      drawing: 'd',
      changes: [{ id: `n${i % 5000}`, patch: { width: 1 + (i % 9) } }],
    }))
    return sendAll(ask, url, shot, inBatches(ops))
  },
  'changes of linked cycles over 20,000 frames': async (ask, url, count) => {
    const shot = await makeShot(ask, url, 20_000)
    const pattern = ['d', 'e'].map(id => ({ drawing: id, frames: 1 }))
    const cycle = { id: 'c', layer: 'layer-1', from: 0, to: null, offset: 0, pattern }
    await sendAll(ask, url, shot, [
      batch(drawing('d', 1), drawing('e', 2), { kind: 'cycle.add', take: 'take-1', cycle }),
    ])
    const ops = Array.from({ length: count }, (_, i) => ({
      kind: 'cycle.set',
      take: 'take-1',
      id: 'c',
      patch: { offset: i % 2 },
    }))
    return sendAll(ask, url, shot, inBatches(ops, 100))
  },
  'takes of many tied layers over 20,000 frames': async (ask, url, count) => {
    const shot = await makeShot(ask, url, 20_000)
    const pattern = ['d', 'e'].map(id => ({ drawing: id, frames: 1 }))
    const cycle = { id: 'c', layer: 'layer-1', from: 0, to: null, offset: 0, pattern }
    const ready = [drawing('d', 1), drawing('e', 2), { kind: 'cycle.add', take: 'take-1', cycle }]
    const paint = Array.from({ length: count }, (_, i) => [
      {
        kind: 'layer.add',
        layer: {
          id: `p${i}`,
          name: 'paint',
          kind: 'drawn',
          order: i + 5,
          locked: false,
          follows: 'layer-1',
          counted: false,
          volume: 'flat',
          left: null,
        },
      },
      drawing(`d${i}`, 1, {}, `p${i}`),
      drawing(`e${i}`, 2, {}, `p${i}`),
    ])
    const { refused, ...rest } = await sendAll(ask, url, shot, [batch(...ready), ...paint.map(ops => batch(...ops))])
    const opened = performance.now()
    await ask(url, 'GET', `/api/shots/${shot}`)
    return {
      ...rest,
      refused: refused.filter(one => one.code !== 'too-many'),
      fitted: count - refused.length,
      openMs: performance.now() - opened,
    }
  },
  'as many strokes as a shot may hold': async (ask, url, count) => {
    const shot = await makeShot(ask, url)
    const full = Array.from({ length: Math.ceil(count / 2000) }, (_, d) => {
      const some = Math.min(2000, count - d * 2000)
      return batch(
        drawing(
          `d${d}`,
          d + 1,
          Object.fromEntries(Array.from({ length: some }, (_, i) => [`n${i}`, element(`n${i}`, 's')])),
        ),
      )
    })
    const began = performance.now()
    const refused = []
    for (const one of full) refused.push(...(await sendAll(ask, url, shot, [one], { s: SAMPLE })).refused)
    const ms = performance.now() - began
    const opened = performance.now()
    const reply = await ask(url, 'GET', `/api/shots/${shot}`)
    const openMs = performance.now() - opened
    const strokes = Object.values(reply.body.document.drawings).reduce((n, d) => n + Object.keys(d.elements).length, 0)
    return { ms, refused, left: count - strokes, openMs, shot }
  },
}
