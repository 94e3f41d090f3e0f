import {
  dash,
  enter,
  expect,
  mouse,
  newShot,
  openDesk,
  pen,
  safe,
  stored,
  strokesIn,
  test,
  watchConsole,
  paperPicture,
} from './world.ts'

test('the server is killed while forty strokes are being sent: all are there, once each', async ({
  page,
  quietConsole,
  newWorld,
}) => {
  quietConsole.allowNetwork = true
  const world = await newWorld()
  await enter(page, world)
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  for (let i = 0; i < 40; i++) {
    await pen(page, dash(i))
    if (i === 14) await world.kill()
    if (i === 28) void world.start()
  }
  await expect(page.getByRole('status').filter({ hasText: 'safe' })).toBeVisible({ timeout: 30_000 })
  const { document } = await stored(page, world, shot)
  expect(strokesIn(document)).toBe(40)
  const samples = Object.values(document.drawings).flatMap(d => Object.values(d.elements).map(e => e.samples))
  expect(new Set(samples).size).toBe(40)
})

test('offline, drawing goes on; a reload in the middle loses nothing; undo still works afterwards', async ({
  page,
  context,
  world,
  quietConsole,
}) => {
  quietConsole.allowNetwork = true
  await enter(page, world)
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  await pen(page, dash(0))
  await safe(page)
  await context.setOffline(true)
  for (let i = 1; i < 9; i++) await pen(page, dash(i))
  await expect(page.getByRole('status').filter({ hasText: 'on this machine only' })).toBeVisible()
  await page.waitForTimeout(400)
  expect(strokesIn((await stored(page, world, shot)).document)).toBe(1)

  // Only the page's own requests are held back; the reload itself finds the application again.
  await context.setOffline(false)
  await page.route('**/journal', route => route.abort())
  await page.reload()
  await expect(page.getByTestId('paper')).toBeVisible()
  await expect(page.getByTitle(/^Undo: line on/)).toBeVisible()
  await page.unroute('**/journal')
  await expect.poll(async () => strokesIn((await stored(page, world, shot)).document), { timeout: 20_000 }).toBe(9)
  await page.keyboard.press('q')
  await safe(page)
  await expect.poll(async () => strokesIn((await stored(page, world, shot)).document)).toBe(8)
})

test('a page that goes away right after a step loses neither the step nor the way back from it', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  for (let n = 1; n <= 3; n++) {
    await pen(page, dash(n))
    // No time for the hand to rest.
    await page.evaluate(() => new Promise(done => setTimeout(done, 30)))
    await page.reload()
    await expect(page.getByTitle(/^Undo: line on/)).toBeEnabled()
    await expect.poll(async () => strokesIn((await stored(page, world, shot)).document)).toBe(n)
  }
  for (const left of [2, 1, 0]) {
    await page.keyboard.press('q')
    await expect.poll(async () => strokesIn((await stored(page, world, shot)).document)).toBe(left)
  }
})

test('two tabs on one shot end with the same document, and nothing is asked', async ({ page, context, world }) => {
  await enter(page, world)
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  await mouse(page, dash(0))
  await safe(page)
  const other = await context.newPage()
  const heard: string[] = []
  watchConsole(other, heard)
  await openDesk(other, world, shot)
  for (let i = 1; i < 7; i++) await mouse(i % 2 ? page : other, dash(i))
  // One retimes while the other draws.
  await other.keyboard.press('=')
  await mouse(page, dash(7))
  await Promise.all([safe(page), safe(other)])
  const { document } = await stored(page, world, shot)
  expect(strokesIn(document)).toBe(8)
  for (const tab of [page, other]) {
    await expect(tab.getByText(/frames 1–3/)).toBeVisible()
    await expect(tab.getByRole('dialog')).toHaveCount(0)
  }
  const picture = async (tab: typeof page) => (await paperPicture(tab)).toString('base64')
  await other.bringToFront()
  const there = await picture(other)
  await page.bringToFront()
  await expect.poll(() => picture(page)).toBe(there)
  expect(heard).toEqual([])
})
