import { unzipSync } from 'fflate'
import { readFile } from 'node:fs/promises'
import type { Page } from 'playwright/test'
import { documentNow, enter, expect, newShot, openDesk, pen, ring, test } from './world.ts'

const margin = (page: Page) => page.locator('aside.margin')
/** A drawer of the margin by its title, opened. */
async function opened(page: Page, title: string) {
  const button = margin(page).locator('button.title', { hasText: title })
  if ((await button.getAttribute('aria-expanded')) === 'false') await button.click()
  return margin(page).getByRole('region', {
    name: { guides: 'Guides', 'layer moves': 'Layer on the move' }[title] ?? title,
  })
}
/** Writes a number into a field by its words, and gives the keyboard back to the desk. */
async function write(page: Page, words: string, value: string): Promise<void> {
  const field = margin(page).getByLabel(new RegExp(`^${words},`))
  await field.fill(value)
  await field.press('Enter')
}
/** Middle and right edge of what is drawn on a see-through picture, as shares of its width; and how many pixels that is. */
const inkIn = (page: Page, png: Uint8Array) =>
  page.evaluate(async base64 => {
    const bytes = Uint8Array.from(atob(base64), c => c.charCodeAt(0))
    const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }))
    const brush = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!
    brush.drawImage(bitmap, 0, 0)
    const { data } = brush.getImageData(0, 0, bitmap.width, bitmap.height)
    let [sum, count, right] = [0, 0, 0]
    for (let i = 3; i < data.length; i += 4) {
      if (data[i]! < 128) continue
      const x = ((i - 3) / 4) % bitmap.width
      sum += x
      right = Math.max(right, x)
      count++
    }
    return { x: sum / count / bitmap.width, right: right / bitmap.width, count }
  }, Buffer.from(png).toString('base64'))

/** The numbered pictures of the shot, without the paper. */
async function sentOff(page: Page, name: string): Promise<Uint8Array[]> {
  await page.getByRole('link', { name: 'Send off' }).click()
  await page.getByText('numbered PNGs').click()
  await page.getByRole('button', { name: '320' }).click()
  await page.locator('.el-switch').click()
  await page.getByRole('button', { name: 'Make the PNGs' }).click()
  const saved = page.waitForEvent('download')
  await page.getByRole('link', { name: `Save ${name}.zip` }).click()
  const files = unzipSync(new Uint8Array(await readFile(await (await saved).path())))
  return Object.keys(files)
    .sort()
    .map(file => files[file] as Uint8Array)
}

test('a drawn part is put elsewhere by field, pointer and key: it goes there, is drawn on there, and is sent off there', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 9, width: 640, height: 360 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.3, 0.5, 0.12))
  for (let i = 0; i < 7; i++) await page.keyboard.press('=')
  const moves = await opened(page, 'layer moves')
  await expect(moves).toContainText('All of figure can move')

  // By field, on the ninth frame; the frames between lie on the way.
  await page.keyboard.press('End')
  await write(page, 'to the right', '160')
  const path = async () => (await documentNow(page, world, shot)).takes['take-1']!.paths['layer-1']
  await expect
    .poll(async () => (await path())?.keys.map(key => [key.frame, key.x]))
    .toEqual([
      [0, 0],
      [8, 160],
    ])
  await expect(moves).toContainText('a place of its own')

  // By pointer and by key.
  const handle = page.getByRole('button', { name: /^where the layer lies on frame 9/ })
  const at = (await handle.locator('.dot').boundingBox())!
  await page.mouse.move(at.x + 6, at.y + 6)
  await page.mouse.down()
  await page.mouse.move(at.x + 46, at.y + 6, { steps: 4 })
  await page.mouse.up()
  await expect.poll(async () => (await path())!.keys[1]!.x).toBeGreaterThan(180)
  await handle.focus()
  const before = (await path())!.keys[1]!
  await page.keyboard.press('Shift+ArrowDown')
  await expect.poll(async () => (await path())!.keys[1]!.y).toBe(before.y + 10)
  await page.getByRole('button', { name: /^how the layer is turned on frame 9/ }).focus()
  await page.keyboard.press('Shift+ArrowDown')
  await expect.poll(async () => (await path())!.keys[1]!.turnRad).toBeGreaterThan(0.05)
  await write(page, 'turned', '0')
  await write(page, 'to the right', '160')
  await write(page, 'down', '0')
  await expect.poll(async () => (await path())!.keys[1]).toMatchObject({ x: 160, y: 0, turnRad: 0 })

  // A stroke drawn over it there goes on the drawing, as far back.
  const strokes = () =>
    documentNow(page, world, shot).then(document =>
      Object.values(document.drawings).map(one => Object.keys(one.elements).length),
    )
  await pen(page, [
    [0.6, 0.45],
    [0.65, 0.47],
    [0.7, 0.45],
  ])
  await expect.poll(strokes).toEqual([2])
  const { width } = (await page.getByTestId('paper').boundingBox())!
  // The paper lies in the middle with 26 pixels of desk to either side.
  const drawnTo = (0.7 * width - 26) / (width - 52)

  // Sent off: last where it was drawn, first a quarter of the picture before.
  const pictures = await sentOff(page, 'a-jelly-pebble')
  expect(pictures).toHaveLength(9)
  const [first, middle, last] = await Promise.all([0, 4, 8].map(i => inkIn(page, pictures[i]!)))
  expect(Math.abs(last!.right - drawnTo)).toBeLessThan(0.015)
  expect(last!.x - first!.x).toBeCloseTo(0.25, 2)
  expect(middle!.x - first!.x).toBeCloseTo(0.125, 2)
  expect(Math.abs(last!.count - first!.count)).toBeLessThan(0.05 * first!.count)

  // For looking it can lie where it was drawn; that is told, and has its way back. Undone, it never moved.
  await page.getByRole('link', { name: 'Desk' }).click()
  await opened(page, 'layer moves')
  await margin(page).getByRole('button', { name: 'see it where it was drawn' }).click()
  const inForce = page.getByRole('complementary', { name: 'Still in force' })
  await inForce.getByRole('button', { name: 'layers lie where they were drawn' }).click()
  await expect(margin(page).getByRole('button', { name: 'see it where it was drawn' })).toBeVisible()
  await page.reload()
  await opened(page, 'layer moves')
  await margin(page).getByRole('button', { name: 'lie still' }).click()
  await expect.poll(path).toBeUndefined()
  await page.getByRole('button', { name: 'undo' }).click()
  await expect.poll(async () => (await path())?.keys.length).toBe(2)
})

test('the ground passes under a walk by a scroll: drawn once, laid down again, and what stands on it does not slip', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 48, width: 640, height: 360 })
  await openDesk(page, world, shot)
  const guides = await opened(page, 'guides')
  await guides.getByRole('button', { name: 'walk', exact: true }).click()
  await guides.getByRole('button', { name: /drawings on the sheet$/ }).click()
  await expect(page.getByRole('status').filter({ hasText: 'walk on the sheet' })).toBeVisible()
  const slips = async () => (await opened(page, 'findings')).getByRole('button', { name: /slips on/ })
  await expect(margin(page).locator('button.title', { hasText: 'findings' })).toContainText('none')

  // The ground is a stroke over half the picture; it closes after as much.
  await page.getByRole('button', { name: 'background', exact: true }).click()
  await page.keyboard.press('Home')
  await pen(page, [
    [0.05, 0.8],
    [0.2, 0.82],
    [0.5, 0.8],
  ])
  await margin(page).getByRole('button', { name: 'another movement' }).click()
  await guides.getByRole('button', { name: 'scroll', exact: true }).click()
  const scroll = margin(page).getByRole('region', { name: 'Guide: scroll' })
  const walked = Object.values((await documentNow(page, world, shot)).guides).find(guide => guide.recipe === 'scroll')!
  // It goes as fast as the walk asks for.
  const { stride, step } = Object.values((await documentNow(page, world, shot)).guides).find(
    guide => guide.recipe === 'walk',
  )!.numbers as { stride: number; step: number }
  expect(walked.numbers.speed).toBeCloseTo(-stride / step, 9)
  await scroll.getByRole('button', { name: 'let the layer move so' }).click()
  await expect(scroll.getByRole('button', { name: 'let the layer move so' })).toBeHidden()
  const ground = async () => (await documentNow(page, world, shot)).takes['take-1']!.paths['layer-bg']
  await expect.poll(async () => (await ground())?.use).toBe('ground')
  // One drawing, and no other was made for it.
  const drawn = Object.values((await documentNow(page, world, shot)).drawings).filter(one => one.layer === 'layer-bg')
  expect(drawn).toHaveLength(1)
  await expect(margin(page).locator('button.title', { hasText: 'findings' })).toContainText('none')

  // A ground that goes slower than the walk asks for lets the feet slip; told at once, and undone.
  await opened(page, 'layer moves')
  await write(page, 'speed right', '-1')
  await page.getByRole('button', { name: 'figure', exact: true }).click()
  await expect((await slips()).first()).toBeVisible()
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(margin(page).locator('button.title', { hasText: 'findings' })).toContainText('none')
})

test('the way from place to place is spaced like a chart: by halves, past its end and back, by a drawn curve, by a copied chart', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 9, width: 640, height: 360 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.3, 0.5, 0.12))
  const moves = await opened(page, 'layer moves')
  await page.keyboard.press('End')
  await write(page, 'to the right', '160')
  await page.keyboard.press('Home')
  await page.keyboard.press('ArrowDown')
  const field = moves.getByLabel(/^to the right,/)
  await expect(field).toHaveValue('20')

  // Slow out over seven places: u² of 160 at an eighth is 2.5 px; a half of a half of a half of a half is 10.
  const spacing = moves.getByLabel('to 9')
  await spacing.selectOption('slow out')
  await expect(field).toHaveValue('2.5')
  await moves.getByLabel('by halves, like drawings').check()
  await expect(field).not.toHaveValue('2.5')
  const byHalves = Number(await field.inputValue())
  expect((byHalves / 160) * 16).toBe(Math.round((byHalves / 160) * 16))
  await moves.getByRole('button', { name: 'copy this chart' }).click()

  // Past its end: on the eighth frame it is a quarter of the way beyond, or on its way back.
  await spacing.selectOption('overshoot')
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowDown')
  await expect(field).toHaveValue('200')

  // A curve drawn by hand: it waits, and goes at the end.
  await spacing.selectOption('drawn curve')
  await expect(field).not.toHaveValue('200')
  const pad = (await moves.getByRole('img', { name: /The spacing as a curve/ }).boundingBox())!
  const on = (x: number, y: number) => [pad.x + pad.width * x, pad.y + pad.height * y] as const
  await page.mouse.move(...on(0.05, 0.92))
  await page.mouse.down()
  for (let i = 1; i <= 9; i++) await page.mouse.move(...on(0.05 + i * 0.09, 0.92))
  await page.mouse.move(...on(0.95, 0.08))
  await page.mouse.up()
  await moves.getByLabel('by halves, like drawings').uncheck()
  await expect.poll(async () => Number(await field.inputValue())).toBeLessThan(20)

  // The copied chart laid here; undone as one step, and the same after a reload.
  await moves.getByRole('button', { name: 'lay the copied one here' }).click()
  await expect(spacing).toHaveValue('slow-out')
  await page.keyboard.press('Control+z')
  await expect(spacing).toHaveValue('curve')
  await expect(page.getByText('safe', { exact: true })).toBeVisible()
  const document = await documentNow(page, world, shot)
  const wish = document.takes['take-1']!.paths['layer-1']!.keys[0]!.wish
  expect(wish.points).toHaveLength(17)
  expect(wish.points[12]).toBeLessThan(0.1)
})
