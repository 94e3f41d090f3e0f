import jsQR from 'jsqr'
import { readFileSync } from 'node:fs'
import type { Page } from 'playwright/test'
import UPNG from 'upng-js'
import { documentNow, enter, expect, newShot, openDesk, safe, test, watchConsole } from './world.ts'

test.describe.configure({ timeout: 120_000 })
test.beforeEach(({ page }) => void page.on('filechooser', () => undefined))

/** No camera is to be had in this browser, whatever the machine has. */
const withoutCamera = (page: Page) =>
  page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('there is none', 'NotFoundError'))
  })
const panel = (page: Page) => page.getByRole('dialog', { name: 'Photographed sheets' })
const rested = (page: Page) => expect(panel(page).getByRole('status')).toHaveCount(0, { timeout: 60_000 })

/** Photographs that are painted in the page: a few loose marks on paper that is darker to one side. */
const painted = (page: Page, marks: readonly [x: number, y: number][], type = 'image/jpeg') =>
  page.evaluate(
    async ({ marks: places, type: form }) => {
      const canvas = new OffscreenCanvas(800, 600)
      const brush = canvas.getContext('2d')!
      const light = brush.createLinearGradient(0, 0, 800, 0)
      light.addColorStop(0, '#f2efe8')
      light.addColorStop(1, '#8f8b84')
      brush.fillStyle = light
      brush.fillRect(0, 0, 800, 600)
      brush.lineWidth = 5
      brush.strokeStyle = '#333'
      for (const [x, y] of places) {
        brush.beginPath()
        brush.ellipse(x, y, 50, 34, 0.4, 0, 7)
        brush.moveTo(x - 30, y)
        brush.lineTo(x + 30, y + 12)
        brush.stroke()
      }
      const blob = await canvas.convertToBlob({ type: form, quality: 0.9 })
      return [...new Uint8Array(await blob.arrayBuffer())]
    },
    { marks, type },
  )

test('sheets taken one by one by the stand-in for a camera are registered by their holes and laid as drawings; one is taken again', async ({
  page,
  world,
}) => {
  await withoutCamera(page)
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 48 })
  await openDesk(page, world, shot)
  await page.keyboard.press('Shift+J')
  const work = panel(page)
  await expect(work).toContainText('Photograph your sheets')
  await work.getByRole('button', { name: 'take by camera' }).click()
  for (let sheet = 1; sheet <= 3; sheet++) {
    await work.getByRole('button', { name: `take sheet ${sheet}` }).click()
    await expect(work.getByRole('listitem')).toHaveCount(sheet, { timeout: 30_000 })
  }
  // One is taken again: it keeps its place and its name.
  await work.getByRole('button', { name: 'Take sheet 2 again', exact: true }).click()
  await work.getByRole('button', { name: 'take sheet 2 again', exact: true }).click()
  await expect(work.getByRole('button', { name: 'take sheet 4' })).toBeVisible({ timeout: 30_000 })
  await expect(work.getByRole('listitem')).toHaveCount(3)
  await rested(page)
  // Shut by mistake, nothing is lost.
  await page.keyboard.press('Escape')
  await expect(work).toBeHidden()
  await page.keyboard.press('Shift+J')
  await expect(work.getByRole('listitem')).toHaveCount(3)

  // They lie in the order of the numbers written on them; one may be taken out of its turn.
  const names = () => work.getByRole('listitem').locator('.look span').allInnerTexts()
  await work.getByLabel('Number of sheet 1').fill('9')
  await work.getByLabel('Number of sheet 1').press('Enter')
  await expect.poll(names).toEqual(['sheet 2', 'sheet 3', 'sheet 1'])
  await expect(work.getByRole('button', { name: 'take sheet 10' })).toBeVisible()
  await work.getByLabel('Number on the sheet').fill('3')
  await work.getByLabel('Number on the sheet').press('Enter')
  await expect(work.getByRole('button', { name: 'take sheet 3 again', exact: true })).toBeVisible()
  await work.getByLabel('Number of sheet 1').fill('1')
  await work.getByLabel('Number of sheet 1').press('Enter')
  await expect.poll(names).toEqual(['sheet 1', 'sheet 2', 'sheet 3'])

  // The holes were found by themselves; each drawing says how well it lies.
  await work.getByRole('button', { name: '3 · on one another' }).click()
  await expect(work.getByRole('radio', { name: 'peg holes' })).toBeChecked()
  await expect(work).toContainText('3 marks found on this sheet.')
  await work.getByRole('button', { name: 'The drawing after', exact: true }).click()
  const told = work.getByText(/3 marks brought together, at most [\d.]+ px off/)
  await expect(told).toBeVisible()
  expect(Number(/most ([\d.]+) px/.exec(await told.innerText())![1])).toBeLessThan(1)
  // By a region that stays: dragged over the first drawing, or typed.
  await work.getByRole('radio', { name: 'a region' }).click()
  await expect(work.getByLabel('The region, from the left, px')).toBeVisible()
  await work.getByRole('button', { name: 'The drawing before', exact: true }).click()
  const seen = (await work.getByRole('application').boundingBox())!
  await page.mouse.move(seen.x + seen.width * 0.55, seen.y + seen.height * 0.2)
  await page.mouse.down()
  await page.mouse.move(seen.x + seen.width * 0.8, seen.y + seen.height * 0.5, { steps: 4 })
  await page.mouse.up()
  await work.getByRole('button', { name: 'The drawing after', exact: true }).click()
  await expect(work.getByText(/% of the ink on ink/)).toBeVisible()
  await work.getByRole('radio', { name: 'peg holes' }).click()
  await expect(told).toBeVisible()
  // Put right by hand, by keys.
  await work.getByRole('application').focus()
  await page.keyboard.press('Shift+ArrowRight')
  await expect(work.getByLabel('By hand, right, px')).toHaveValue('10')
  await page.keyboard.press('Shift+ArrowLeft')

  await work.getByRole('button', { name: '4 · onto the sheet' }).click()
  await expect(work).toContainText('4.8 frames: becomes 5 frames')
  await work.getByLabel('Name of the layer').fill('heron')
  await work.getByRole('button', { name: 'lay them on a layer of their own' }).click()
  await expect(work).toBeHidden()
  await safe(page)
  const document = await documentNow(page, world, shot)
  const layer = Object.entries(document.layers).find(([, one]) => one.name === 'heron')![0]
  const drawings = Object.entries(document.drawings).filter(([, one]) => one.layer === layer)
  expect(drawings).toHaveLength(3)
  expect(drawings.flatMap(([, one]) => Object.values(one.elements).map(element => element.kind))).toEqual([
    'picture',
    'picture',
    'picture',
  ])
  const runs = document.takes[document.current]!.columns[layer]!
  expect(runs.slice(0, 3).map(run => run.frames)).toEqual([5, 5, 5])
  // What is inked on transparency is measured like strokes.
  await expect(page.getByRole('region', { name: 'This drawing' })).toContainText('area against drawing 1')
  await page.keyboard.press('Control+Z')
  await safe(page)
  expect(Object.values((await documentNow(page, world, shot)).layers).some(one => one.name === 'heron')).toBe(false)
})

test('one photograph with loose drawings: found, corrected, laid on one another, shivering to the end', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 60 })
  await openDesk(page, world, shot)
  const buffer = Buffer.from(await painted(page, [[140, 130], [400, 120], [640, 140], [160, 420]])) // prettier-ignore
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.keyboard.press('Shift+B')])
  await chooser.setFiles([
    { name: 'post.jpg', mimeType: 'image/jpeg', buffer },
    { name: 'page.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('<html>no picture</html>') },
  ])
  // Among the ways to bring a picture in: it is a photograph of paper.
  await page.getByRole('button', { name: /^they are photographed sheets/ }).click()
  const work = panel(page)
  await expect(page.getByText(/page\.jpg” is no picture/).first()).toBeVisible({ timeout: 30_000 })
  await rested(page)
  await work.getByRole('button', { name: '2 · drawings' }).click()
  await work.getByRole('radio', { name: 'loose, anywhere' }).click()
  await expect(work).toContainText('4 drawings on this sheet')
  await rested(page)
  await work.getByRole('button', { name: 'Leave drawing 4 out' }).click()
  await expect(work).toContainText('3 drawings on this sheet')
  // A box dragged round it brings it back.
  const sight = (await work.getByRole('application').boundingBox())!
  const scale = Math.min(sight.width / 800, sight.height / 600)
  const [left, top] = [sight.x + (sight.width - 800 * scale) / 2, sight.y + (sight.height - 600 * scale) / 2]
  await page.mouse.move(left + 90 * scale, top + 370 * scale)
  await page.mouse.down()
  await page.mouse.move(left + 230 * scale, top + 470 * scale, { steps: 4 })
  await page.mouse.up()
  await expect(work).toContainText('4 drawings on this sheet')
  await rested(page)

  await work.getByRole('button', { name: '3 · on one another' }).click()
  for (let i = 0; i < 3; i++) await work.getByRole('button', { name: 'The drawing after', exact: true }).click()
  await expect(work.getByText(/\d+ % of the ink on ink/)).toBeVisible()
  await work.getByRole('button', { name: '4 · onto the sheet' }).click()
  await work.getByRole('radio', { name: 'traced as shapes' }).click()
  await work.getByLabel('How long each drawing is held').fill('4')
  await work.getByLabel(/shivering/).check()
  await expect(work).toContainText('60 frames from frame 1 on')
  await work.getByRole('button', { name: 'lay them on a layer of their own' }).click()
  await expect(work).toBeHidden()
  await safe(page)
  const document = await documentNow(page, world, shot)
  const layer = Object.entries(document.layers).find(([, one]) => one.name === 'sheets')![0]
  const runs = document.takes[document.current]!.columns[layer]!
  expect(runs).toHaveLength(15)
  expect(runs.every(({ frames, drawing }, i) => frames === 4 && drawing !== runs[i - 1]?.drawing)).toBe(true)
  expect(new Set(runs.map(run => run.drawing)).size).toBe(4)
  // Traced, every drawing is painted shapes in the colour in the hand: a line round, and one across it.
  for (const drawing of Object.values(document.drawings).filter(one => one.layer === layer)) {
    const kinds = Object.values(drawing.elements).map(element => element.kind)
    expect([kinds.length > 0, kinds.every(kind => kind === 'shape')]).toEqual([true, true])
  }
})

test('hostile and empty photographs are told in a sentence, and nothing is half there', async ({ page, world }) => {
  await enter(page, world)
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  const whole = Buffer.from(await painted(page, [[300, 300]]))
  const [png] = [readFileSync(new URL('../packages/server/src/demo/heron/lifts1.png', import.meta.url))]
  // Its head says that it has a hundred million pixels.
  const huge = Buffer.from(png)
  huge.writeUInt32BE(10_000, 16)
  huge.writeUInt32BE(10_000, 20)
  await page.keyboard.press('Shift+J')
  const work = panel(page)
  const add = async (name: string, buffer: Buffer) => {
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      work.getByRole('button', { name: 'add photographs' }).click(),
    ])
    await chooser.setFiles([{ name, mimeType: 'image/jpeg', buffer }])
  }
  for (const [name, buffer, why] of [
    ['nothing.jpg', Buffer.alloc(0), /nothing in it/],
    ['cut.jpg', whole.subarray(0, 400), /broken, or cut off/],
    ['huge.png', huge, /too large/],
    ['drawn.svg', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'), /no picture/],
  ] as const) {
    await add(name, buffer)
    await expect(page.getByText(why).first()).toBeVisible({ timeout: 30_000 })
  }
  await expect(work.getByRole('listitem')).toHaveCount(0)
  // A blank sheet has no drawing, and nothing can be laid.
  await add('blank.jpg', Buffer.from(await painted(page, [])))
  await expect(work.getByRole('listitem')).toHaveCount(1, { timeout: 30_000 })
  await rested(page)
  await work.getByRole('button', { name: '4 · onto the sheet' }).click()
  await expect(work).toContainText('0 drawings')
  await expect(work.getByRole('button', { name: 'lay them on a layer of their own' })).toBeDisabled()
  await page.keyboard.press('Escape')
  await expect(work).toBeHidden()
  expect(Object.keys((await documentNow(page, world, shot)).drawings)).toEqual([])
})

/** What a code on the page says to whoever photographs it. */
async function photographed(page: Page): Promise<string> {
  const png = UPNG.decode((await page.getByRole('img', { name: /^Code for/ }).screenshot()).buffer as ArrayBuffer)
  const [pixels] = UPNG.toRGBA8(png)
  const read = jsQR(new Uint8ClampedArray(pixels!), png.width, png.height)
  if (!read) throw new Error('no code is seen')
  return read.data
}

test('a telephone that photographs the code sends its photographs to the desk, without an account, and only while it may', async ({
  page,
  world,
  browser,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 24, name: 'Heron, on sheets' })
  await openDesk(page, world, shot)
  const photo = Buffer.from(await painted(page, [[300, 300]]))
  await page.keyboard.press('Shift+J')
  const work = panel(page)
  await work.getByRole('button', { name: 'from a telephone' }).click()
  await expect(work.getByRole('status').filter({ hasText: 'Waiting for the first one' })).toBeVisible()
  const address = await photographed(page)
  expect(address.startsWith(`${world.url}/telephone#`)).toBe(true)

  const pocket = await browser.newContext({ viewport: { width: 390, height: 780 }, hasTouch: true, isMobile: true })
  const phone = await pocket.newPage()
  const heard: string[] = []
  watchConsole(phone, heard)
  await phone.goto(address)
  await expect(phone.getByText('Heron, on sheets')).toBeVisible()
  const album = phone.getByLabel('Photographs from this telephone')
  await album.setInputFiles([
    { name: 'first.jpg', mimeType: 'image/jpeg', buffer: photo },
    { name: 'torn.jpg', mimeType: 'image/jpeg', buffer: photo.subarray(0, 40) },
    { name: 'second.jpg', mimeType: 'image/jpeg', buffer: photo },
  ])
  const sent = phone.getByRole('list', { name: 'Photographs' }).getByRole('listitem')
  await expect(sent.filter({ hasText: 'torn.jpg' })).toContainText('no picture')
  await expect(work.getByRole('listitem')).toHaveCount(2, { timeout: 30_000 })
  await expect(sent.filter({ hasText: 'on the desk' })).toHaveCount(2)
  // Opened again it knows of those, and more can come while one looks at what there is.
  await phone.reload()
  await expect(phone.getByText('2 photographs sent before.')).toBeVisible()
  await work.getByRole('button', { name: 'go on with them' }).click()
  await phone
    .getByLabel('A photograph by the camera')
    .setInputFiles({ name: 'third.jpg', mimeType: 'image/jpeg', buffer: photo })
  await expect(work.getByRole('listitem')).toHaveCount(3, { timeout: 30_000 })

  // Whoever holds it is let into nothing else.
  await phone.goto(`${world.url}/shelf`)
  await expect(phone.getByRole('button', { name: 'Sit down' })).toBeVisible()
  await phone.goto(address)
  await expect(phone.getByText('3 photographs sent before.')).toBeVisible()
  expect(heard).toEqual([])
  await work.getByRole('button', { name: 'from a telephone' }).click()
  await work.getByRole('button', { name: 'no more from there' }).click()
  await expect(phone.getByRole('alert')).toContainText('no longer good')
  await pocket.close()
})
