import { readFileSync } from 'node:fs'
import type { Locator } from 'playwright/test'
import { bringIn, documentNow, drawer, enter, expect, newShot, openDesk, pen, safe, test } from './world.ts'

test.describe.configure({ timeout: 90_000 })
test.beforeEach(({ page }) => void page.on('filechooser', () => undefined))

const SIDE = readFileSync(new URL('../packages/server/src/demo/models/side.png', import.meta.url))
const FILM = readFileSync(new URL('../packages/server/src/demo/reedWaltz.webm', import.meta.url))

/** How many pixels of a picture are about a colour, of a hundred. */
const share = (canvas: Locator, colour: readonly [number, number, number]) =>
  canvas.evaluate((element, [r, g, b]) => {
    const one = element as HTMLCanvasElement
    const small = new OffscreenCanvas(100, 100)
    const brush = small.getContext('2d', { willReadFrequently: true })!
    brush.drawImage(one, 0, 0, 100, 100)
    const { data } = brush.getImageData(0, 0, 100, 100)
    let count = 0
    for (let i = 0; i < data.length; i += 4) {
      const off = Math.abs(data[i]! - r) + Math.abs(data[i + 1]! - g) + Math.abs(data[i + 2]! - b)
      if (off < 30 && data[i + 3]! > 200) count++
    }
    return count / 100
  }, colour)
const LEAF = [127, 156, 92] as const

test('a model sheet of the film: a drawing and a picture become its sides, it stands beside the paper and lies over it, in every shot', async ({
  page,
  world,
  quietConsole,
}) => {
  // Somebody else is faster once: the browser writes that down.
  quietConsole.allowNetwork = true
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 12 })
  await openDesk(page, world, shot)
  await pen(page, [
    [0.3, 0.3],
    [0.4, 0.5],
    [0.3, 0.7],
  ])
  await safe(page)
  const note = await drawer(page, 'Beside the paper')
  await note.getByLabel('Name of a new model sheet').fill('Tilda')
  await note.getByRole('button', { name: 'new sheet' }).click()
  await note.getByRole('button', { name: 'this drawing as its front' }).click()
  await expect(note.getByLabel('Name of the side front')).toBeVisible()
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    note.getByRole('button', { name: 'bring pictures in' }).click(),
  ])
  await chooser.setFiles([
    { name: 'side.png', mimeType: 'image/png', buffer: SIDE },
    { name: 'no picture.png', mimeType: 'image/png', buffer: Buffer.from('nothing of the kind') },
  ])
  await expect(note.getByLabel('Name of the side side')).toBeVisible()
  await expect(page.getByText(/“no picture.png”/)).toBeVisible()

  // Beside the paper: its sides by name, nearer, a height by a press, a colour into the palette.
  await note.getByRole('button', { name: 'Tilda beside the paper' }).click()
  const stand = page.getByRole('region', { name: 'Tilda, beside the paper' })
  await stand.getByRole('radio', { name: 'side' }).click()
  const canvas = stand.locator('canvas')
  await expect.poll(() => share(canvas, LEAF)).toBeGreaterThan(5)
  const small = await share(canvas, LEAF)
  const picture = stand.getByRole('group', { name: 'Tilda: arrow keys shift it' })
  await picture.focus()
  for (let i = 0; i < 3; i++) await page.keyboard.press('+')
  await expect.poll(() => share(canvas, LEAF)).toBeGreaterThan(small * 1.4)
  await stand.getByRole('button', { name: 'All of it' }).click()
  await stand.getByRole('button', { name: 'Take a colour' }).click()
  // Between two colours of the palette, on an edge of hers, is one that the shot does not have yet.
  const box = (await picture.boundingBox())!
  for (let x = 40; x < 240; x += 0.5) {
    await picture.click({ position: { x, y: box.height / 2 } })
    const chip = stand.locator('.chip')
    if ((await chip.count()) === 0) continue
    const taken = await chip.evaluate(element => (element as HTMLElement).style.background)
    if (!/rgb\((47, 44, 40|127, 156, 92|100, 128, 74|138, 90, 60|205, 185, 104|243, 223, 174)\)/.test(taken)) break
  }
  await stand.getByLabel('Name of the colour').fill('Tilda’s skin')
  await stand.getByLabel('Name of the colour').press('Enter')
  await stand.getByRole('button', { name: 'into the palette' }).click()
  await safe(page)
  const swatches = Object.values((await documentNow(page, world, shot)).swatches)
  expect(swatches.some(one => one.name === 'Tilda’s skin')).toBe(true)
  // A set of colours is shifted together, in one step.
  const colours = async () => Object.values((await documentNow(page, world, shot)).swatches).map(one => one.colour)
  const were = await colours()
  await page.getByRole('button', { name: 'Colours' }).click()
  const palette = page.getByRole('region', { name: 'Colours of this shot' })
  await palette.getByRole('button', { name: 'shift several together' }).click()
  await palette.getByRole('checkbox', { name: 'Shift leaf' }).click()
  await palette.getByRole('checkbox', { name: 'Shift Tilda’s skin' }).click()
  await palette.getByLabel('Shift of light').fill('-20')
  await palette.getByRole('button', { name: 'shift 2 colours' }).click()
  await safe(page)
  expect((await colours()).filter(colour => !were.includes(colour))).toHaveLength(2)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await expect.poll(colours).toEqual(were)
  await stand.getByRole('button', { name: 'a height' }).click()
  await picture.click({ position: { x: 60, y: 60 } })
  const height = note.getByLabel('height 1, per cent of the way from sole to crown')
  await expect(height).toBeVisible()
  await height.fill('50')
  await height.press('Enter')
  await expect(stand.getByText('height 1')).toBeVisible()

  // Over the paper, between two points that are put by keys; told among what is still in force.
  await note.getByRole('button', { name: 'lay it over the paper' }).click()
  const crown = page.getByRole('button', { name: 'Crown of Tilda' })
  const before = await crown.boundingBox()
  await crown.focus()
  await page.keyboard.press('Shift+ArrowDown')
  await expect.poll(async () => (await crown.boundingBox())!.y).toBeGreaterThan(before!.y + 3)
  await expect(page.getByText('a model sheet lies over the paper')).toBeVisible()

  // What its two points are is put by keys in the window, and kept at once.
  const shelf = await (await page.request.get(`${world.url}/api/shelf`)).json()
  const owner = shelf.films.find((one: { shots: { id: string }[] }) => one.shots.some(each => each.id === shot))
  const low = async () => {
    const told = await (await page.request.get(`${world.url}/api/films/${owner.id}/models`)).json()
    return told.models[0].model.views.find((view: { name: string }) => view.name === 'side').low.y
  }
  const stood = await low()
  await stand.getByRole('button', { name: 'its two points' }).click()
  await stand.getByRole('button', { name: 'Low point: the sole' }).focus()
  await page.keyboard.press('Shift+ArrowUp')
  await expect.poll(low).toBe(stood - 10)
  await stand.getByRole('button', { name: 'its two points' }).click()

  // After a reload all of it is still there, and another shot of the film has the sheet.
  await page.reload()
  await expect(crown).toBeVisible()
  await expect.poll(() => share(canvas, LEAF)).toBeGreaterThan(5)
  const { films } = await (await page.request.get(`${world.url}/api/shelf`)).json()
  const film = films.find((one: { shots: { id: string }[] }) => one.shots.some(other => other.id === shot))
  const other = await newShot(page, world, { film: film.id, name: 'another' })
  await openDesk(page, world, other)
  const there = await drawer(page, 'Beside the paper')
  await there.getByRole('button', { name: 'Tilda beside the paper' }).click()
  await expect.poll(() => share(stand.locator('canvas'), [47, 44, 40])).toBeGreaterThan(0.05)

  // What somebody else changed meanwhile stays, and so does what is changed here.
  const { models } = await (await page.request.get(`${world.url}/api/films/${film.id}/models`)).json()
  const { id, turn, model } = models[0]
  await page.request.put(`${world.url}/api/films/${film.id}/models/${id}`, {
    data: { turn, model: { ...model, name: 'Tilda, grown' } },
    headers: { Origin: world.url },
  })
  await there.getByRole('button', { name: 'Tilda', exact: true }).click()
  await there.getByLabel('Name of the side front').fill('in front')
  await there.getByLabel('Name of the side front').press('Enter')
  await expect(there.getByRole('button', { name: 'Tilda, grown', exact: true })).toBeVisible()
  await expect(there.getByLabel('Name of the side in front')).toBeVisible()
  const now = await (await page.request.get(`${world.url}/api/films/${film.id}/models`)).json()
  expect(now.models[0].model.views.map((view: { name: string }) => view.name)).toEqual(['in front', 'side'])
})

test('a clip beside the paper goes along with the frame, ahead of it, also in Flip; reference and paper are seen in tones and under one grid', async ({
  page,
  world,
  quietConsole,
}) => {
  quietConsole.allowNetwork = true
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 72 })
  await openDesk(page, world, shot)
  await bringIn(page, { name: 'reeds.webm', mimeType: 'video/webm', buffer: FILM })
  await safe(page)
  const note = await drawer(page, 'Beside the paper')
  await note.getByRole('button', { name: 'The clip reeds beside the paper' }).click()
  const stand = page.getByRole('region', { name: 'reeds, beside the paper' })
  await expect(stand).toContainText('picture 1 of 72')
  await page.keyboard.press('PageDown')
  await expect(stand).toContainText('picture 25 of 72, 1.00 s')
  await stand.getByLabel('Frames ahead').fill('10')
  await stand.getByLabel('Frames ahead').press('Enter')
  await expect(stand).toContainText('picture 35 of 72')
  await stand.getByLabel('Which of its pictures').selectOption('frame')
  await stand.getByLabel('Frames ahead').fill('-40')
  await stand.getByLabel('Frames ahead').press('Enter')
  await expect(stand).toContainText('nothing of it on this frame')
  await stand.getByLabel('Frames ahead').fill('0')
  await stand.getByLabel('Frames ahead').press('Enter')

  const paper = await drawer(page, 'Lines on the paper')
  await paper.getByRole('button', { name: 'squares across' }).click()
  await expect(stand.locator('line.cell').first()).toBeAttached()
  await paper.getByRole('radio', { name: '3 tones' }).click()
  await expect(stand.locator('canvas')).toHaveCSS('filter', /tones-3/)
  await expect(page.locator('main.paper > canvas').first()).toHaveCSS('filter', /tones-3/)
  await page.getByRole('button', { name: 'seen in 3 tones' }).click()
  await expect(stand.locator('canvas')).toHaveCSS('filter', 'none')

  // Its head is taken by the pointer and by keys; it never leaves the paper.
  const head = stand.getByRole('group', { name: 'reeds: move this window' })
  const from = (await stand.boundingBox())!
  await head.focus()
  await page.keyboard.press('ArrowRight')
  await expect.poll(async () => (await stand.boundingBox())!.x).toBe(from.x + 12)
  await head.hover({ position: { x: 40, y: 8 } })
  await page.mouse.down()
  await page.mouse.move(5000, 5000)
  await page.mouse.up()
  const room = (await page.locator('main.paper').boundingBox())!
  expect((await stand.boundingBox())!.x).toBeLessThan(room.x + room.width - 40)

  await page.getByRole('link', { name: 'Flip' }).click()
  await expect(stand).toContainText('picture 25 of 72')
  await stand.getByRole('button', { name: 'Put reeds away' }).click()
  await expect(stand).toBeHidden()
})
