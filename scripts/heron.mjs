// Photographs the made-up sheets of the demo shots “Heron lifts a foot” and “Heron shivers” anew, and inks them as the desk does: `node scripts/heron.mjs`.
import { build } from 'esbuild'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { chromium } from 'playwright'
import { CHROMIUM, ROOT } from './prepare.mjs'
import { say } from './say.mjs'

const FOLDER = join(ROOT, 'packages/server/src/demo/heron')
const PAPER = { width: 1280, height: 720 }
const entry = `
  import { paintStandIn, STAND_IN } from './packages/web/src/sheets/standIn.ts'
  import * as core from './packages/core/src/sheets/index.ts'
  Object.assign(globalThis, { paintStandIn, STAND_IN, core })
`
const built = await build({
  stdin: { contents: entry, resolveDir: ROOT, loader: 'ts' },
  bundle: true,
  write: false,
  format: 'iife',
})

/** Photographs sheets and inks them, in the page: each laid on the first by what is said. */
async function inked({ sheets, by, paper }) {
  const { core, paintStandIn, STAND_IN } = globalThis
  const read = sheets.map(({ sheet, share }) => {
    const brush = new OffscreenCanvas(STAND_IN.width, STAND_IN.height).getContext('2d')
    paintStandIn(brush, sheet, share)
    const { width, height, data } = brush.getImageData(0, 0, STAND_IN.width, STAND_IN.height)
    const grey = new Uint8Array(width * height).map(
      (_, i) => 0.2126 * data[4 * i] + 0.7152 * data[4 * i + 1] + 0.0722 * data[4 * i + 2],
    )
    const photo = { width, height, data: grey }
    const corners = core.paperOf(photo)
    const even = core.evened(photo)
    const all = core.inkOf(even, core.levelsOf(even))
    const whole = core.insideSheet(all, corners, 12)
    const marks = core.pegHoles(whole)
    const ink = core.withoutMarks(whole, marks)
    const [box] = core.partsOf(ink, 'whole')
    return { ink, marks, box, corners }
  })
  const laid = read.map(one => core.registeredOn(read[0], one, by))
  const through = core.onPaper(paper, read[0])
  const pictures = []
  for (const [i, { ink }] of read.entries()) {
    const [a, b, c, d, e, f] = laid[i].matrix
    const [A, B, C, D, E, F] = through
    const matrix = [A * a + C * b, B * a + D * b, A * c + C * d, B * c + D * d, A * e + C * f + E, B * e + D * f + F]
    const onto = core.inkThrough(ink, matrix, paper)
    const canvas = new OffscreenCanvas(paper.width, paper.height)
    const brush = canvas.getContext('2d')
    const picture = brush.createImageData(paper.width, paper.height)
    onto.data.forEach((ink, k) => picture.data.set([47, 44, 40, ink], 4 * k))
    brush.putImageData(picture, 0, 0)
    const blob = await canvas.convertToBlob({ type: 'image/png' })
    pictures.push([...new Uint8Array(await blob.arrayBuffer())])
  }
  return pictures
}

const browser = await chromium.launch({ executablePath: CHROMIUM, args: ['--no-sandbox'] })
const page = await browser.newPage()
await page.goto('chrome://version')
await page.evaluate(built.outputFiles[0].text)
mkdirSync(FOLDER, { recursive: true })
for (const [name, sheets, by] of [
  ['lifts', Array.from({ length: 6 }, (_, i) => ({ sheet: i, share: i / 6 })), 'peg holes'],
  ['shivers', Array.from({ length: 4 }, (_, i) => ({ sheet: 11 + i, share: 0.5 })), 'one another'],
]) {
  const pictures = await page.evaluate(inked, { sheets, by, paper: PAPER })
  pictures.forEach((bytes, i) => writeFileSync(join(FOLDER, `${name}${i + 1}.png`), Uint8Array.from(bytes)))
  say(
    `packages/server/src/demo/heron/${name}: ${pictures.length} pictures, ${Math.round(pictures.flat().length / 1000)} kB`,
  )
}
await browser.close()
