// A clip of a minute in full size gone over, and sound beside pictures after a minute of play.
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { chromium } from 'playwright'
import { CHROMIUM, ROOT } from '../prepare.mjs'

const SECONDS = 60
const FPS = 24
const SIZE = { width: 1920, height: 1080 }
/** Each picture says its number, in so many fields along its upper edge that are light or dark. */
const FIELDS = 11
const BUDGET = { scrubMs: 80, apartMs: 20 }

const quantile = (values, q) => {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * q))] ?? NaN
}

/** A moving picture of a minute, made up in a page of its own; its bytes. */
async function madeUp(browser, url) {
  // Films are packed on secure pages only, and this one lets a library be added to it.
  const page = await (await browser.newContext({ bypassCSP: true })).newPage()
  await page.goto(url)
  const library = readFileSync(join(ROOT, 'node_modules/mediabunny/dist/bundles/mediabunny.min.cjs'), 'utf8')
  await page.addScriptTag({
    content: `{ const module = { exports: {} }, exports = module.exports; ${library}\n; window.mediabunny = Object.keys(module.exports).length ? module.exports : window.Mediabunny }`,
  })
  const base64 = await page.evaluate(
    async ({ seconds, fps, width, height, fields }) => {
      const { BufferTarget, CanvasSource, Mp4OutputFormat, Output, WebMOutputFormat, canEncodeVideo } =
        window.mediabunny
      const isAvc = await canEncodeVideo('avc', { width, height })
      const target = new BufferTarget()
      const output = new Output({ format: isAvc ? new Mp4OutputFormat() : new WebMOutputFormat(), target })
      const canvas = new OffscreenCanvas(width, height)
      const brush = canvas.getContext('2d')
      const source = new CanvasSource(canvas, {
        codec: isAvc ? 'avc' : 'vp8',
        bitrate: 6e6,
        keyFrameInterval: 2,
        latencyMode: 'realtime',
      })
      output.addVideoTrack(source, { frameRate: fps })
      await output.start()
      for (let i = 0; i < seconds * fps; i++) {
        const light = brush.createLinearGradient(0, 0, width, height)
        light.addColorStop(0, `hsl(${i % 360} 30% 60%)`)
        light.addColorStop(1, '#f3dfae')
        brush.fillStyle = light
        brush.fillRect(0, 0, width, height)
        brush.fillStyle = '#2f2c28'
        for (let k = 0; k < 40; k++) {
          const a = k * 2.4 + i / 9
          brush.fillRect(width * (0.5 + 0.45 * Math.sin(a)), height * (0.6 + 0.35 * Math.cos(a * 1.3)), 46, 30)
        }
        for (let field = 0; field < fields; field++) {
          brush.fillStyle = (i >> field) & 1 ? '#fff' : '#000'
          brush.fillRect((field * width) / fields, 0, width / fields, height / 6)
        }
        await source.add(i / fps, 1 / fps)
      }
      await output.finalize()
      const bytes = new Uint8Array(target.buffer)
      let text = ''
      for (let i = 0; i < bytes.length; i += 32768) text += String.fromCharCode(...bytes.subarray(i, i + 32768))
      return { text: btoa(text), name: isAvc ? 'reeds.mp4' : 'reeds.webm' }
    },
    { seconds: SECONDS, fps: FPS, ...SIZE, fields: FIELDS },
  )
  await page.close()
  return { name: base64.name, mimeType: 'video/mp4', buffer: Buffer.from(base64.text, 'base64') }
}

async function shotFor(page, url, frames) {
  const film = await (await page.request.post(`${url}/api/films`, { data: { name: 'Bench of media' } })).json()
  const format = { ...SIZE, fps: FPS, paper: '#fdfaf3' }
  const data = { name: 'A minute', frames, format }
  return (await (await page.request.post(`${url}/api/films/${film.id}/shots`, { data })).json()).id
}

/** Milliseconds from each press of a key to the picture being seen that belongs to its frame. */
const pressed = (page, keys) =>
  page.evaluate(
    async ({ presses, fields, fps }) => {
      const paper = document.querySelector('main.paper canvas')
      const brush = new OffscreenCanvas(fields, 1).getContext('2d', { willReadFrequently: true })
      const frameNow = () => Number(document.querySelector('.nrs .here')?.textContent ?? 0) - 1
      // Where the paper lies on its canvas: its left, right and upper edge, found by the desk's own colour.
      const { left, top, width, height } = window.paperBox
      const seen = () => {
        brush.drawImage(paper, left, top + height / 24, width, height / 12, 0, 0, fields, 1)
        const { data } = brush.getImageData(0, 0, fields, 1)
        let number = 0
        for (let field = 0; field < fields; field++) if (data[4 * field + 1] > 190) number |= 1 << field
        return number
      }
      // Behind a frame's own painting: before it, each picture would be seen a frame late.
      const behind = new MessageChannel()
      const turned = () =>
        new Promise(done => {
          behind.port1.onmessage = done
          requestAnimationFrame(() => behind.port2.postMessage(null))
        })
      const taken = []
      for (const key of presses) {
        const start = performance.now()
        document.activeElement?.dispatchEvent(
          new KeyboardEvent('keydown', { key, code: key, bubbles: true, cancelable: true }),
        )
        document.activeElement?.dispatchEvent(
          new KeyboardEvent('keyup', { key, code: key, bubbles: true, cancelable: true }),
        )
        await turned()
        while (seen() !== frameNow() && performance.now() - start < 5000) await turned()
        taken.push(performance.now() - start)
        void fps
      }
      return taken
    },
    { presses: keys, fields: FIELDS, fps: FPS },
  )

/** Milliseconds until all small pictures of the clip are made and kept. */
const smallMade = page =>
  page.evaluate(async () => {
    const start = performance.now()
    const asked = request => new Promise(done => (request.onsuccess = () => done(request.result)))
    const db = await asked(indexedDB.open('unhurried-sketch'))
    const keys = () => asked(db.transaction('media').objectStore('media').getAllKeys())
    let size = -1
    for (let quiet = 0; quiet < 8 && performance.now() - start < 180_000;) {
      await new Promise(done => setTimeout(done, 1000))
      const key = (await keys()).find(([, id]) => id.endsWith(':small'))
      const { bytes } = key ? await asked(db.transaction('media').objectStore('media').get(key)) : { bytes: '' }
      quiet = bytes.length === size && size > 0 ? quiet + 1 : 0
      size = bytes.length
    }
    db.close()
    return performance.now() - start
  })

async function clipRows(browser, url, page) {
  const film = await madeUp(browser, url)
  const shot = await shotFor(page, url, SECONDS * FPS)
  await page.goto(`${url}/shot/${shot}/desk?frame=1`)
  await page.waitForSelector('[data-testid=paper]')
  await page.waitForTimeout(1500)
  page.on('filechooser', () => undefined)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.keyboard.press('Shift+B')])
  await chooser.setFiles(film)
  await page.getByText('under the paper from here on').waitFor({ timeout: 120_000 })
  await page.waitForTimeout(3000)
  const smallMs = await smallMade(page)
  // Where the clip lies on the canvas: its first picture has dark fields all along, right to its corners.
  await page.evaluate(() => {
    const canvas = document.querySelector('main.paper canvas')
    const brush = new OffscreenCanvas(canvas.width, canvas.height).getContext('2d', { willReadFrequently: true })
    brush.drawImage(canvas, 0, 0)
    const { data } = brush.getImageData(0, 0, canvas.width, canvas.height)
    let [left, right, top] = [canvas.width, 0, canvas.height]
    for (let y = 0; y < canvas.height; y++)
      for (let x = 0; x < canvas.width; x++) {
        const at = 4 * (y * canvas.width + x)
        if (data[at + 3] < 200 || data[at] > 140 || data[at + 1] > 140) continue
        left = Math.min(left, x)
        right = Math.max(right, x + 1)
        top = Math.min(top, y)
      }
    window.paperBox = { left, top, width: right - left, height: ((right - left) * 9) / 16 }
  })
  const rows = []
  for (const [what, keys] of [
    ['on, a frame at a time', Array(120).fill('ArrowDown')],
    ['back, a frame at a time', Array(100).fill('ArrowUp')],
    ['to and fro, a second at a time', Array(40).fill(['PageDown', 'PageDown', 'PageUp']).flat()],
  ]) {
    const taken = await pressed(page, keys)
    const p95 = quantile(taken, 0.95)
    rows.push({
      what: `clip of a minute, 1920 × 1080, gone over ${what}, p95`,
      figure: `${p95.toFixed(1)} ms`,
      budget: `< ${BUDGET.scrubMs} ms`,
      met: p95 < BUDGET.scrubMs,
      ratio: `median ${quantile(taken, 0.5).toFixed(1)} ms; ${Math.round(film.buffer.length / 1e6)} MB; small pictures made in ${(smallMs / 1000).toFixed(0)} s`,
    })
  }
  return rows
}

/** Sixteen bits, one channel: a pluck every half second. */
function wav(seconds) {
  const rate = 22_050
  const count = seconds * rate
  const bytes = Buffer.alloc(44 + 2 * count)
  bytes.write('RIFF', 0)
  bytes.writeUInt32LE(36 + 2 * count, 4)
  bytes.write('WAVEfmt ', 8)
  bytes.writeUInt32LE(16, 16)
  bytes.writeUInt16LE(1, 20)
  bytes.writeUInt16LE(1, 22)
  bytes.writeUInt32LE(rate, 24)
  bytes.writeUInt32LE(2 * rate, 28)
  bytes.writeUInt16LE(2, 32)
  bytes.writeUInt16LE(16, 34)
  bytes.write('data', 36)
  bytes.writeUInt32LE(2 * count, 40)
  for (let i = 0; i < count; i++) {
    const t = (i % (rate / 2)) / rate
    bytes.writeInt16LE(Math.round(20_000 * Math.exp(-10 * t) * Math.sin(2 * Math.PI * 330 * t)), 44 + 2 * i)
  }
  return bytes
}

/** How far the frame that is seen is from what is heard then, over the last seconds of a minute of play. */
async function soundRows(url, page) {
  // A second that goes round and round: the sheet stays in sight.
  const shot = await shotFor(page, url, FPS)
  await page.goto(`${url}/shot/${shot}/plan`)
  const sound = page.getByRole('region', { name: 'Sound' })
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    sound.getByRole('button', { name: 'bring in a recording' }).click(),
  ])
  await chooser.setFiles({ name: 'steps.wav', mimeType: 'audio/wav', buffer: wav(1) })
  await sound.getByRole('button', { name: /^steps, from frame 1/ }).waitFor()
  await page.waitForTimeout(2000)
  await page.addInitScript(() => {
    const told = []
    window.told = told
    const start = AudioBufferSourceNode.prototype.start
    AudioBufferSourceNode.prototype.start = function (when = 0, offset = 0, seconds = 0) {
      told.push({ when, offset, context: this.context })
      start.call(this, when, offset, seconds)
    }
  })
  await page.goto(`${url}/shot/${shot}/desk?frame=1`)
  await page.waitForSelector('[data-testid=paper]')
  await page.waitForTimeout(3000)
  // Something is drawn, so that there is something to play; a frame that one goes to is heard once all is unpacked.
  const paper = await page.getByTestId('paper').boundingBox()
  await page.mouse.move(paper.x + 300, paper.y + 200)
  await page.mouse.down()
  await page.mouse.move(paper.x + 360, paper.y + 240, { steps: 6 })
  await page.mouse.up()
  for (let i = 0; i < 60 && (await page.evaluate(() => window.told.length)) === 0; i++) {
    await page.keyboard.press(i % 2 ? 'ArrowUp' : 'ArrowDown')
    await page.waitForTimeout(250)
  }
  await page.keyboard.press('Home')
  await page.waitForTimeout(400)
  await page.evaluate(() => window.told.splice(0))
  await page.keyboard.press('Space')
  const off = await page.evaluate(
    async ({ seconds, fps }) => {
      const begin = performance.now()
      let last = ''
      const apart = []
      while (performance.now() - begin < (seconds + 4) * 1000) {
        await new Promise(done => requestAnimationFrame(done))
        const number = document.querySelector('.nrs .here')?.textContent ?? ''
        if (number === last || window.told.length === 0) continue
        last = number
        if (performance.now() - begin < (seconds - 4) * 1000) continue
        const [{ when, context }] = window.told
        const heard = (context.currentTime - when - (context.outputLatency || context.baseLatency || 0)) * fps
        const behind = ((((heard - (Number(number) - 1) + fps / 2) % fps) + fps) % fps) - fps / 2
        // A frame is right from its beginning to its end.
        apart.push((Math.max(0, Math.abs(behind - 0.5) - 0.5) / fps) * 1000)
      }
      return apart
    },
    { seconds: SECONDS, fps: FPS },
  )
  await page.keyboard.press('Space')
  const middle = quantile(off, 0.5)
  return [
    {
      what: 'sound and picture apart after 60 s of play, median',
      figure: off.length ? `${middle.toFixed(1)} ms` : 'not heard',
      budget: `< ${BUDGET.apartMs} ms`,
      met: off.length > 0 && middle < BUDGET.apartMs,
      ratio: `p95 ${quantile(off, 0.95).toFixed(1)} ms, ${off.length} frames`,
    },
  ]
}

export async function mediaRows(url) {
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--disable-background-networking',
      '--disable-component-update',
    ],
  })
  try {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
    page.on('filechooser', () => undefined)
    const { demo } = await (await page.request.get(`${url}/api/session`)).json()
    await page.request.post(`${url}/api/session`, { data: { email: demo.email, password: demo.password } })
    return [...(await soundRows(url, page)), ...(await clipRows(browser, url, page))]
  } finally {
    await browser.close()
  }
}
