// Renders the made-up film of the demo shot “Reed waltz” anew: `node scripts/waltz.mjs`. It is noisy, and packed as small as a telephone would.
import { build } from 'esbuild'
import { BufferTarget, EncodedPacket, EncodedVideoPacketSource, Output, WebMOutputFormat } from 'mediabunny'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { chromium } from 'playwright'
import { CHROMIUM, ROOT } from './prepare.mjs'
import { say } from './say.mjs'

const FOLDER = join(ROOT, 'packages/server/src/demo')
const built = await build({ entryPoints: [join(FOLDER, 'reeds.ts')], write: false, format: 'esm' })
const { WALTZ, WALTZ_POSES, reedLine } = await import(
  `data:text/javascript,${encodeURIComponent(built.outputFiles[0].text)}`
)

/** Paints and packs every frame, in the page. */
async function packed({ frames, width, height, fps }) {
  const canvas = new OffscreenCanvas(width, height)
  const brush = canvas.getContext('2d')
  const chunks = []
  const encoder = new VideoEncoder({
    output: (chunk, meta) => {
      const data = new Uint8Array(chunk.byteLength)
      chunk.copyTo(data)
      chunks.push({ data: [...data], type: chunk.type, config: meta?.decoderConfig?.codec ?? null })
    },
    error: error => {
      throw error
    },
  })
  encoder.configure({ codec: 'vp09.00.21.08', width, height, framerate: fps, bitrate: 260_000, latencyMode: 'quality' })
  let state = 5
  const chance = () => (state = (Math.imul(state, 1664525) + 1013904223) | 0) / 2 ** 31
  for (const [frame, reeds] of frames.entries()) {
    const sky = brush.createLinearGradient(0, 0, 0, height)
    sky.addColorStop(0, '#c9d4cf')
    sky.addColorStop(1, '#8ba39a')
    brush.fillStyle = sky
    brush.fillRect(0, 0, width, height)
    brush.fillStyle = '#5e7a76'
    brush.fillRect(0, height * 0.78, width, height * 0.22)
    for (const [i, through] of reeds.entries()) {
      brush.strokeStyle = i === 1 ? '#2f3f2a' : '#46573a'
      brush.lineWidth = i === 1 ? 7 : 5
      brush.lineCap = 'round'
      brush.beginPath()
      through.forEach(({ x, y }, k) => (k === 0 ? brush.moveTo(x, y) : brush.lineTo(x, y)))
      brush.stroke()
      const [below, tip] = through.slice(-2)
      brush.save()
      brush.translate(tip.x, tip.y)
      brush.rotate(Math.atan2(tip.x - below.x, below.y - tip.y))
      brush.fillStyle = '#6b4a30'
      brush.beginPath()
      brush.ellipse(0, 0, 7, 17, 0, 0, 7)
      brush.fill()
      // A band and some down on each, every one elsewhere: reeds are not all alike.
      brush.fillStyle = '#c8b48c'
      brush.fillRect(-7, -4 + 5 * i, 14, 4)
      brush.beginPath()
      brush.arc(3 - 2 * i, 8 - 7 * i, 2.5, 0, 7)
      brush.fill()
      brush.restore()
    }
    const picture = brush.getImageData(0, 0, width, height)
    for (let i = 0; i < picture.data.length; i += 4) {
      const noise = 9 * chance()
      for (let k = 0; k < 3; k++) picture.data[i + k] += noise
    }
    brush.putImageData(picture, 0, 0)
    const video = new VideoFrame(canvas, { timestamp: Math.round((frame * 1e6) / fps) })
    encoder.encode(video, { keyFrame: frame % 36 === 0 })
    video.close()
  }
  await encoder.flush()
  return chunks
}

const browser = await chromium.launch({ executablePath: CHROMIUM, args: ['--no-sandbox'] })
const page = await browser.newPage()
await page.goto('chrome://version')
const frames = WALTZ_POSES.map(pose => [0, 1, 2].map(reed => reedLine(pose, reed)))
const chunks = await page.evaluate(packed, { frames, ...WALTZ.film, fps: WALTZ.fps })
await browser.close()
const target = new BufferTarget()
const output = new Output({ format: new WebMOutputFormat(), target })
const source = new EncodedVideoPacketSource('vp9')
output.addVideoTrack(source, { frameRate: WALTZ.fps })
await output.start()
for (const [i, { data, type }] of chunks.entries()) {
  const meta =
    i === 0
      ? { decoderConfig: { codec: 'vp09.00.21.08', codedWidth: WALTZ.film.width, codedHeight: WALTZ.film.height } }
      : undefined
  await source.add(new EncodedPacket(Uint8Array.from(data), type, i / WALTZ.fps, 1 / WALTZ.fps), meta)
}
await output.finalize()
writeFileSync(join(FOLDER, 'reedWaltz.webm'), new Uint8Array(target.buffer))
say(`packages/server/src/demo/reedWaltz.webm, ${Math.round(target.buffer.byteLength / 1000)} kB`)
