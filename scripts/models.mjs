// Paints the sides of the demo's model sheet anew: `node scripts/models.mjs`.
import { build } from 'esbuild'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { chromium } from 'playwright'
import { CHROMIUM, ROOT } from './prepare.mjs'
import { say } from './say.mjs'

const FOLDER = join(ROOT, 'packages/server/src/demo/models')
const entry = `
  import { SHEET, SIDES } from './packages/server/src/demo/tildaSides.ts'
  import { freshDocument } from './packages/core/src/document/index.ts'
  const { swatches } = freshDocument({ width: 16, height: 9, fps: 24, paper: '#fdfaf3' }, 1)
  Object.assign(globalThis, { SHEET, SIDES, swatches })
`
const built = await build({
  stdin: { contents: entry, resolveDir: ROOT, loader: 'ts' },
  bundle: true,
  write: false,
  format: 'iife',
})

/** One side as PNG, in the page. */
async function painted(name) {
  const { SHEET, SIDES, swatches } = globalThis
  const [width, height] = [SHEET.right - SHEET.left, SHEET.bottom - SHEET.top].map(n => n * SHEET.scale)
  const canvas = new OffscreenCanvas(width, height)
  const brush = canvas.getContext('2d')
  brush.scale(SHEET.scale, SHEET.scale)
  brush.translate(-SHEET.left, -SHEET.top)
  brush.lineCap = brush.lineJoin = 'round'
  for (const { kind, swatch, width: wide, points } of SIDES[name]()) {
    brush.beginPath()
    for (const [i, { x, y }] of points.entries()) brush[i > 0 ? 'lineTo' : 'moveTo'](x, y)
    brush.fillStyle = brush.strokeStyle = swatches[swatch].colour
    // Pens of the demo are told in pixels of a paper on which she is about three times her own measure.
    brush.lineWidth = wide / 3
    if (kind === 'shape') brush.fill()
    else brush.stroke()
  }
  const blob = await canvas.convertToBlob({ type: 'image/png' })
  return [...new Uint8Array(await blob.arrayBuffer())]
}

const browser = await chromium.launch({ executablePath: CHROMIUM, args: ['--no-sandbox'] })
const page = await browser.newPage()
await page.goto('chrome://version')
await page.evaluate(built.outputFiles[0].text)
mkdirSync(FOLDER, { recursive: true })
for (const name of ['front', 'side', 'back']) {
  const bytes = await page.evaluate(painted, name)
  writeFileSync(join(FOLDER, `${name}.png`), Uint8Array.from(bytes))
  say(`packages/server/src/demo/models/${name}.png: ${Math.round(bytes.length / 1000)} kB`)
}
await browser.close()
