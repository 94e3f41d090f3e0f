import { unzipSync } from 'fflate'
import { readFileSync } from 'node:fs'
import type { Page } from 'playwright/test'
import UPNG from 'upng-js'
import { bringIn, documentNow, enter, expect, newShot, openDesk, safe, test } from './world.ts'

test.describe.configure({ timeout: 90_000 })
test.beforeEach(({ page }) => void page.on('filechooser', () => undefined))

/** A lantern on its post, as a drawn text says it: figures, groups, sheets of style, things used twice, holes, shades, a line that is scaled. */
const LANTERN = `<?xml version="1.0"?>
<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="320" height="180" viewBox="0 0 640 360">
  <style>.pane { fill: #ffd37a } .post, rect.post { fill: rgb(88, 66, 44); stroke: none }</style>
  <defs>
    <linearGradient id="dusk"><stop offset="0" stop-color="#203040"/><stop offset="1" style="stop-color:#405060"/></linearGradient>
    <linearGradient id="late" xlink:href="#dusk"/>
    <symbol id="reed" viewBox="0 0 10 100"><path d="M5 100C5 60 2 40 5 0" fill="none" stroke="#4d7a46" stroke-width="3"/></symbol>
    <g id="leaf"><ellipse cx="0" cy="0" rx="26" ry="9" fill="#7fa35a"/></g>
  </defs>
  <rect width="640" height="120" fill="url(#late)"/>
  <rect class="post" x="300" y="160" width="24" height="180"/>
  <g transform="translate(312 110) scale(1.5)" style="stroke:#2f2c28;stroke-width:4px">
    <path class="pane" fill-rule="evenodd" d="M-36-40h72v80h-72zM-18-22v44h36v-44z"/>
    <circle r="9" fill="#c0392b" opacity="0.5"/>
  </g>
  <use href="#leaf" x="120" y="300"/>
  <use xlink:href="#leaf" transform="translate(180 320) rotate(-30)"/>
  <use href="#reed" x="480" y="180" width="16" height="160"/>
  <svg x="520" y="200" width="80" height="80" viewBox="0 0 2 2"><polygon points="0,0 2,0 1,2" fill="navy"/></svg>
  <polyline points="20,340 60,310 100,340 140,310" fill="none" stroke="#a44d24" stroke-width="6"/>
  <rect x="400" y="300" width="60" height="40" rx="14" fill="#8aa" stroke="#234" stroke-width="2"/>
  <g display="none"><rect width="640" height="360" fill="red"/></g>
  <rect width="640" height="360" fill="red" visibility="hidden"/>
</svg>`

const svg = (name: string, text: string) => ({ name, mimeType: 'image/svg+xml', buffer: Buffer.from(text) })
const asked = (page: Page, name: string) => page.getByRole('region', { name })

/** The first frame as it is sent off, and what a browser shows of the text on the same paper. */
async function compared(page: Page, text: string): Promise<{ apart: number; far: number }> {
  await page.getByRole('link', { name: 'Send off' }).click()
  await page.getByRole('radio', { name: /numbered/ }).click()
  await page.getByRole('button', { name: 'Make the PNGs' }).click()
  const saving = page.waitForEvent('download')
  await page.getByRole('link', { name: /^Save/ }).click()
  const files = unzipSync(new Uint8Array(readFileSync(await (await saving).path())))
  const png = UPNG.decode(files['0001.png']!.slice().buffer)
  const mine = new Uint8Array(UPNG.toRGBA8(png)[0]!)
  const theirs = await page.evaluate(
    async ({ text: drawn, width, height }) => {
      const image = new Image()
      image.src = URL.createObjectURL(new Blob([drawn], { type: 'image/svg+xml' }))
      await image.decode()
      const brush = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!
      brush.fillStyle = '#fdfaf3'
      brush.fillRect(0, 0, width, height)
      brush.drawImage(image, 0, 0, width, height)
      return [...brush.getImageData(0, 0, width, height).data]
    },
    { text, width: png.width, height: png.height },
  )
  let [sum, far] = [0, 0]
  for (let i = 0; i < mine.length; i += 4) {
    const off = Math.max(...[0, 1, 2].map(c => Math.abs(mine[i + c]! - theirs[i + c]!)))
    sum += off
    far += Number(off > 60)
  }
  return { apart: sum / (mine.length / 4), far: far / (mine.length / 4) }
}

test('a drawn text becomes strokes and painted shapes where it would lie as a picture, in colours of the palette', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 6 })
  await openDesk(page, world, shot)
  await bringIn(page, svg('lantern.svg', LANTERN))
  await asked(page, 'lantern.svg')
    .getByRole('button', { name: 'as strokes and shapes, a drawing of its own here' })
    .click()
  await safe(page)
  const now = async () => {
    const document = (await documentNow(page, world, shot)) as unknown as {
      drawings: Record<string, { elements: Record<string, { kind: string; width: number; swatch: string }> }>
      swatches: Record<string, { colour: string }>
    }
    const elements = Object.values(document.drawings).flatMap(drawing => Object.values(drawing.elements))
    return elements.map(one => ({ ...one, colour: document.swatches[one.swatch]!.colour }))
  }
  await expect.poll(async () => (await now()).length).toBeGreaterThan(10)
  const all = await now()
  expect(all.filter(one => one.kind === 'picture')).toEqual([])
  const lines = all.filter(one => one.kind === 'line')
  expect(lines.map(one => [one.colour, one.width]).sort()).toEqual(
    [
      // The pane's two rounds and the flame, four wide, one and a half times as large; half of one colour on the paper is a lighter one.
      ...['#2f2c28', '#2f2c28', '#96938e'].map(colour => [colour, 6]),
      ['#4d7a46', 4.8],
      ['#a44d24', 6],
      ['#223344', 2],
    ].sort(),
  )
  // A shade is the middle of its colours.
  expect(all.map(one => one.colour)).toContain('#304050')
  expect(all.map(one => one.colour)).toContain('#000080')
  expect(all.map(one => one.colour)).not.toContain('#ff0000')
  const shape = all.filter(one => one.kind === 'shape')
  expect(shape).toHaveLength(8)

  // Seen beside it as a browser shows it, it is the same but for the shade and the half red.
  const flat = LANTERN.replace('fill="url(#late)"', 'fill="#304050"')
  const { apart, far } = await compared(page, flat)
  expect({ apart: apart < 1, far: far < 0.004 }).toEqual({ apart: true, far: true })

  // One step: taken back, neither strokes nor colours are left.
  await page.getByRole('link', { name: 'Desk' }).click()
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await now()).length).toBe(0)
  const { swatches } = (await documentNow(page, world, shot)) as unknown as { swatches: object }
  expect(JSON.stringify(swatches)).not.toContain('#a44d24')
})

test('what of a drawn text is no stroke is told; hostile, huge and empty ones do no harm, and nothing is half there', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 6 })
  await openDesk(page, world, shot)
  const wrap = (inner: string) => `<svg xmlns="http://www.w3.org/2000/svg" width="64" height="36">${inner}</svg>`
  const lay = async (name: string, text: string) => {
    await bringIn(page, svg(name, text))
    await asked(page, name)
      .getByRole('button', { name: /a drawing of its own here$/ })
      .last()
      .click()
  }
  const count = async () => Object.keys((await documentNow(page, world, shot)).drawings).length
  for (const [name, text, words] of [
    ['words.svg', wrap('<text y="20">reeds</text>'), 'has nothing in it that can be a stroke or a shape'],
    ['far.svg', wrap('<path d="M0 0L1e30 1e30" stroke="black"/>'), 'has nothing in it'],
    ['many.svg', wrap('<path d="M0 0h1" stroke="black"/>'.repeat(5001)), 'has more in it than a drawing holds'],
  ] as const) {
    await lay(name, text)
    await expect(page.getByText(`“${name}” ${words}`)).toBeVisible({ timeout: 30_000 })
    expect(await count()).toBe(0)
    await page.keyboard.press('Escape')
  }
  // What uses itself, or a little over and over, is not even shown as a picture: the page would not come back.
  for (const [name, text] of [
    ['within.svg', wrap('<g id="a"><use href="#a"/><rect width="9" height="9"/></g>')],
    [
      'laughs.svg',
      wrap(
        `<defs><rect id="l0" width="2" height="2"/>${Array.from({ length: 9 }, (_, i) => `<g id="l${i + 1}">${`<use href="#l${i}"/>`.repeat(10)}</g>`).join('')}</defs><use href="#l9"/>`,
      ),
    ],
  ] as const) {
    await bringIn(page, svg(name, text))
    await expect(page.getByText(`“${name}” draws more things over and over than can be shown`)).toBeVisible()
  }
  expect(await count()).toBe(0)
  // Nothing of it runs, nothing is fetched; a hidden script is no stroke.
  let fetched = 0
  page.on('request', request => void (fetched += Number(request.url().includes('elsewhere'))))
  await lay(
    'heron.svg',
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="64" height="36" onload="window.ran = 1">
       <script>window.ran = 2</script><style>@import url(http://elsewhere.invalid/a.css); path { fill: url(http://elsewhere.invalid/b#c) teal }</style>
       <image href="http://elsewhere.invalid/d.png" width="9" height="9"/><path d="M2 2h20v20z"/><text>x</text></svg>`,
  )
  await expect.poll(count).toBe(1)
  await expect(page.getByText('2 things of “heron.svg” are left out')).toBeVisible()
  expect(await page.evaluate(() => (globalThis as unknown as { ran?: number }).ran)).toBeUndefined()
  expect(fetched).toBe(0)
  const now = (await documentNow(page, world, shot)) as unknown as { swatches: Record<string, { colour: string }> }
  expect(Object.values(now.swatches).map(one => one.colour)).toContain('#008080')

  // On the drawing that is there, gathered, and laid as one step.
  await bringIn(page, svg('again.svg', wrap('<circle cx="30" cy="18" r="9"/>')))
  await asked(page, 'again.svg')
    .getByRole('button', { name: /^as strokes and shapes on/ })
    .click()
  await expect(page.getByRole('status').filter({ hasText: '1 stroke or shape on' })).toBeVisible()
})
