import { newLayer } from '@unhurried/core/document'
import type { Page } from 'playwright/test'
import {
  commitOps,
  enter,
  expect,
  exposed,
  newShot,
  openDesk,
  pen,
  ring,
  safe,
  sheetOf,
  stored,
  test,
  type World,
} from './world.ts'

test.beforeEach(({ page, world }) => enter(page, world))

const sheetText = async (page: Page, world: World, shot: string, layer?: string): Promise<string> => {
  await safe(page)
  return sheetOf((await stored(page, world, shot)).document, layer)
}

/** Where a number on `frame`, counted from 1, stands on the sheet beside the paper. */
async function onSheet(page: Page, frame: number, layer = 'layer-1'): Promise<{ x: number; y: number }> {
  const column = await page.locator(`[data-layer="${layer}"]`).boundingBox()
  if (!column) throw new Error('the layer is not on the sheet')
  return { x: column.x + column.width / 2, y: column.y + (frame - 1) * 24 + 11 }
}

test('a key is dragged on the sheet and its inbetweens follow; the keyboard does the same', async ({ page, world }) => {
  const shot = await newShot(page, world, { frames: 24 })
  await exposed(page, world, shot, 'A2 b2 c2 D2 e2 f2 G12')
  await openDesk(page, world, shot)
  const key = await onSheet(page, 7)
  await page.mouse.move(key.x, key.y)
  await page.mouse.down()
  await page.mouse.move(key.x, key.y + 3 * 24, { steps: 5 })
  await page.mouse.up()
  // What is behind moves along; what the shot ends on is held for less.
  expect(await sheetText(page, world, shot)).toBe('1×3 3×3 5×3 7×2 9×2 11×2 13×9')
  await page.keyboard.press('q')
  await page.keyboard.press('p')
  await expect(page.getByText('later drawings stay')).toBeVisible()
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowDown')
  await page.goto(`${world.url}/shot/${shot}/desk?frame=7`)
  await expect(page.getByText('Frame 7 of 24')).toBeAttached()
  for (let i = 0; i < 3; i++) await page.keyboard.press('Alt+ArrowDown')
  expect(await sheetText(page, world, shot)).toBe('1×3 3×3 5×3 7×1 9×1 11×1 13×12')
  // No further: each drawing needs a frame.
  await page.keyboard.press('Alt+ArrowDown')
  await expect(page.getByText('2 frames are too few for 3 drawings; each needs at least one.')).toBeVisible()
  await page.keyboard.press('p')
})

test('a linked cycle is edited in one place, tells its remainder, and what would fit', async ({ page, world }) => {
  const shot = await newShot(page, world, { frames: 24 })
  await exposed(page, world, shot, 'A2 b2 c2')
  await openDesk(page, world, shot)
  // Mark the six frames and link them to the end, from the panel of marked frames.
  for (let i = 0; i < 5; i++) await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('l')
  const panel = page.getByRole('dialog', { name: 'Marked frames' })
  await panel.getByRole('button', { name: 'link to the end of the shot' }).click()
  await expect(panel.getByRole('region', { name: 'Linked cycle' })).toContainText('6 frames, 4 times exactly')
  expect(await sheetText(page, world, shot)).toBe('1×2 3×2 5×2 '.repeat(4).trim())
  await page.keyboard.press('Escape')
  await expect(panel).toBeHidden()

  // A hold in the third turn is a hold in every turn.
  await page.keyboard.press('Escape')
  for (let i = 0; i < 9; i++) await page.keyboard.press('ArrowDown')
  await page.keyboard.press('=')
  const [turn] = Object.values((await (await stored(page, world, shot)).document.takes['take-1'])?.cycles ?? {})
  expect(turn).toBeTruthy()
  expect(await sheetText(page, world, shot)).toMatch(/^1×2 3×3 5×2 1×2 3×3 5×2 1×2 3×3 5×2/)
  await page.keyboard.press('l')
  await expect(panel.getByRole('region', { name: 'Linked cycle' })).toContainText('7 frames, 3 times and 3 over')
  await panel.getByRole('button', { name: 'with 28 frames' }).click()
  // The shot would be longer: that is asked on the desk.
  await expect(panel).toBeHidden()
  await page.getByRole('button', { name: 'make the shot 4 frames longer: 28 frames' }).click()
  await page.keyboard.press('l')
  await expect(panel.getByRole('region', { name: 'Linked cycle' })).toContainText('7 frames, 4 times exactly')
  await panel.getByRole('button', { name: 'unlink' }).click()
  await expect(panel.getByRole('button', { name: 'link', exact: true })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(panel).toBeHidden()
  // A longer hold now touches one place only.
  for (let i = 0; i < 3; i++) {
    await page.keyboard.press('=')
    await page.getByRole('button', { name: 'make the shot 1 frame longer' }).click()
  }
  const sheet = await sheetText(page, world, shot)
  expect(sheet.match(/×5/g) ?? []).toHaveLength(1)
})

test('marked frames over layers: ones, reverse, there and back, repeat, stretch, copy to another layer', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 12 })
  await commitOps(page, world, shot, [{ kind: 'layer.add', layer: newLayer('bag', 'satchel', 3) }])
  await exposed(page, world, shot, 'A2 b2 C8')
  await exposed(page, world, shot, 'S4 t8', 'bag')
  await openDesk(page, world, shot)
  await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('Shift+ArrowLeft')
  await expect(page.locator('.marked')).toHaveCount(2)
  await page.keyboard.press('r')
  expect(await sheetText(page, world, shot)).toBe('3×2 1×2 5×8')
  await page.keyboard.press('q')
  await page.keyboard.press('Alt+1')
  expect(await sheetText(page, world, shot, 'bag')).toMatch(/^1×1 5×8/)
  await page.keyboard.press('q')

  await page.keyboard.press('Escape')
  await page.goto(`${world.url}/shot/${shot}/desk?frame=1`)
  await expect(page.getByText('Frame 1 of')).toBeAttached()
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('Control+c')
  await page.keyboard.press('Escape')
  await page.keyboard.press('ArrowLeft')
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowUp')
  await page.keyboard.press('p')
  await page.keyboard.press('Control+v')
  // The satchel's first drawing would be covered: that is said before it is done.
  await expect(page.getByText('1 would no longer be shown.')).toBeVisible()
  await page.getByRole('button', { name: 'cover 1' }).click()
  await safe(page)
  const { document } = await stored(page, world, shot)
  // Copies on another layer: new drawings with the numbers that are free there.
  expect(sheetOf(document, 'bag')).toBe('2×2 3×2 5×8')
  await page.keyboard.press('p')

  await page.keyboard.press('l')
  const panel = page.getByRole('dialog', { name: 'Marked frames' })
  await panel.getByLabel('Length to stretch to').fill('0.2 s')
  await expect(panel.getByText('4.8 frames: becomes 5 frames, 0.21 s')).toBeVisible()
  await panel.getByRole('button', { name: 'stretch to' }).click()
  await page.getByRole('button', { name: 'make the shot 3 frames longer: 15 frames' }).click()
  expect(await sheetText(page, world, shot, 'bag')).toMatch(/^2×5 /)
})

test('layers are added, named, locked, dimmed and hidden for looking; a locked layer takes no line', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  await page.keyboard.press('o')
  const dialog = page.getByRole('dialog', { name: 'Layers' })
  await dialog.getByLabel('Name of a new layer').fill('reeds')
  await dialog.getByRole('button', { name: 'add a layer' }).click()
  await expect(dialog.getByLabel('Name of layer reeds')).toHaveValue('reeds')
  await dialog.getByRole('button', { name: 'Lock reeds' }).click()
  await dialog.getByRole('button', { name: 'background is shown' }).click()
  await dialog.getByRole('button', { name: 'background is at 30 %' }).click()
  await page.keyboard.press('Escape')
  await expect(dialog).toBeHidden()
  const inForce = page.getByRole('complementary', { name: 'Still in force' })
  await expect(inForce).toContainText('background is hidden')
  await pen(page, ring(0.5, 0.5, 0.1))
  await expect(page.getByText('This layer is locked: unlock it in the layers.')).toBeVisible()
  await safe(page)
  const { document } = await stored(page, world, shot)
  expect(Object.keys(document.drawings)).toEqual([])
  expect(Object.values(document.layers).find(layer => layer.name === 'reeds')?.locked).toBe(true)
  // What is only looked at survives a reload on this machine, and has its way back.
  await page.reload()
  await expect(inForce).toContainText('background is hidden')
  await inForce.getByRole('button', { name: 'background is hidden' }).click()
  await expect(inForce).toBeHidden()
})

test('charts: a tick is dragged and added on the rail, strength and a drawn curve respace, a chart is copied', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 20 })
  await exposed(page, world, shot, 'A8 B8 C4')
  await openDesk(page, world, shot)
  const ticks = async () => {
    await safe(page)
    const { document } = await stored(page, world, shot)
    return Object.values(document.charts)
      .map(chart => `${chart.wish.ease}: ${chart.ticks.map(t => `${t.at.num}/${t.at.den}`).join(' ')}`)
      .sort()
  }
  await page.getByRole('button', { name: 'slow in' }).click()
  await page.getByRole('button', { name: 'make the drawings' }).click()
  expect(await ticks()).toEqual(['slow-in: 1/2 3/4 7/8'])

  const ruler = page.getByRole('img', { name: /Timing chart between 1 and 9/ })
  const box = await ruler.boundingBox()
  if (!box) throw new Error('no ruler')
  const xOf = (t: number) => box.x + 52 + t * (box.width - 104)
  await page.mouse.move(xOf(7 / 8), box.y + 33)
  await page.mouse.down()
  await page.mouse.move(xOf(0.26), box.y + 33, { steps: 6 })
  await page.mouse.up()
  expect(await ticks()).toEqual(['hand: 1/4 1/2 3/4'])
  await page.mouse.dblclick(xOf(0.875), box.y + 36)
  expect(await ticks()).toEqual(['hand: 1/4 1/2 3/4 7/8'])

  await page.getByRole('button', { name: 'spacing …' }).click()
  await page.getByRole('button', { name: 'copy this chart' }).click()
  await page.keyboard.press('Escape')
  await page.keyboard.press('g')
  for (let i = 0; i < 5; i++) await page.keyboard.press('g')
  await expect(page.getByRole('img', { name: /Timing chart between 9 and/ })).toBeVisible()
  await page.getByRole('button', { name: 'spacing …' }).click()
  await page.getByRole('button', { name: 'lay the copied one here' }).click()
  await expect(page.getByLabel('Chart rail')).toContainText('4')
  await page.getByRole('button', { name: 'make the drawings' }).click()
  expect((await ticks()).length).toBe(2)
})

test('an odd gap is answered with the nearest choices, and a key moved by a frame', async ({ page, world }) => {
  const shot = await newShot(page, world, { frames: 12 })
  await exposed(page, world, shot, 'A5 B7')
  await openDesk(page, world, shot)
  await page.getByRole('button', { name: 'One inbetween less' }).click()
  await page.getByRole('button', { name: 'One inbetween less' }).click()
  await expect(page.getByText('half-way is 3½')).toBeVisible()
  await page.getByRole('button', { name: 'spacing …' }).click()
  await expect(page.getByText('Nearest: 3 or 4')).toBeVisible()
  await page.getByRole('button', { name: 'move 6 to frame 7' }).click()
  expect(await sheetText(page, world, shot)).toBe('1×6 6×6')
})
