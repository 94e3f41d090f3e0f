// Paints the background of the demo shot “The stamp” anew: `node scripts/stamp.mjs`.
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { chromium } from 'playwright'
import UPNG from 'upng-js'
import { CHROMIUM, ROOT } from './prepare.mjs'
import { say } from './say.mjs'

const FILE = 'packages/server/src/demo/postOffice.png'
const SIZE = { width: 1280, height: 720 }
const COLOURS = 160

/** The post office at night, in the page: pixels, row by row. */
function painted({ width, height }) {
  const brush = new OffscreenCanvas(width, height).getContext('2d')
  let state = 7
  const chance = () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32
  const between = (a, b) => a + (b - a) * chance()
  const down = (y0, y1, ...colours) => {
    const fill = brush.createLinearGradient(0, y0, 0, y1)
    colours.forEach((colour, i) => fill.addColorStop(i / (colours.length - 1), colour))
    return fill
  }
  const box = (x, y, w, h, fill, r = 3) => {
    brush.beginPath()
    brush.roundRect(x, y, w, h, r)
    brush.fillStyle = fill
    brush.fill()
  }
  /** Dry strokes of a wide brush, all about one way. */
  const strokes = (count, [x0, y0, x1, y1], colours, long, thick, slant) => {
    brush.lineCap = 'round'
    for (let i = 0; i < count; i++) {
      const [x, y] = [between(x0, x1), between(y0, y1)]
      const run = between(0.4, 1) * long
      brush.strokeStyle = colours[Math.floor(chance() * colours.length)]
      brush.globalAlpha = between(0.05, 0.16)
      brush.lineWidth = between(0.4, 1) * thick
      brush.beginPath()
      brush.moveTo(x, y)
      brush.quadraticCurveTo(x + run / 2, y + between(-6, 6) + slant / 2, x + run, y + slant)
      brush.stroke()
    }
    brush.globalAlpha = 1
  }

  // The wall, lit from the right, where a lamp hangs.
  brush.fillStyle = '#d8cdae'
  brush.fillRect(0, 0, width, height)
  const glow = brush.createRadialGradient(842, 96, 20, 842, 150, 860)
  glow.addColorStop(0, '#fbf0cd')
  glow.addColorStop(0.35, '#eadfbd')
  glow.addColorStop(1, '#b3a988')
  brush.fillStyle = glow
  brush.fillRect(0, 0, width, height)
  strokes(900, [-60, 0, width, 620], ['#fff6d8', '#a49976', '#c9bd98', '#e9dcb4'], 130, 22, 14)

  // The window: night over the marsh.
  const [wx, wy, ww, wh] = [62, 66, 232, 292]
  box(wx - 16, wy - 16, ww + 32, wh + 32, '#7a5238', 5)
  box(wx - 7, wy - 7, ww + 14, wh + 14, '#8f6345')
  brush.save()
  brush.beginPath()
  brush.rect(wx, wy, ww, wh)
  brush.clip()
  brush.fillStyle = down(wy, wy + wh, '#33506a', '#5b7f95', '#9db4ae')
  brush.fillRect(wx, wy, ww, wh)
  const moon = brush.createRadialGradient(wx + 150, wy + 76, 8, wx + 150, wy + 76, 110)
  moon.addColorStop(0, 'rgba(255, 244, 206, 0.8)')
  moon.addColorStop(1, 'rgba(255, 244, 206, 0)')
  brush.fillStyle = moon
  brush.fillRect(wx, wy, ww, wh)
  brush.fillStyle = '#fbeec4'
  brush.beginPath()
  brush.arc(wx + 150, wy + 76, 26, 0, 7)
  brush.fill()
  brush.fillStyle = down(wy + 200, wy + wh, '#6f8a7a', '#3f5a4c')
  brush.beginPath()
  brush.moveTo(wx, wy + 224)
  brush.bezierCurveTo(wx + 70, wy + 196, wx + 140, wy + 236, wx + ww, wy + 206)
  brush.lineTo(wx + ww, wy + wh)
  brush.lineTo(wx, wy + wh)
  brush.fill()
  for (const [x, h, lean] of [
    [24, 150, 10],
    [46, 196, -8],
    [70, 128, 16],
    [196, 168, -14],
  ]) {
    brush.strokeStyle = '#2f4638'
    brush.lineWidth = 3.4
    brush.beginPath()
    brush.moveTo(wx + x, wy + wh)
    brush.quadraticCurveTo(wx + x, wy + wh - h / 2, wx + x + lean, wy + wh - h)
    brush.stroke()
    brush.fillStyle = '#4a3526'
    brush.beginPath()
    brush.ellipse(wx + x + lean, wy + wh - h - 12, 4.6, 15, lean / 90, 0, 7)
    brush.fill()
  }
  brush.restore()
  box(wx + ww / 2 - 5, wy, 10, wh, '#8f6345', 0)
  box(wx, wy + 132, ww, 9, '#8f6345', 0)
  box(wx - 26, wy + wh + 8, ww + 52, 16, '#6d4830')

  // Pigeonholes with the post of the marsh.
  const [px, py, cell, deep] = [930, 92, 82, 70]
  box(px - 14, py - 14, 4 * cell + 22, 5 * deep + 24, '#6d4830', 5)
  for (let row = 0; row < 5; row++) {
    for (let column = 0; column < 4; column++) {
      const [x, y] = [px + column * cell, py + row * deep]
      box(x, y, cell - 8, deep - 8, down(y, y + deep, '#3f2f22', '#5c4330'))
      const letters = Math.floor(between(0, 4.4))
      for (let i = 0; i < letters; i++) {
        brush.save()
        brush.translate(x + 10 + i * 15 + between(-2, 3), y + deep - 10)
        brush.rotate(between(-0.1, 0.16))
        const tall = between(30, 46)
        box(0, -tall, 12, tall, ['#e6d9b4', '#d9c79a', '#cfd6c0', '#e9dfc6'][Math.floor(chance() * 4)], 1)
        box(3, -tall + 4, 6, 7, ['#a44d24', '#64804a', '#5b7f95'][Math.floor(chance() * 3)], 1)
        brush.restore()
      }
    }
  }
  strokes(240, [px - 20, py - 10, px + 320, py + 350], ['#2f2218', '#8a6244'], 60, 8, 4)

  // The lamp.
  brush.strokeStyle = '#4a3a2c'
  brush.lineWidth = 4
  brush.beginPath()
  brush.moveTo(842, 0)
  brush.lineTo(842, 44)
  brush.stroke()
  brush.fillStyle = '#64804a'
  brush.beginPath()
  brush.moveTo(800, 92)
  brush.quadraticCurveTo(806, 46, 842, 42)
  brush.quadraticCurveTo(878, 46, 884, 92)
  brush.closePath()
  brush.fill()
  brush.fillStyle = '#fff3c4'
  brush.beginPath()
  brush.ellipse(842, 92, 40, 11, 0, 0, 7)
  brush.fill()

  // The table, with its grain.
  const edge = new Path2D('M -8 610 C 120 603 300 598 480 602 S 980 606 1288 596 L 1288 728 L -8 728 Z')
  brush.fillStyle = down(598, 720, '#c9a768', '#a98148')
  brush.fill(edge)
  brush.save()
  brush.clip(edge)
  strokes(420, [-120, 600, width, 724], ['#e0c489', '#7d5a30', '#b98f55'], 260, 9, 2)
  const pool = brush.createRadialGradient(842, 640, 20, 842, 640, 520)
  pool.addColorStop(0, 'rgba(255, 240, 196, 0.5)')
  pool.addColorStop(1, 'rgba(255, 240, 196, 0)')
  brush.fillStyle = pool
  brush.fillRect(0, 590, width, 140)
  brush.restore()
  return [...brush.getImageData(0, 0, width, height).data]
}

const browser = await chromium.launch({ executablePath: CHROMIUM, args: ['--no-sandbox'] })
const page = await browser.newPage()
const pixels = Uint8Array.from(await page.evaluate(painted, SIZE))
await browser.close()
const bytes = new Uint8Array(UPNG.encode([pixels.buffer], SIZE.width, SIZE.height, COLOURS))
writeFileSync(join(ROOT, FILE), bytes)
say(`${FILE}: ${Math.round(bytes.length / 1000)} kB`)
