import {
  drawer,
  enter,
  expect,
  exposed,
  mouse,
  newShot,
  openDesk,
  pen,
  ring,
  safe,
  sheetOf,
  stored,
  test,
} from './world.ts'

test.beforeEach(({ page, world }) => enter(page, world))

test('marks are placed in a quick pass, and crosses tell where they belong', async ({ page, world }) => {
  const shot = await newShot(page, world, { frames: 12 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.2, 0.7, 0.1))
  for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowDown')
  await pen(page, ring(0.8, 0.7, 0.1))
  await page.getByRole('button', { name: 'even', exact: true }).click()
  await page.getByRole('button', { name: 'make the drawings' }).click()
  for (let i = 0; i < 12; i++) await page.keyboard.press('ArrowUp')
  await drawer(page, 'Marks')
  await page.getByLabel('Name of a new mark').fill('tip')
  await page.getByLabel('Name of a new mark').press('Enter')
  await expect(page.getByText('click where it lies')).toBeVisible()
  // One click a drawing: the first key, then (past the three blank ones) the last.
  await mouse(page, [[0.2, 0.6]])
  await expect(page).toHaveURL(/frame=3$/)
  for (let i = 0; i < 3; i++) await page.keyboard.press('g')
  await mouse(page, [[0.8, 0.6]])
  await expect(page.getByRole('region', { name: 'Marks' })).toContainText('2 of 5')
  await safe(page)
  const written = (await stored(page, world, shot)).document
  const places = Object.values(written.drawings).flatMap(d => Object.values(d.marks))
  expect(places).toHaveLength(2)
  // The breakdown's cross lies half-way between the two, painted on the guides.
  await page.keyboard.press('e')
  await page.waitForTimeout(300)
  const green = await page.evaluate(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('canvas.guides')
    const brush = canvas?.getContext('2d')
    if (!canvas || !brush) return 0
    const { data } = brush.getImageData(canvas.width / 2 - 12, 0, 24, canvas.height)
    let n = 0
    for (let i = 0; i < data.length; i += 4)
      if ((data[i + 3] ?? 0) > 200 && (data[i + 1] ?? 0) > (data[i] ?? 0) + 20) n++
    return n
  })
  expect(green).toBeGreaterThan(8)
})

test('the queue is skipped and put off, and goes straight ahead when the shot is worked that way', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 12 })
  await exposed(page, world, shot, 'A2 b2 c2 D6')
  await openDesk(page, world, shot)
  const queue = page.getByRole('region', { name: 'Queue' })
  await expect(queue).toContainText('4 left')
  await expect(queue.locator('.next')).toContainText(/^\s*1/)
  await page.keyboard.press('u')
  await expect(queue.locator('.next')).toContainText(/^\s*7/)
  await expect(page.getByRole('complementary', { name: 'Still in force' })).toContainText('1 skipped in the queue')
  await page.keyboard.press('Shift+U')
  await expect(queue.locator('.next')).toContainText(/^\s*3/)
  await page.getByRole('link', { name: 'Plan' }).click()
  await page.getByRole('radio', { name: /^straight ahead/ }).click()
  await page.getByRole('link', { name: 'Desk' }).click()
  await page.getByRole('complementary', { name: 'Still in force' }).getByRole('button').click()
  await page.reload()
  await expect(queue.locator('.next')).toContainText(/^\s*1/)
})

test('takes: copied, retimed, seen side by side in step, told apart in words, one made current', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 12 })
  await exposed(page, world, shot, 'A4 b4 C4')
  await openDesk(page, world, shot, 5)
  await page.getByRole('link', { name: 'Flip' }).click()
  await page.getByRole('button', { name: 'Copy first take' }).click()
  await page.getByLabel('Name of the take').fill('slower')
  await page.getByLabel('Name of the take').press('Enter')
  await expect(page.getByRole('button', { name: 'slower', exact: true })).toHaveAttribute('aria-pressed', 'true')
  await page.getByRole('link', { name: 'Desk' }).click()
  await expect(page.getByTestId('paper')).toBeVisible()
  for (const by of [1, 2]) {
    await page.keyboard.press('=')
    await page.getByRole('button', { name: `make the shot 1 frame longer: ${12 + by} frames` }).click()
  }
  await page.getByRole('link', { name: 'Flip' }).click()
  await page.getByRole('checkbox', { name: 'first take' }).check()
  await expect(page.locator('figure.take')).toHaveCount(2)
  await expect(page.locator('figure.take').first()).toContainText('2 frames shorter; 5 held 2 frames shorter')

  // One clock for both: they are told to play, at half speed, there and back.
  await page.locator('figure.take').first().click()
  await page.keyboard.press('2')
  await page.keyboard.press('q')
  await page.keyboard.press('Space')
  const inForce = page.getByRole('complementary', { name: 'Still in force' })
  await expect(inForce).toContainText('played at ½ speed')
  await expect(inForce).toContainText('played there and back')
  await expect.poll(async () => Number(await page.locator('.now').getAttribute('data-shown'))).toBeGreaterThan(4)
  await page.keyboard.press('Space')
  await page.keyboard.press('w')
  await page.keyboard.press('s')
  await page.keyboard.press('d')
  await page.keyboard.press('r')
  for (const words of ['keys only', 'silhouettes', 'as large as on a phone', 'only figure']) {
    await expect(inForce).toContainText(words)
  }
  await inForce.getByRole('button', { name: 'all back' }).click()
  await expect(inForce).toBeHidden()
  await page.keyboard.press('h')
  await expect(page.getByRole('region', { name: 'Playing' })).toBeHidden()
  await page.keyboard.press('h')
  await page.getByRole('button', { name: 'first take', exact: true }).click()
  await safe(page)
  const { document } = await stored(page, world, shot)
  expect(document.takes[document.current]?.name).toBe('first take')
  expect(document.format.fps).toBe(24)
  expect([sheetOf(document), Object.values(document.takes).length]).toEqual(['1×4 5×4 9×4', 2])
})

test('a drawing that only a removed take showed is found below the takes, and shown again', async ({ page, world }) => {
  const shot = await newShot(page, world, { frames: 12 })
  await exposed(page, world, shot, 'A4 B8')
  await openDesk(page, world, shot)
  await page.keyboard.press('j')
  const takes = page.getByRole('region', { name: 'Takes' })
  await takes.getByRole('button', { name: 'Copy first take' }).click()
  await takes.getByRole('textbox').press('Enter')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('t')
  await takes.getByRole('button', { name: 'first take', exact: true }).click()
  await expect(takes.getByText('not shown in any take')).toBeHidden()
  await takes.getByRole('button', { name: 'Remove first take, again' }).click()
  await expect(takes.getByText('not shown in any take')).toBeVisible()
  await takes.locator('.unshown button').click()
  await expect(takes.getByText('not shown in any take')).toBeHidden()
  await page.keyboard.press('j')
  await safe(page)
  const { document } = await stored(page, world, shot)
  expect([Object.keys(document.takes).length, Object.keys(document.drawings).length]).toEqual([1, 3])
  expect(sheetOf(document)).toContain('2×')
})

test('the plan: length in any unit, beats that take their keys along, notes, and what ones would cost', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 24 })
  await exposed(page, world, shot, 'A4 b4 C16')
  await page.goto(`${world.url}/shot/${shot}/plan`)
  const format = page.getByRole('region', { name: 'Format' })
  await format.getByLabel('Another length').fill('0.2 s')
  await expect(format).toContainText('4.8 frames: becomes 5 frames, 0.21 s')
  await format.getByLabel('Another length').fill('1.25 s')
  await format.getByRole('button', { name: 'set' }).click()
  await expect(format).toContainText('1250')
  await expect(format).toContainText('0:00:01:06')

  const budget = page.getByRole('region', { name: 'Budget' })
  await expect(budget).toContainText('3 drawings')
  await expect(budget).toContainText('all on ones: 9, 6 more')

  const beats = page.getByRole('region', { name: 'Beats' })
  await beats.getByLabel('New beat: frame or time').fill('9')
  await beats.getByLabel('New beat: name').fill('lands')
  await beats.getByRole('button', { name: 'add' }).click()
  await beats.getByLabel('Pin a key to lands').press('Enter')
  await page.getByRole('option', { name: '9, frame 9' }).click()
  await expect(beats).toContainText('on it')
  await beats.getByLabel('Frame of lands').fill('13')
  await beats.getByLabel('Frame of lands').press('Enter')
  await safe(page)
  expect(sheetOf((await stored(page, world, shot)).document)).toBe('1×6 5×6 9×18')
  await beats.getByRole('button', { name: 'set these beats' }).click()
  await expect(beats.getByRole('listitem')).toHaveCount(3)

  const notes = page.getByRole('region', { name: 'Action notes' })
  await notes.getByLabel('New note: what happens').fill('crouches')
  await notes.getByRole('button', { name: 'add' }).click()
  await expect(notes.getByRole('listitem')).toHaveCount(1)
  await safe(page)
  expect(Object.values((await stored(page, world, shot)).document.notes)).toMatchObject([
    { from: 0, to: 12, text: 'crouches' },
  ])
  // Everything planned can be undone at the desk, across rooms.
  await page.getByRole('link', { name: 'Desk' }).click()
  await expect(page.getByTestId('paper')).toBeVisible()
  await page.keyboard.press('j')
  await expect(page.getByText('crouches')).toBeVisible()
  await page.keyboard.press('q')
  await expect(page.getByText('crouches')).toBeHidden()
  await page.keyboard.press('j')
})

test('shift and trace lays a shown-through drawing elsewhere and leaves it as it is', async ({ page, world }) => {
  const shot = await newShot(page, world, { frames: 6 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.3, 0.5, 0.1))
  for (let i = 0; i < 2; i++) await page.keyboard.press('ArrowDown')
  await page.keyboard.press('t')
  await safe(page)
  const before = (await stored(page, world, shot)).document
  await page.keyboard.press('7')
  await expect(page.getByText('lay elsewhere to trace:')).toBeVisible()
  const body = await page.locator('svg.gathered polygon').boundingBox()
  if (!body) throw new Error('nothing to lay elsewhere')
  await page.mouse.move(body.x + body.width / 2, body.y + body.height / 2)
  await page.mouse.down()
  await page.mouse.move(body.x + body.width / 2 + 120, body.y + body.height / 2, { steps: 5 })
  await page.mouse.up()
  const inForce = page.getByRole('complementary', { name: 'Still in force' })
  await expect(inForce).toContainText('1 laid elsewhere to trace')
  const moved = await page.locator('svg.gathered polygon').boundingBox()
  expect(Math.round((moved?.x ?? 0) - body.x)).toBe(120)
  expect((await stored(page, world, shot)).document).toEqual(before)
  await inForce.getByRole('button', { name: /laid elsewhere/ }).click()
  await expect(inForce).toBeHidden()
})
