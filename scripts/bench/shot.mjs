// A heavy made-up shot, drawn through the API as a desk would: layers of drawings full of long strokes.
import { randomUUID } from 'node:crypto'

const id = () => randomUUID().replaceAll('-', '').slice(0, 16)

/** Packed samples of a wavy line of `n` samples starting near x, y (see the file format in docs). */
function wave(x, y, n, phase) {
  const bytes = [1]
  const varint = value => {
    let rest = value
    while (rest >= 128) {
      bytes.push((rest % 128) + 128)
      rest = Math.floor(rest / 128)
    }
    bytes.push(rest)
  }
  const zigzag = v => (v < 0 ? -2 * v - 1 : 2 * v)
  varint(n)
  let [px, py] = [0, 0]
  for (let i = 0; i < n; i++) {
    const nx = Math.round((x + i * 3) * 8)
    const ny = Math.round((y + 40 * Math.sin(i / 11 + phase)) * 8)
    varint(zigzag(nx - px))
    varint(zigzag(ny - py))
    bytes.push(Math.round(90 + 80 * Math.sin((i / n) * Math.PI)))
    ;[px, py] = [nx, ny]
  }
  return Buffer.from(bytes).toString('base64')
}

/**
 * Makes a shot of `layers` drawn layers with `perLayer` drawings each, `strokes` lines a drawing, all on ones over
 * `frames` frames (drawings repeat). Answers with its id.
 */
export async function heavyShot(request, url, { layers, perLayer, strokes, frames }) {
  const film = await (await request.post(`${url}/api/films`, { data: { name: 'Bench' } })).json()
  const format = { width: 1920, height: 1080, fps: 24, paper: '#fdfaf3' }
  const shot = await (
    await request.post(`${url}/api/films/${film.id}/shots`, { data: { name: 'Heavy', frames, format } })
  ).json()
  let since = 0
  const post = async (batches, samples) => {
    const reply = await request.post(`${url}/api/shots/${shot.id}/journal`, {
      data: { since, batches, samples },
    })
    const { refused, message, head } = await reply.json()
    since = head
    if (!reply.ok() || refused[0]) throw new Error(message ?? JSON.stringify(refused[0]))
  }
  const names = ['layer-1']
  for (let l = 1; l < layers; l++) {
    const layer = {
      id: `layer-x${l}`,
      name: `part ${l}`,
      kind: 'drawn',
      order: l + 1,
      locked: false,
      follows: null,
      counted: false,
      volume: 'flat',
      left: null,
    }
    names.push(layer.id)
    await post([{ id: id(), label: 'layer', ops: [{ kind: 'layer.add', layer }] }], {})
  }
  for (const [l, layer] of names.entries()) {
    const made = []
    for (let d = 0; d < perLayer; d++) {
      const samples = {}
      const elements = {}
      for (let s = 0; s < strokes; s++) {
        const sample = id()
        samples[sample] = wave(80 + l * 380 + d * 2, 60 + (s * 960) / strokes, 120, d / 3 + s)
        const element = {
          id: id(),
          kind: 'line',
          z: s + 1,
          samples: sample,
          part: null,
          nib: { look: 'ink', ends: 'round', thinning: 0.62 },
          label: null,
          matrix: null,
          swatch: 'graphite',
          width: 6,
        }
        elements[element.id] = element
      }
      const drawing = { id: id(), layer, number: d + 1, role: d % 4 ? 'inbetween' : 'key', elements, marks: {} }
      made.push(drawing.id)
      await post([{ id: id(), label: 'drawing', ops: [{ kind: 'drawing.add', drawing }] }], samples)
    }
    const runs = Array.from({ length: frames }, (_, f) => ({ drawing: made[f % made.length], frames: 1 }))
    await post(
      [{ id: id(), label: 'sheet', ops: [{ kind: 'exposure.write', take: 'take-1', layer, from: 0, runs }] }],
      {},
    )
  }
  return shot.id
}

/** Makes a shot whose sheet has 2,000 frames and 12 layers of blank drawings on twos. Answers with its id. */
export async function longSheet(request, url) {
  const film = await (await request.post(`${url}/api/films`, { data: { name: 'Bench' } })).json()
  const format = { width: 640, height: 360, fps: 24, paper: '#fdfaf3' }
  const data = { name: 'Long sheet', frames: 2000, format }
  const shot = await (await request.post(`${url}/api/films/${film.id}/shots`, { data })).json()
  for (let l = 0; l < 11; l++) {
    const layer = `part-${l}`
    const drawings = Array.from({ length: 40 }, (_, i) => {
      const role = i % 4 ? 'inbetween' : 'key'
      return { id: `${layer}-${i}`, layer, number: i + 1, role, elements: {}, marks: {} }
    })
    const runs = Array.from({ length: 1000 }, (_, f) => ({ drawing: `${layer}-${(f + l) % 40}`, frames: 2 }))
    const ops = [
      {
        kind: 'layer.add',
        layer: {
          id: layer,
          name: layer,
          kind: 'drawn',
          order: l + 2,
          locked: false,
          follows: null,
          counted: false,
          volume: 'flat',
          left: null,
        },
      },
      ...drawings.map(drawing => ({ kind: 'drawing.add', drawing })),
      { kind: 'exposure.write', take: 'take-1', layer, from: 0, runs },
    ]
    const reply = await request.post(`${url}/api/shots/${shot.id}/journal`, {
      data: { since: 0, batches: [{ id: id(), label: 'sheet', ops }], samples: {} },
    })
    if (!reply.ok()) throw new Error(await reply.text())
  }
  return shot.id
}
