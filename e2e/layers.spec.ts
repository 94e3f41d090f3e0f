import type { Page } from 'playwright/test'
import {
  documentNow,
  drawer,
  enter,
  expect,
  exposed,
  lightTable,
  mouse,
  newShot,
  openDesk,
  pen,
  ring,
  sheetOf,
  test,
  type Place,
  type StoredDocument,
} from './world.ts'

test.beforeEach(({ page, world }) => enter(page, world))
/** Opens the settings of the tool in the hand, changes them, and puts them away again. */
async function withSettings(page: Page, change: () => Promise<void>): Promise<void> {
  const settings = page.locator('.el-popover:visible')
  await page.getByTitle('Settings of the tool in the hand').click()
  await expect(settings).toBeVisible()
  await change()
  await page.keyboard.press('Escape')
  await expect(settings).toBeHidden()
}
const inForceOf = (page: Page) => page.getByRole('complementary', { name: 'Still in force' })

test('paint under a line layer is timed with it, moves with it, and is undone like anything else', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 12 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.4, 0.4, 0.15))
  await page.keyboard.press('o')
  const dialog = page.getByRole('dialog', { name: 'Layers' })
  await dialog.getByRole('button', { name: 'Add paint under figure' }).click()
  await expect(dialog.getByLabel('Name of layer figure paint')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(dialog).toBeHidden()
  await expect(page.getByText('No paint under 1 yet.')).toBeVisible()

  await page.keyboard.press('2')
  await pen(page, ring(0.4, 0.4, 0.13))
  const painted = await documentNow(page, world, shot)
  const paint = Object.entries(painted.layers).find(([, layer]) => layer.name === 'figure paint')?.[0] ?? ''
  const columns = (document: StoredDocument) => [sheetOf(document), sheetOf(document, paint)]
  expect(columns(painted)).toEqual(['1×2 -×10', '1×2 -×10'])

  // Timing asked for on the paint is the line's.
  await page.keyboard.press('Alt+3')
  expect(columns(await documentNow(page, world, shot))).toEqual(['1×3 -×9', '1×3 -×9'])
  // Where no line is drawn there is nothing to lie under.
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowDown')
  await pen(page, ring(0.5, 0.5, 0.1))
  await expect(page.getByText('paint lies under a line drawing')).toBeVisible()
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowUp')

  // The line drawing moved whole takes its paint along.
  await page.getByRole('button', { name: 'figure', exact: true }).click()
  await page.keyboard.press('Shift+A')
  await page.keyboard.press('Shift+ArrowRight')
  const moved = await documentNow(page, world, shot)
  const matrices = Object.values(moved.drawings).map(d => Object.values(d.elements)[0]?.matrix)
  expect(matrices).toEqual([
    [1, 0, 0, 1, 10, 0],
    [1, 0, 0, 1, 10, 0],
  ])
  await page.keyboard.press('Escape')
  // Back to the line alone: the nudge, the threes, the paint, the layer.
  for (let i = 0; i < 4; i++) await page.keyboard.press('q')
  const back = await documentNow(page, world, shot)
  expect([sheetOf(back), Object.keys(back.layers).includes(paint)]).toEqual(['1×2 -×10', false])
})

test('a planted mark warns when it slips, and the warning leads to the frame', async ({ page, world }) => {
  const shot = await newShot(page, world, { frames: 12 })
  await exposed(page, world, shot, 'A4 B4 C4')
  await openDesk(page, world, shot)
  const marks = await drawer(page, 'Marks')
  const found = await drawer(page, 'Findings')
  await marks.getByLabel('Name of a new mark').fill('heel')
  await marks.getByRole('button', { name: 'add' }).click()
  await marks.getByLabel('planted: it must not slip').check()
  const box = await page.getByTestId('paper').boundingBox()
  if (!box) throw new Error('no paper')
  const click = (x: number) => page.mouse.click(box.x + x * box.width, box.y + 0.7 * box.height)
  await click(0.4)
  await expect(page.getByText('frames 5–8')).toBeVisible()
  await click(0.4)
  await expect(page.getByText('frames 9–12')).toBeVisible()
  await click(0.43)
  const warning = found.getByRole('button', { name: /^heel slips on 9: \d+ px from where 1 set it down$/ })
  await expect(warning).toBeVisible()
  await page.keyboard.press('a')
  await expect(page.getByText('frames 5–8')).toBeVisible()
  await warning.click()
  await expect(page.getByText('frames 9–12')).toBeVisible()
  // Lifted there, it may be anywhere.
  await marks.getByRole('button', { name: 'heel is planted' }).click()
  await expect(warning).toBeHidden()
  const { drawings } = await documentNow(page, world, shot)
  expect(
    Object.values(drawings).map(d => Object.values(d.marks).map(m => (m as { planted?: boolean }).planted)),
  ).toEqual([[true], [true], [false]])
})

test('other layers show through in chosen colours, layers are tinted, silhouettes are seen: all with a way back', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 12 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.3, 0.4, 0.1))
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await pen(page, ring(0.6, 0.4, 0.1))
  await page.keyboard.press('o')
  const dialog = page.getByRole('dialog', { name: 'Layers' })
  await dialog.getByLabel('Name of a new layer').fill('satchel')
  await dialog.getByRole('button', { name: 'add a layer' }).click()
  await dialog.getByLabel('Tint of figure').fill('#cc2244')
  await dialog.getByLabel('How much of figure is seen').fill('0.5')
  await page.keyboard.press('Escape')
  const light = await lightTable(page)
  await light.getByRole('button', { name: 'Also of figure' }).click()
  await light.getByLabel('Colour of past drawings').fill('#2244cc')
  const inForce = inForceOf(page)
  await expect(inForce).toContainText('figure shows through')
  await expect(inForce).toContainText('figure is at 50 %, tinted')
  await page.keyboard.press('Shift+H')
  await expect(inForce).toContainText('silhouettes on the desk')

  /** Whether anything is painted in about this colour on a canvas of the paper. */
  const isSeen = (canvas: number, [r, g, b]: [number, number, number]) =>
    page.evaluate(
      ([n, wanted]) => {
        const element = document.querySelectorAll<HTMLCanvasElement>('main.paper canvas')[n]
        if (!element) return false
        const copy = new OffscreenCanvas(element.width, element.height)
        const brush = copy.getContext('2d', { willReadFrequently: true })
        brush?.drawImage(element, 0, 0)
        const { data } = brush?.getImageData(0, 0, copy.width, copy.height) ?? { data: [] }
        for (let i = 0; i < data.length; i += 4) {
          const near = wanted.every((c, k) => Math.abs((data[i + k] as number) - c) < 12)
          if ((data[i + 3] as number) > 60 && near) return true
        }
        return false
      },
      [canvas, [r, g, b]] as [number, number[]],
    )
  await expect.poll(() => isSeen(1, [0x22, 0x44, 0xcc])).toBe(true)
  await inForce.getByRole('button', { name: 'silhouettes on the desk' }).click()
  // Graphite under three quarters of the tint: it is below the satchel, on the ground.
  await expect.poll(() => isSeen(0, [165, 36, 61]).then(seen => seen || isSeen(0, [209, 145, 152]))).toBe(true)
  await inForce.getByRole('button', { name: 'figure shows through' }).click()
  await expect.poll(() => isSeen(1, [0x22, 0x44, 0xcc])).toBe(false)
  await inForce.getByRole('button', { name: /figure is at 50 %/ }).click()
  await expect(inForce).toBeHidden()
})

test('an arc is laid over the paper and dragged; the picture is cut to a shape', async ({ page, world }) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  const note = await drawer(page, 'Lines on the paper')
  await note.getByRole('button', { name: 'add an arc' }).click()
  const top = page.locator('svg.handles g', { hasText: 'arc 1: drag its top' })
  const before = await top.locator('.dot').boundingBox()
  if (!before) throw new Error('no handle')
  await page.mouse.move(before.x + 6, before.y + 6)
  await page.mouse.down()
  await page.mouse.move(before.x + 46, before.y + 26, { steps: 4 })
  await page.mouse.up()
  const after = await top.locator('.dot').boundingBox()
  // Places are whole paper pixels, which are larger than the screen's here.
  expect(Math.abs((after?.x ?? 0) - before.x - 40)).toBeLessThan(2)
  expect(Math.abs((after?.y ?? 0) - before.y - 20)).toBeLessThan(2)
  // The same by keys: a pixel of the paper an arrow, ten with Shift.
  await top.focus()
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowLeft')
  await expect.poll(async () => ((await top.boundingBox())?.x ?? 0) < (after?.x ?? 0) - 20).toBe(true)
  await note.getByRole('radio', { name: 'square' }).click()
  await expect(inForceOf(page)).toContainText('what lies outside the picture is covered')
  await page.reload()
  await expect(inForceOf(page)).toContainText('what lies outside the picture is covered')
  await expect(page.locator('svg.handles g')).toHaveCount(3)
  await inForceOf(page)
    .getByRole('button', { name: /what lies outside/ })
    .click()
  await note.getByRole('button', { name: 'arc 1 ×' }).click()
  await expect(page.locator('svg.handles g')).toHaveCount(0)
})

test('letters are laid on the paper as paint or as lines, and are strokes from then on', async ({ page, world }) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  await page.keyboard.press(';')
  await withSettings(page, async () => {
    await page.getByLabel('Letters to write').fill('Boil 漢')
    await expect(page.getByText('This typeface has no 漢.')).toBeVisible()
    await page.getByLabel('Letters to write').fill('Boil')
    await page.getByRole('radio', { name: 'plain, bold' }).click()
  })
  const lay = async (y: number) => {
    const places: Place[] = [
      [0.4, y],
      [0.5, y],
    ]
    await mouse(page, places)
  }
  await lay(0.3)
  const strokes = async () => {
    const { drawings } = await documentNow(page, world, shot)
    return Object.values(drawings).flatMap(d => Object.values(d.elements))
  }
  // B, o, i in two pieces, l: five pieces of paint, gathered to be moved on.
  await expect.poll(async () => (await strokes()).map(e => e.kind)).toEqual(Array(5).fill('shape'))
  await page.keyboard.press('ArrowRight')
  await expect.poll(async () => (await strokes()).map(e => e.matrix?.[4])).toEqual(Array(5).fill(1))
  await page.keyboard.press('Escape')
  await page.keyboard.press(';')
  await withSettings(page, () => page.getByRole('radio', { name: 'lines with the pen in the hand' }).click())
  await lay(0.7)
  // Their holes are lines too: two in B, one in o.
  await expect.poll(async () => (await strokes()).filter(e => e.kind === 'line')).toHaveLength(8)
  await page.keyboard.press('Escape')
  for (let i = 0; i < 3; i++) await page.keyboard.press('q')
  await expect.poll(strokes).toHaveLength(0)
})

test('the side button of the pen does what it is told to', async ({ page, world }) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  await pen(page, ring(0.5, 0.5, 0.15))
  const box = await page.getByTestId('paper').boundingBox()
  if (!box) throw new Error('no paper')
  const client = await page.context().newCDPSession(page)
  const across = async () => {
    const at = (share: number) => ({ x: box.x + share * box.width, y: box.y + box.height / 2 })
    const send = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', share: number) =>
      client.send('Input.dispatchMouseEvent', {
        type,
        ...at(share),
        pointerType: 'pen',
        force: 0.5,
        button: 'right',
        buttons: type === 'mouseReleased' ? 0 : 2,
        clickCount: 1,
      })
    await send('mousePressed', 0.2)
    for (let i = 1; i <= 10; i++) await send('mouseMoved', 0.2 + 0.06 * i)
    await send('mouseReleased', 0.8)
  }
  const count = async () => {
    const { drawings } = await documentNow(page, world, shot)
    return Object.values(drawings).reduce((sum, d) => sum + Object.keys(d.elements).length, 0)
  }
  // As it came, it moves the paper.
  await across()
  expect(await count()).toBe(1)
  await page.keyboard.press('0')
  await withSettings(page, () => page.getByRole('radio', { name: 'rubs out' }).click())
  await across()
  expect(await count()).toBe(0)
  await page.keyboard.press('q')
  expect(await count()).toBe(1)
  const side = page.getByRole('radiogroup', { name: 'The pen’s side button' })
  await withSettings(page, () => side.getByRole('radio', { name: 'moves the paper' }).click())
  await page.waitForTimeout(800)
})
