import {
  drawer,
  enter,
  expect,
  exposed,
  lightTable,
  newShot,
  openDesk,
  pen,
  ring,
  safe,
  stored,
  test,
} from './world.ts'

test.beforeEach(({ page, world }) => enter(page, world))

test('night desk, the other hand and changed keys are kept on the account', async ({ page, world, browser }) => {
  const shot = await newShot(page, world, { frames: 12 })
  await exposed(page, world, shot, 'A4 B4 C4')
  await openDesk(page, world, shot)
  await page.getByRole('button', { name: 'Night desk' }).click()
  await expect(page.locator('html')).toHaveAttribute('data-desk', 'night')
  await page.getByRole('button', { name: 'for the left hand' }).click()
  const sheet = await page.getByRole('complementary', { name: 'Exposure sheet' }).boundingBox()
  const margin = await page.getByRole('complementary', { name: 'Margin' }).boundingBox()
  expect((sheet?.x ?? 0) > (margin?.x ?? 0)).toBe(true)
  // The keys lie under the right hand now: H goes to the drawing after, as G did.
  await page.keyboard.press('h')
  await expect(page.getByText('frames 5–8')).toBeVisible()

  // What is said of keys on the desk follows.
  await expect(page.getByRole('button', { name: 'copy 5' })).toHaveAttribute('title', /\(⇧ Y\)$/)

  await page.keyboard.press('?')
  const keys = page.getByRole('dialog', { name: 'Keys' })
  await keys.getByRole('button', { name: 'Another key for: drawing after' }).click()
  await expect(keys.getByText('press a key …')).toBeVisible()
  await page.keyboard.press('k')
  await expect(keys.getByText('K was “roll through the neighbours')).toBeVisible()
  await keys.getByRole('button', { name: 'Another key for: drawing before' }).click()
  await page.keyboard.press('Escape')
  await expect(keys).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(keys).toBeHidden()
  await page.keyboard.press('k')
  await expect(page.getByText('frames 9–12')).toBeVisible()
  // Left at once after the last change, nothing is lost.
  await page.reload()
  await expect(page.locator('html')).toHaveAttribute('data-desk', 'night')
  await page.waitForTimeout(800)

  // On another machine the desk is the same.
  const other = await browser.newContext()
  const there = await other.newPage()
  await enter(there, world)
  await openDesk(there, world, shot)
  await expect(there.locator('html')).toHaveAttribute('data-desk', 'night')
  await there.keyboard.press('k')
  await expect(there.getByText('frames 5–8')).toBeVisible()
  await there.keyboard.press('?')
  await there.getByRole('button', { name: 'all keys as they came' }).click()
  await there.keyboard.press('Escape')
  await there.keyboard.press('h')
  await expect(there.getByText('frames 9–12')).toBeVisible()
  await there.getByRole('button', { name: 'for the right hand' }).click()
  await there.getByRole('button', { name: 'Night desk' }).click()
  await there.waitForTimeout(800)
  await other.close()
})

test('a finger draws until a pen is seen, then it moves the paper; told to, it draws again; keys on the screen', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  const box = await page.getByTestId('paper').boundingBox()
  if (!box) throw new Error('no paper')
  const client = await page.context().newCDPSession(page)
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', ...points: [number, number][]) =>
    client.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: points.map(([x, y], id) => ({ x: box.x + x * box.width, y: box.y + y * box.height, id })),
    })
  const strokes = async () => {
    await safe(page)
    const { document } = await stored(page, world, shot)
    return Object.values(document.drawings).flatMap(d => Object.values(d.elements)).length
  }
  const line = async (y: number) => {
    await touch('touchStart', [0.4, y])
    for (let i = 1; i <= 8; i++) await touch('touchMove', [0.4 + i * 0.02, y])
    await touch('touchEnd')
  }
  const said = page.getByText(/^A finger draws, since no pen was seen/)
  await line(0.3)
  await expect(said).toBeVisible()
  expect(await strokes()).toBe(1)
  // Said once, and keys for the free hand have come up.
  await line(0.35)
  await expect(said).toBeHidden()
  const twins = page.getByRole('group', { name: 'Keys on the screen' })
  await twins.getByRole('button', { name: 'undo' }).click()
  expect(await strokes()).toBe(1)
  await twins.getByRole('button', { name: 'undo' }).click()
  expect(await strokes()).toBe(0)
  await expect(twins.getByRole('button', { name: 'undo' })).toBeDisabled()
  await pen(page, [
    [0.6, 0.2],
    [0.62, 0.22],
  ])
  await page.keyboard.press('q')
  await page.waitForTimeout(700)
  await line(0.5)
  await touch('touchStart', [0.4, 0.5], [0.6, 0.5])
  for (let i = 1; i <= 8; i++) await touch('touchMove', [0.4 - i * 0.01, 0.5], [0.6 + i * 0.01, 0.5 + i * 0.01])
  await touch('touchEnd')
  expect(await strokes()).toBe(0)
  await page.keyboard.press('0')
  await page.getByTitle('Settings of the tool in the hand').click()
  const finger = page.getByRole('radiogroup', { name: 'What a finger does' })
  await finger.getByRole('radio', { name: 'draws' }).click()
  await page.keyboard.press('Escape')
  await expect(finger).toBeHidden()
  await touch('touchStart', [0.3, 0.4])
  for (let i = 1; i <= 8; i++) await touch('touchMove', [0.3 + i * 0.03, 0.4])
  await touch('touchEnd')
  expect(await strokes()).toBe(1)
  // A second finger takes the paper: the line begun is dropped.
  await touch('touchStart', [0.3, 0.6])
  await touch('touchMove', [0.4, 0.6])
  await touch('touchStart', [0.4, 0.6], [0.6, 0.6])
  await touch('touchMove', [0.35, 0.6], [0.65, 0.6])
  await touch('touchEnd')
  expect(await strokes()).toBe(1)
})

test('looking: flip through three, wipe over, see mirrored, tasks of the light table, pinned drawings', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 6 })
  await openDesk(page, world, shot)
  for (const frame of [0, 2, 4]) {
    await page.goto(`${world.url}/shot/${shot}/desk?frame=${frame + 1}`)
    await expect(page.getByTestId('paper')).toBeVisible()
    await pen(page, ring(0.25 + frame * 0.12, 0.5, 0.1))
    await safe(page)
  }
  await page.goto(`${world.url}/shot/${shot}/desk?frame=3`)
  await expect(page.getByText('frames 3–4')).toBeVisible()
  const flipped = page.locator('.flipped')
  await page.keyboard.down('Shift')
  await page.keyboard.down('s')
  await expect(flipped).toHaveText('5')
  await expect(flipped).toHaveText('1')
  await page.keyboard.up('s')
  await page.keyboard.up('Shift')
  await expect(flipped).toBeHidden()

  const light = await lightTable(page)
  await light.getByRole('button', { name: 'close a loop' }).click()
  await expect(light.getByRole('button', { name: 'close a loop' })).toHaveAttribute('aria-pressed', 'true')
  await expect(light.getByText('1 + 1')).toBeVisible()
  await light.getByRole('button', { name: 'paint' }).click()
  await expect(light.getByRole('switch').first()).toHaveText('off')
  await light.getByRole('button', { name: 'in between' }).click()
  await light.getByRole('button', { name: 'pin 3' }).click()
  await page.keyboard.press('a')
  const inForce = page.getByRole('complementary', { name: 'Still in force' })
  await expect(inForce).toContainText('3 pinned to the light table')
  await page.keyboard.press('Shift+w')
  await expect(inForce).toContainText('the paper is seen mirrored')
  // A line drawn on the left of a mirrored paper lies on its right.
  await pen(page, [
    [0.2, 0.2],
    [0.22, 0.22],
    [0.2, 0.24],
  ])
  await inForce.getByRole('button', { name: 'all back' }).click()
  await expect(inForce).toBeHidden()
  await page.keyboard.press('Shift+a')
  const gathered = await page.locator('svg.gathered polygon').boundingBox()
  const paper = await page.getByTestId('paper').boundingBox()
  if (!gathered || !paper) throw new Error('nothing is gathered')
  expect((gathered.x + gathered.width - paper.x) / paper.width).toBeGreaterThan(0.75)
})

test('lines on the paper: the ground is dragged, typed, and there again after a reload', async ({ page, world }) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  const note = await drawer(page, 'Lines on the paper')
  await note.getByRole('button', { name: 'ground at' }).click()
  const field = note.getByLabel('ground at, px')
  const before = Number(await field.inputValue())
  const handle = await page.locator('svg.handles .ground .dot').boundingBox()
  if (!handle) throw new Error('no handle')
  await page.mouse.move(handle.x + 6, handle.y + 6)
  await page.mouse.down()
  await page.mouse.move(handle.x + 6, handle.y - 60, { steps: 3 })
  await page.mouse.up()
  expect(Number(await field.inputValue())).toBeLessThan(before - 20)
  await field.fill('123')
  await field.press('Enter')
  await field.fill('99999999')
  await field.press('Enter')
  await expect(field).toHaveValue('123')
  await note.getByRole('button', { name: 'safe margin' }).click()
  await page.reload()
  await expect(field).toHaveValue('123')
  await expect(note.getByRole('button', { name: 'safe margin' })).toHaveAttribute('aria-pressed', 'true')
})

test('what lies over the paper lets a stroke through that comes near it', async ({ page, world }) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  await page.keyboard.press('Shift+W')
  const note = page.getByRole('complementary', { name: 'Still in force' })
  await expect(note).toBeVisible()
  const [box, paper] = [await note.boundingBox(), await page.getByTestId('paper').boundingBox()]
  if (!box || !paper) throw new Error('nothing to be seen')
  await page.mouse.move(paper.x + paper.width / 2, paper.y + paper.height / 2)
  await page.mouse.down()
  await expect(note).not.toHaveAttribute('data-aside')
  await page.mouse.move(box.x + box.width / 2, box.y + box.height + 12, { steps: 6 })
  await expect(note).toHaveAttribute('data-aside')
  await page.mouse.up()
  await expect(note).not.toHaveAttribute('data-aside')
  await note.getByRole('button').first().click()
  await expect(note).toBeHidden()
})
