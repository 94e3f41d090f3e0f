import type { Page } from 'playwright/test'
import { commitOps, documentNow, enter, expect, newShot, openDesk, test } from './world.ts'

const drawer = (page: Page) => page.locator('aside.margin')
/** The movements to choose from. */
const recipes = (page: Page) => drawer(page).getByRole('list', { name: 'Recipes' })
async function openGuides(page: Page): Promise<void> {
  const title = drawer(page).locator('button.title', { hasText: 'guides' })
  if ((await title.getAttribute('aria-expanded')) === 'false') await title.click()
}

test('a bounce is put on the paper, nudged by pointer, key and field, laid on the sheet, and undone', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 120, fps: 24 })
  await openDesk(page, world, shot)
  await openGuides(page)
  await recipes(page).getByRole('button', { name: 'bounce' }).click()
  const guide = drawer(page).getByRole('region', { name: 'Guide: bounce' })
  await expect(guide).toContainText('figure, 1–')
  const numbers = async () => Object.values((await documentNow(page, world, shot)).guides)[0]!.numbers

  // By pointer: the ground goes up and down, and nowhere else; what is dragged is one step.
  const before = await numbers()
  const ground = page.locator('svg.handles g', { hasText: 'bounce, the ground' })
  const at = (await ground.locator('.dot').boundingBox())!
  await page.mouse.move(at.x + 6, at.y + 6)
  await page.mouse.down()
  await page.mouse.move(at.x + 40, at.y + 46, { steps: 6 })
  await page.mouse.up()
  await expect.poll(async () => (await numbers()).ground as number).toBeGreaterThan((before.ground as number) + 20)
  expect((await numbers()).x).toBe(before.x)
  await page.keyboard.press('q')
  await expect.poll(numbers).toEqual(before)

  // By key: a pixel of the paper, with Shift ten.
  await page.locator('svg.handles g', { hasText: 'where it starts' }).focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Shift+ArrowRight')
  await expect.poll(async () => (await numbers()).x).toBe((before.x as number) + 11)

  // By field: what cannot be is told in the words and unit it was asked in, and put back.
  const back = guide.getByLabel(/gives back/)
  await back.fill('120')
  await back.press('Enter')
  await expect(guide.getByRole('alert')).toHaveText('gives back: numbers from 0 to 95 %')
  await expect(back).toHaveValue('60')
  await back.fill('45')
  await back.press('Enter')
  await expect.poll(async () => (await numbers()).restitution).toBe(0.45)
  await expect(guide.getByRole('alert')).toBeHidden()

  // On the sheet: sheets, a chart, a mark, beats, in one step.
  await guide.getByRole('button', { name: /on the sheet$/ }).click()
  await expect(page.getByRole('status').filter({ hasText: 'bounce on the sheet' })).toContainText(
    '120 frames as before',
  )
  const laid = await documentNow(page, world, shot)
  expect(Object.values(laid.marks).map(mark => mark.name)).toEqual(['centre'])
  expect(Object.values(laid.beats).map(beat => beat.name)).toContain('contact')
  expect(Object.keys(laid.charts).length).toBeGreaterThan(0)
  await expect(page.getByText('between 1 and 13')).toBeVisible()

  // Laid, its handles leave the paper to the pen; they are there when asked for.
  const handles = page.locator('svg.handles')
  await expect(handles).toBeHidden()
  await guide.getByRole('button', { name: 'handles', exact: true }).click()
  await expect(handles.locator('g')).toHaveCount(2)
  const middle = (await handles.locator('g', { hasText: 'where it starts' }).locator('.dot').boundingBox())!
  await guide.getByRole('button', { name: 'no handles' }).click()
  await expect(handles).toBeHidden()

  // Drawn over, the drawing is held against what was planned.
  const round = Array.from({ length: 33 }, (_, i) => {
    const a = (i / 32) * 2 * Math.PI
    return [middle.x + 6 + 26 * Math.cos(a), middle.y + 6 + 26 * Math.sin(a)] as const
  })
  await page.mouse.move(...round[0]!)
  await page.mouse.down()
  for (const place of round) await page.mouse.move(...place)
  await page.mouse.up()
  const held = guide.getByRole('table', { name: 'Drawing 1 held against its guide' })
  await expect(held.getByRole('row', { name: /^area/ })).toContainText(/(8\d|9\d|10\d|11\d|12\d) %/)
  await expect(held.getByRole('row', { name: /^middle off/ })).toContainText(/0 px\s*[0-3] px/)
  await page.keyboard.press('q')
  await expect(held).toBeHidden()

  // Shut, the drawer leaves the paper to the hand; the construction stays until it is hidden.
  await drawer(page).locator('button.title', { hasText: 'guides' }).click()
  await expect(page.locator('svg.handles')).toBeHidden()
  await page.keyboard.press('q')
  await expect.poll(async () => Object.keys((await documentNow(page, world, shot)).drawings)).toEqual([])

  // It is there again after a reload, and taken away it leaves nothing.
  await page.reload()
  await openGuides(page)
  await guide.getByRole('button', { name: 'remove' }).click()
  await expect(guide).toBeHidden()
  await expect.poll(async () => Object.keys((await documentNow(page, world, shot)).guides)).toEqual([])
})

test('a chain hangs on the head of a walk, by keys alone: it goes round with it, comes along, and is laid beside it', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 48, fps: 24, width: 1280, height: 720 })
  await openDesk(page, world, shot)
  await openGuides(page)
  await recipes(page).getByRole('button', { name: 'walk' }).press('Enter')
  const walk = drawer(page).getByRole('region', { name: 'Guide: walk' })
  await expect(walk).toContainText('figure, 1–16')
  await drawer(page).getByRole('button', { name: 'another movement' }).press('Enter')
  await recipes(page).getByRole('button', { name: 'chain' }).press('Enter')
  const chain = drawer(page).getByRole('region', { name: 'Guide: chain' })
  const handles = page.locator('svg.handles g', { hasText: 'chain, ' })
  await expect(handles).toHaveCount(3)
  await chain.getByLabel('its root').selectOption({ label: 'follows something' })
  await expect(chain).toContainText('no place on two drawings yet')
  await expect(chain.getByLabel('frames of that')).toBeHidden()
  await chain.getByLabel('that is').selectOption({ label: 'head' })
  await expect(chain).toContainText('figure, 1–16')
  await expect(handles).toHaveCount(0)
  // The walk changes, and the chain with it; what follows itself is not offered.
  await walk
    .getByLabel(/^a step/)
    .first()
    .fill('12')
  await walk
    .getByLabel(/^a step/)
    .first()
    .press('Enter')
  await expect(chain).toContainText('figure, 1–24')
  await chain.getByRole('button', { name: /^lay 12 drawings/ }).press('Enter')
  await expect.poll(async () => Object.keys((await documentNow(page, world, shot)).drawings).length).toBe(12)
  await page.reload()
  await expect(drawer(page).getByRole('region', { name: 'Guide: chain' }).getByLabel('that is')).toHaveValue(/:head$/)
  // Without the walk it stands, and says so.
  await drawer(page).getByRole('region', { name: 'Guide: walk' }).getByRole('button', { name: 'remove' }).press('Enter')
  await expect(drawer(page).getByRole('region', { name: 'Guide: chain' })).toContainText('no place on two drawings yet')
})

test('where the shot is too short the ways out are given, and nothing is half done', async ({ page, world }) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 20, fps: 24 })
  await openDesk(page, world, shot)
  await openGuides(page)
  await recipes(page).getByRole('button', { name: 'bounce' }).click()
  await drawer(page)
    .getByRole('button', { name: /on the sheet$/ })
    .click()
  const question = page.getByRole('region', { name: 'bounce on the sheet' })
  await expect(question).toContainText('more than there are free')
  expect(Object.keys((await documentNow(page, world, shot)).drawings)).toEqual([])
  await question.getByRole('button', { name: /longer/ }).click()
  await expect(page.getByRole('status').filter({ hasText: 'bounce on the sheet' })).toContainText('frames longer: 4')
})

test('a pointer that is lost leaves a guide as it was', async ({ page, world }) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 120, fps: 24 })
  await openDesk(page, world, shot)
  await openGuides(page)
  await recipes(page).getByRole('button', { name: 'bounce' }).click()
  const numbers = async () => Object.values((await documentNow(page, world, shot)).guides)[0]!.numbers
  const before = await numbers()
  const start = page.locator('svg.handles g', { hasText: 'where it starts' })
  const at = (await start.locator('.dot').boundingBox())!
  await page.mouse.move(at.x + 6, at.y + 6)
  await page.mouse.down()
  await page.mouse.move(at.x + 60, at.y + 40, { steps: 4 })
  await expect.poll(async () => (await start.locator('.dot').boundingBox())!.x).toBeGreaterThan(at.x + 30)
  await start.dispatchEvent('pointercancel', { pointerId: 1 })
  await expect.poll(async () => Math.abs((await start.locator('.dot').boundingBox())!.x - at.x)).toBeLessThan(1)
  await page.mouse.up()
  expect(await numbers()).toEqual(before)
})

test('a walk is laid and does not slip; a foot moved by five pixels slips by five; changed, only what is not drawn goes along', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 64, fps: 24 })
  await openDesk(page, world, shot)
  await openGuides(page)
  await recipes(page).getByRole('button', { name: 'walk', exact: true }).click()
  const guide = drawer(page).getByRole('region', { name: 'Guide: walk' })
  await guide.getByRole('button', { name: 'lay 8 drawings on the sheet' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'walk on the sheet' })).toContainText('64 frames as before')
  const laid = await documentNow(page, world, shot)
  const take = laid.takes[laid.current]!
  const [cycle] = Object.values(take.cycles)
  expect([cycle?.to, cycle?.pattern.length, take.loop]).toEqual([null, 8, { from: 0, to: 16 }])

  // On the second drawing the near foot stands where the ground has brought it.
  for (let i = 0; i < 2; i++) await page.keyboard.press('ArrowDown')
  const slip = guide.getByRole('table', { name: 'Drawing 3 held' }).getByRole('row', { name: /^near ball slips/ })
  await expect(slip).toHaveText(/0 px\s*0 px/)
  const markOf = (name: string, from: typeof laid) =>
    Object.entries(from.marks).find(([, one]) => one.name === name)![0]
  const sheetOn = (number: number, from: typeof laid) =>
    Object.entries(from.drawings).find(([, one]) => one.number === number)!
  const near = markOf('near ball', laid)
  const [third, { marks }] = sheetOn(3, laid)
  const moved = { ...marks[near]!, x: marks[near]!.x + 5, planted: true }
  await commitOps(page, world, shot, [{ kind: 'marks.place', drawing: third, places: { [near]: moved } }])
  await expect(slip).toHaveText(/0 px\s*5 px/)

  // Half drawn: the first two sheets have a line on them.
  const paper = (await page.getByTestId('paper').boundingBox())!
  const stroke = async (y: number) => {
    await page.mouse.move(paper.x + paper.width * 0.2, paper.y + y)
    await page.mouse.down()
    await page.mouse.move(paper.x + paper.width * 0.26, paper.y + y + 30, { steps: 5 })
    await page.mouse.up()
  }
  await stroke(120)
  for (let i = 0; i < 2; i++) await page.keyboard.press('ArrowUp')
  await stroke(160)
  await expect(guide).toContainText('6 sheets not drawn yet go along; 2 drawn ones stay as they are')
  await guide.getByLabel(/stride/).fill('50')
  await guide.getByLabel(/stride/).press('Enter')
  const before = await documentNow(page, world, shot)
  await guide.getByRole('button', { name: 'bring the sheet along' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'walk on the sheet' })).toBeVisible()
  const place = (from: typeof laid, number: number) => sheetOn(number, from)[1].marks[near]!.x
  await expect
    .poll(async () => {
      const after = await documentNow(page, world, shot)
      return [1, 3, 7, 9].map(number => place(after, number) === place(before, number))
    })
    .toEqual([true, true, false, false])
  await guide.getByRole('button', { name: 'all of it, also what is drawn' }).click()
  await expect.poll(async () => place(await documentNow(page, world, shot), 1) === place(before, 1)).toBe(false)

  // Locked it takes no number; all of it is undone, step by step.
  await guide.getByRole('button', { name: 'lock', exact: true }).click()
  await expect(guide.getByLabel(/stride/)).toBeDisabled()
  await expect(guide.getByRole('button', { name: 'unlock' })).toHaveAttribute('aria-pressed', 'true')
  for (let i = 0; i < 9; i++) await page.keyboard.press('q')
  await expect
    .poll(async () => {
      const now = await documentNow(page, world, shot)
      return [Object.keys(now.drawings).length, Object.keys(now.guides).length, Object.keys(now.marks).length]
    })
    .toEqual([0, 0, 0])
})

test('every movement is put on the paper, laid, and undone, by keys alone', async ({ page, world }) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 200, fps: 24 })
  await openDesk(page, world, shot)
  await openGuides(page)
  const names = await recipes(page).getByRole('button').allInnerTexts()
  expect(names.length).toBeGreaterThan(12)
  for (const name of names) {
    const words = name.trim().replace(/\s+/g, ' ')
    const button = recipes(page).getByRole('button', { name: words, exact: true })
    await button.focus()
    await page.keyboard.press('Enter')
    const guide = drawer(page).getByRole('region', { name: `Guide: ${words}` })
    await guide.getByRole('button', { name: /on the sheet$/ }).focus()
    await page.keyboard.press('Enter')
    await expect(guide).toContainText('not drawn yet go')
    for (let i = 0; i < 2; i++) await page.keyboard.press('q')
    await expect(guide).toBeHidden()
  }
  const now = await documentNow(page, world, shot)
  expect([now.drawings, now.guides, now.charts, now.beats, now.marks].map(table => Object.keys(table))).toEqual(
    Array(5).fill([]),
  )
})

test('a walk is chosen among ways and variants, named part by part, turned into lines; scale gives gravity; the surest comes first', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 96, fps: 24, width: 1280, height: 720 })
  await openDesk(page, world, shot)
  await openGuides(page)
  await recipes(page).getByRole('button', { name: 'walk', exact: true }).click()
  const guide = drawer(page).getByRole('region', { name: 'Guide: walk' })
  const numbers = async () => Object.values((await documentNow(page, world, shot)).guides)[0]!.numbers
  const before = await numbers()
  await guide.getByLabel('as a').selectOption('sneak')
  await expect.poll(async () => (await numbers()).lift).not.toBe(before.lift)
  const sneak = await numbers()
  await guide.getByRole('list', { name: 'Side by side' }).getByRole('button').first().click()
  await expect.poll(async () => JSON.stringify(await numbers())).not.toBe(JSON.stringify(sneak))

  // Its parts are named on the paper while that is wanted.
  await drawer(page).getByRole('button', { name: 'part names', exact: true }).click()
  await expect(drawer(page).getByRole('button', { name: 'no part names' })).toHaveAttribute('aria-pressed', 'true')
  await drawer(page).getByRole('button', { name: 'no part names' }).click()

  // As pen lines on a guide layer, near and far told apart; undone, they are gone.
  await guide.getByRole('button', { name: 'as lines' }).click()
  const lines = async () => {
    const now = await documentNow(page, world, shot)
    const layer = Object.entries(now.layers).find(([, one]) => one.kind === 'guide')?.[0]
    const strokes = Object.values(now.drawings).filter(one => one.layer === layer)
    return new Set(strokes.flatMap(one => Object.values(one.elements).map(element => element.label)))
  }
  await expect.poll(lines).toEqual(new Set([null, 'near', 'far']))
  await page.keyboard.press('q')
  await expect.poll(lines).toEqual(new Set())

  // Laid, the rail shows its steps; from the surest outwards the queue says why.
  await guide.getByRole('button', { name: /on the sheet$/ }).click()
  await expect(page.getByRole('img', { name: /^Steps of/ })).toBeVisible()
  await page.getByRole('link', { name: 'Plan' }).click()
  await page.getByRole('radio', { name: 'surest first' }).click()
  await page.getByRole('link', { name: 'Desk' }).click()
  await expect(drawer(page).getByRole('region', { name: 'Queue' })).toContainText(/fastest|surest/)

  // A length told in metres: gravity can be that on earth.
  await drawer(page).locator('button.title', { hasText: 'on the paper' }).click()
  await drawer(page).getByRole('button', { name: 'length of' }).click()
  await drawer(page).getByLabel('Length, metres').fill('1.2')
  await drawer(page).getByLabel('Length, metres').press('Enter')
  await expect(drawer(page)).toContainText(/1 m is 300 px/)
})
