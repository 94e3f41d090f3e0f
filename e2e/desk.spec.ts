import {
  enter,
  expect,
  lightTable,
  mouse,
  newShot,
  openDesk,
  paperPicture,
  pen,
  ring,
  safe,
  stored,
  strokesIn,
  test,
  type Place,
} from './world.ts'
import type { Page } from 'playwright/test'

const line: Place[] = Array.from({ length: 30 }, (_, i) => [0.25 + i * 0.0166, 0.5])

async function present(page: Page): Promise<Buffer> {
  await page.waitForTimeout(120)
  return paperPicture(page)
}

test.beforeEach(({ page, world }) => enter(page, world))

test('pressure makes the line: a firm pen draws wider than a light one, a mouse in between', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  await pen(page, line, 1)
  await pen(
    page,
    line.map(([x]): Place => [x, 0.7]),
    0.25,
  )
  await mouse(page, [
    [0.25, 0.3],
    [0.4, 0.3],
    [0.7, 0.3],
  ])
  await safe(page)
  const { document } = await stored(page, world, shot)
  expect(strokesIn(document)).toBe(3)
  const packed = await page.request.get(`${world.url}/api/shots/${shot}/samples`)
  expect((await packed.body()).length).toBeLessThan(3 * 400)
})

test('rub out takes whole strokes, trim a part, and every step can be undone and redone', async ({ page, world }) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  await pen(page, line)
  await pen(
    page,
    line.map(([x]): Place => [x, 0.7]),
  )
  const drawn = await present(page)
  await page.keyboard.press('4')
  await mouse(page, [
    [0.5, 0.4],
    [0.5, 0.6],
  ])
  await safe(page)
  const trimmed = (await stored(page, world, shot)).document
  expect(strokesIn(trimmed)).toBe(3)
  await page.keyboard.press('3')
  await mouse(page, [
    [0.4, 0.62],
    [0.4, 0.78],
  ])
  await safe(page)
  expect(strokesIn((await stored(page, world, shot)).document)).toBe(2)
  await page.keyboard.press('q')
  await page.keyboard.press('q')
  await safe(page)
  expect((await present(page)).equals(drawn)).toBe(true)
  await page.keyboard.press('Shift+Q')
  await safe(page)
  expect((await stored(page, world, shot)).document).toEqual(trimmed)
})

test('gathered strokes are moved, scaled, turned and nudged, by hand and by key', async ({ page, world }) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  await pen(page, ring(0.5, 0.5, 0.15))
  await page.keyboard.press('5')
  await mouse(page, [
    [0.3, 0.2],
    [0.7, 0.2],
    [0.7, 0.8],
    [0.3, 0.8],
    [0.3, 0.25],
  ])
  const box = page.locator('svg.gathered')
  await expect(box).toBeVisible()
  const matrix = async () => {
    await safe(page)
    const { document } = await stored(page, world, shot)
    return Object.values(Object.values(document.drawings)[0]?.elements ?? {})[0]?.matrix
  }
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Shift+ArrowDown')
  expect(await matrix()).toEqual([1, 0, 0, 1, 1, 10])
  const body = await box.locator('polygon').boundingBox()
  const drag = async (x: number, y: number, dx: number, dy: number) => {
    await page.mouse.move(x, y)
    await page.mouse.down()
    await page.mouse.move(x + dx, y + dy, { steps: 4 })
    await page.mouse.up()
  }
  if (!body) throw new Error('nothing is gathered')
  await drag(body.x + body.width / 2, body.y + body.height / 2, 40, 0)
  const moved = (await matrix()) as number[]
  expect(moved[4]).toBeGreaterThan(20)
  const corner = await box.locator('rect').nth(2).boundingBox()
  await drag((corner?.x ?? 0) + 5, (corner?.y ?? 0) + 5, 60, 60)
  expect(((await matrix()) as number[])[0]).toBeGreaterThan(1.1)
  const knob = await box.locator('circle.knob').boundingBox()
  await drag((knob?.x ?? 0) + 6, (knob?.y ?? 0) + 6, 80, 40)
  expect(Math.abs(((await matrix()) as number[])[1] as number)).toBeGreaterThan(0.1)
  await page.keyboard.press('Delete')
  await safe(page)
  expect(strokesIn((await stored(page, world, shot)).document)).toBe(0)
})

test('the sheet: copy and share, clear and remove, on ones and threes, insert and take out, loop', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 8 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.5, 0.5, 0.15))
  await page.keyboard.press('Shift+T')
  await page.keyboard.press('y')
  const column = async () => {
    await safe(page)
    const { document } = await stored(page, world, shot)
    const take = Object.values(document.takes)[0]
    const runs = take?.columns['layer-1'] ?? []
    return `${runs.map(r => `${r.drawing ? document.drawings[r.drawing]?.number : '-'}×${r.frames}`).join(' ')} / ${take?.length}`
  }
  expect(await column()).toBe('1×2 3×4 -×2 / 8')
  await page.keyboard.press('t')
  expect(await column()).toBe('1×2 3×2 5×2 -×2 / 8')
  await expect(page.getByText('frames 5–6')).toBeVisible()
  await page.keyboard.press('a')
  await page.keyboard.press('Alt+1')
  expect(await column()).toBe('1×2 3×1 5×2 -×3 / 8')
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('Alt+3')
  expect(await column()).toBe('1×3 3×3 5×2 / 8')
  await page.keyboard.press('Escape')
  await page.keyboard.press('i')
  expect(await column()).toBe('1×4 3×3 5×2 / 9')
  await page.keyboard.press('Shift+I')
  expect(await column()).toBe('1×3 3×3 5×2 / 8')
  await page.keyboard.press('Backspace')
  await page.keyboard.press('g')
  await page.keyboard.press('Shift+Backspace')
  expect(await column()).toBe('1×3 5×2 -×3 / 8')
  await page.keyboard.press(',')
  await safe(page)
  const { document } = await stored(page, world, shot)
  expect([Object.keys(document.drawings).length, strokesIn(document)]).toEqual([2, 0])
  expect(Object.values(document.takes)[0]?.loop).toEqual({ from: 3, to: 8 })
  for (let i = 0; i < 10; i++) await page.keyboard.press('Control+z')
  expect(await column()).toBe('1×2 -×6 / 8')
})

test('a hold is dragged longer on the sheet, and the frames behind it move', async ({ page, world }) => {
  const shot = await newShot(page, world, { frames: 8 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.5, 0.5, 0.15))
  const column = await page.locator('[data-layer="layer-1"]').boundingBox()
  if (!column) throw new Error('no column to drag in')
  // A drawing begun on the desk is on twos: its hold ends with the second row.
  const [x, y] = [column.x + column.width / 2, column.y + 48]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x, y + 24 * 3 - 4, { steps: 4 })
  await page.mouse.up()
  await expect(page.getByText('frames 1–5')).toBeVisible()
  await page.mouse.wheel(0, 10)
})

test('the light table goes round the loop only when told to, and the paper turns, zooms and comes back', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 6 })
  await openDesk(page, world, shot)
  for (const [i, frame] of [0, 2, 4].entries()) {
    for (let k = 0; k < frame; k++) await page.keyboard.press('ArrowDown')
    await pen(page, ring(0.25 + i * 0.25, 0.5, 0.1))
    for (let k = 0; k < frame; k++) await page.keyboard.press('ArrowUp')
  }
  const table = page.locator('main.paper canvas').nth(1)
  const shows = async () => {
    await page.waitForTimeout(150)
    return table.evaluate((canvas: HTMLCanvasElement) => {
      const copy = new OffscreenCanvas(canvas.width, canvas.height).getContext('2d', { willReadFrequently: true })!
      copy.drawImage(canvas, 0, 0)
      const { data, width } = copy.getImageData(0, 0, canvas.width, canvas.height)
      const thirds = new Set<number>()
      for (let i = 3; i < data.length; i += 4)
        if (data[i]! > 20) thirds.add(Math.round(((((i - 3) / 4) % width) / width) * 4))
      return [...thirds].sort().join('')
    })
  }
  expect(await shows()).toBe('23')
  await (await lightTable(page)).getByRole('switch').filter({ hasText: 'no' }).click()
  await page.getByRole('button', { name: '1 after' }).click()
  await page.getByRole('button', { name: '2 before' }).click()
  expect((await shows()).includes('3')).toBe(true)
  const straight = await present(page)
  await page.keyboard.press(']')
  await page.keyboard.press('x')
  expect((await present(page)).equals(straight)).toBe(false)
  await page.keyboard.press('0')
  expect((await present(page)).equals(straight)).toBe(true)
  await page.keyboard.press('h')
  await expect(page.getByRole('complementary', { name: 'Exposure sheet' })).toBeHidden()
  await page.keyboard.press('Escape')
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible()
})

test('a lost pointer leaves no half stroke', async ({ page, world }) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  const paper = page.getByTestId('paper')
  const box = await paper.boundingBox()
  if (!box) throw new Error('no paper')
  await page.mouse.move(box.x + 200, box.y + 200)
  await page.mouse.down()
  await page.mouse.move(box.x + 300, box.y + 240, { steps: 5 })
  await paper.dispatchEvent('pointercancel', { pointerId: 1 })
  await page.mouse.up()
  await safe(page)
  expect(strokesIn((await stored(page, world, shot)).document)).toBe(0)
})
