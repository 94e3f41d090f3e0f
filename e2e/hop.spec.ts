import { readFile } from 'node:fs/promises'
import { unzipSync } from 'fflate'
import { GifReader } from 'omggif'
import { enter, expect, newShot, openDesk, OWNER, pen, ring, safe, stored, test, type Place } from './world.ts'

/** The whole of a new user's first evening, on an installation nobody has used yet. */
test('a stranger plans a pebble’s hop, draws it, flips it, loops it and sends it off', async ({ page, newWorld }) => {
  const world = await newWorld()
  await page.goto(world.url)
  await expect(page.getByText('Nobody has an account here yet')).toBeVisible()
  await page.getByLabel('Your name').fill(OWNER.name)
  await page.getByLabel('E-mail').fill(OWNER.email)
  await page.getByLabel('Password').fill(OWNER.password)
  await page.getByRole('button', { name: 'Make this desk mine' }).click()

  await expect(page.getByText('The shelf is empty')).toBeVisible()
  await page.getByRole('button', { name: 'New film' }).click()
  await page.getByRole('dialog').getByRole('textbox').fill('Exercises')
  await page.getByRole('button', { name: 'Make it' }).click()
  await page.getByRole('button', { name: /A new shot/ }).click()
  await page.getByLabel('Name', { exact: true }).fill('A jelly pebble')
  await page.getByRole('button', { name: /small wide/ }).click()
  await page.getByPlaceholder('36 or 1.5 s').fill('0.7 s')
  await expect(page.getByText('16.8 frames is no whole number: 17 frames · 0.71 s')).toBeVisible()
  await page.getByPlaceholder('36 or 1.5 s').fill('12')
  await expect(page.getByText('12 frames · 0.50 s · 0:00:00:12 · 6 drawings on twos, 12 on ones')).toBeVisible()
  await page.getByRole('button', { name: 'Lay it on the desk' }).click()
  await expect(page.getByText('A chart lies between two keys.')).toBeVisible()

  // The two keys: drawn on empty frames with a pen, each begins a new drawing.
  await pen(page, ring(0.2, 0.7, 0.1))
  await page.keyboard.press('ArrowDown')
  for (let i = 0; i < 7; i++) await page.keyboard.press('ArrowDown')
  await expect(page.getByText('Nothing is exposed on frame 9.')).toBeVisible()
  await pen(page, ring(0.8, 0.7, 0.1))
  await expect(page.getByText(/between 1 and 9/)).toBeVisible()

  // A slow-in of three, made on twos, the later key held to the end.
  await page.getByRole('button', { name: 'slow in' }).click()
  await page.getByRole('button', { name: 'make the drawings' }).click()
  const queue = page.getByRole('region', { name: 'Queue' })
  const places: [string, Place][] = [
    ['3, half-way between 1 and 9', [0.5, 0.4]],
    ['5, half-way between 3 and 9', [0.67, 0.5]],
    ['7, half-way between 5 and 9', [0.69, 0.52]],
  ]
  for (const [words, [x, y]] of places) {
    await expect(queue).toContainText(words)
    await page.keyboard.press('e')
    await expect(page.getByText('showing what it is drawn from')).toBeVisible()
    await pen(page, ring(x, y, 0.1))
  }
  await expect(queue).toContainText('All that is on the sheet is drawn.')
  await expect(page.getByText(/7 lies at 0\.\d\d, wanted 0\.88/)).toBeVisible()

  // Hold to flip shows the drawing before only while the key is down.
  await page.keyboard.down('s')
  await expect(page.locator('.flipped')).toHaveText('5')
  await page.keyboard.up('s')
  await expect(page.locator('.flipped')).toHaveCount(0)

  // Hold the last key for four frames; play; loop a part.
  await page.keyboard.press('g')
  await page.keyboard.press('=')
  await page.keyboard.press('=')
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible()
  await page.waitForTimeout(900)
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible()
  await safe(page)

  const shot = /shot\/([^/]+)/.exec(page.url())?.[1] as string
  const before = await stored(page, world, shot)
  await page.reload()
  await expect(page.getByText(/between 1 and 9/)).toBeVisible()
  expect(await stored(page, world, shot)).toEqual(before)
  const numbers = Object.values(before.document.drawings)
    .map(d => d.number)
    .sort((a, b) => a - b)
  expect(numbers).toEqual([1, 3, 5, 7, 9])

  const [take] = Object.values(before.document.takes)
  const frames = take?.length as number
  await page.getByRole('link', { name: 'Send off' }).click()
  await page.getByRole('button', { name: 'Make the GIF' }).click()
  const saved = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Save a-jelly-pebble.gif' }).click()
  const gif = new GifReader(new Uint8Array(await readFile(await (await saved).path())))
  const drawn = Object.values(take?.columns ?? {}).find(column => column.some(run => run.drawing !== null)) ?? []
  expect([gif.width, gif.height, gif.loopCount()]).toEqual([640, 360, 0])
  expect(gif.numFrames()).toBe(drawn.length)
  const delays = Array.from({ length: gif.numFrames() }, (_, i) => gif.frameInfo(i).delay)
  expect(delays.reduce((a, b) => a + b)).toBe(Math.round((frames * 100) / 24))
  expect(delays.slice(0, 4)).toEqual([8, 9, 8, 8])
  const pictures = delays.map((_, i) => {
    const pixels = new Uint8Array(640 * 360 * 4)
    gif.decodeAndBlitFrameRGBA(i, pixels)
    return Buffer.from(pixels).toString('base64')
  })
  expect(new Set(pictures).size).toBe(pictures.length)
})

test('numbered PNGs: one for every frame, at the size asked for, without the paper', async ({ page, world }) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 6 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.5, 0.5, 0.2))
  await safe(page)
  await page.getByRole('link', { name: 'Send off' }).click()
  await page.getByText('numbered PNGs').click()
  await page.getByRole('button', { name: '320' }).click()
  await page.locator('.el-switch').click()
  await expect(page.getByText('4 frames show no drawing')).toBeVisible()
  await page.getByRole('button', { name: 'Make the PNGs' }).click()
  const saved = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Save a-jelly-pebble.zip' }).click()
  const files = unzipSync(new Uint8Array(await readFile(await (await saved).path())))
  expect(Object.keys(files)).toEqual(['0001.png', '0002.png', '0003.png', '0004.png', '0005.png', '0006.png'])
  const png = Buffer.from(files['0001.png'] as Uint8Array)
  expect([png.readUInt32BE(16), png.readUInt32BE(20), png[25]]).toEqual([320, 180, 6])
  expect(files['0001.png']).toEqual(files['0002.png'])
  expect(files['0003.png']).not.toEqual(files['0002.png'])

  await page.getByText('looping GIF').click()
  await page.getByRole('button', { name: 'Make the GIF' }).click()
  const clear = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Save a-jelly-pebble.gif' }).click()
  const gif = new GifReader(new Uint8Array(await readFile(await (await clear).path())))
  const pixels = new Uint8Array(320 * 180 * 4)
  gif.decodeAndBlitFrameRGBA(0, pixels)
  const opaque = pixels.filter((value, i) => i % 4 === 3 && value > 0).length
  expect([gif.frameInfo(0).disposal, pixels[3], opaque > 100, opaque < 3000]).toEqual([2, 0, true, true])
})
