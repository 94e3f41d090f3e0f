import {
  asReviewer,
  enter,
  expect,
  mouse,
  newShot,
  openDesk,
  OWNER,
  pen,
  ring,
  safe,
  stored,
  strokesIn,
  test,
} from './world.ts'

test('with the keyboard alone: sign in, make a shot, plan it, retime it, play it, send it off', async ({
  page,
  newWorld,
}) => {
  const world = await newWorld()
  const focused = () =>
    page.evaluate(() => {
      const on = document.activeElement as HTMLElement | null
      return on && on !== document.body ? on.innerText || on.getAttribute('aria-label') || '' : ''
    })
  const tabTo = async (words: RegExp) => {
    for (let i = 0; i < 140; i++) {
      await page.keyboard.press('Tab')
      if (words.test(await focused())) return
    }
    throw new Error(`Tab never reaches ${words}`)
  }
  await page.goto(world.url)
  await page.getByLabel('Your name').focus()
  await page.keyboard.type(OWNER.name)
  await page.keyboard.press('Tab')
  await page.keyboard.type(OWNER.email)
  await page.keyboard.press('Tab')
  await page.keyboard.type(OWNER.password)
  await page.keyboard.press('Enter')
  await expect(page.getByText('The shelf is empty')).toBeVisible()
  await tabTo(/New film/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toBeVisible()
  await page.keyboard.type('Reed in the wind')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Reed in the wind' })).toBeVisible()
  // The dialog gives the focus back when it is gone.
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await page.waitForTimeout(400)
  await tabTo(/A new shot/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog', { name: 'A new shot' })).toBeVisible()
  await page.getByLabel('Name', { exact: true }).focus()
  await page.keyboard.type('One reed')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('paper')).toBeVisible()

  // Two blank keys, a chart between them, its drawings, and the sheet: nothing needs a pointer.
  await page.keyboard.press('t')
  for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowDown')
  await page.keyboard.press('t')
  await expect(page.getByText(/between 1 and 9/)).toBeVisible()
  await tabTo(/favour last/)
  await page.keyboard.press('Enter')
  await tabTo(/make the drawings/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'make the drawings' })).toHaveCount(0)
  const sheet = page.getByRole('complementary', { name: 'Exposure sheet' })
  await expect(sheet).toContainText('5 drawings, 5 to go')
  await page.keyboard.press('b')
  await expect(page.getByRole('radio', { name: 'breakdown' })).toHaveAttribute('aria-checked', 'true')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible()
  await page.keyboard.press('Space')
  await safe(page)
  await tabTo(/^Send off/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Send off' })).toBeVisible()
  await tabTo(/Make the GIF/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'Save one-reed.gif' })).toBeVisible()
})

test('a chart with no room says so and changes nothing; asking for fewer than are drawn too', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 8 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.3, 0.5, 0.1))
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowDown')
  await pen(page, ring(0.7, 0.5, 0.1))
  await page.locator('.exposing').click()
  await page.getByRole('option', { name: 'evenly' }).click()
  await page.getByRole('button', { name: 'One inbetween more' }).click()
  await page.getByRole('button', { name: 'make the drawings' }).click()
  await expect(page.getByText('Between the keys 3 frames are free; 5 are needed.')).toBeVisible()
  await safe(page)
  expect(Object.keys((await stored(page, world, shot)).document.drawings)).toHaveLength(2)
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'One inbetween less' }).click()
  await page.getByRole('button', { name: 'make the drawings' }).click()
  await page.keyboard.press('e')
  await pen(page, ring(0.5, 0.5, 0.1))
  await page.getByRole('button', { name: 'One inbetween less' }).click()
  await expect(page.getByText('1 drawing between these keys is drawn already')).toBeVisible()
  await safe(page)
  const { document } = await stored(page, world, shot)
  expect([Object.keys(document.drawings).length, strokesIn(document)]).toEqual([3, 3])
  expect(Object.values(document.charts)[0]?.ticks).toHaveLength(1)
})

test('a background is exposed to the end, and is painted under the figure', async ({ page, world }) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 12 })
  await openDesk(page, world, shot)
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('2')
  await page.getByRole('radio', { name: 'pale green' }).click()
  await mouse(page, [
    [0.1, 0.6],
    [0.9, 0.6],
    [0.9, 0.9],
    [0.1, 0.9],
  ])
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('1')
  await pen(page, ring(0.5, 0.6, 0.2))
  await safe(page)
  const { document } = await stored(page, world, shot)
  const columns = Object.values(document.takes)[0]?.columns ?? {}
  expect(columns['layer-bg']?.map(run => run.frames)).toEqual([12])
  expect(columns['layer-1']?.map(run => run.frames)).toEqual([2, 10])
  const kinds = Object.values(document.drawings).flatMap(d => Object.values(d.elements).map(e => e.kind))
  expect(kinds.sort()).toEqual(['line', 'shape'])
})

test('the owner lets a reviewer in, who sits down with the password that was told, changes it, and is let go', async ({
  page,
  browser,
  newWorld,
}) => {
  const world = await newWorld()
  await enter(page, world)
  const shot = await newShot(page, world)
  await page.goto(`${world.url}/shelf`)
  await page.getByRole('button', { name: 'people' }).click()
  const people = page.getByRole('dialog', { name: /^People of/ })
  await expect(people.getByRole('list', { name: 'People' })).toContainText('owns it')
  await people.getByLabel('E-mail').fill('nobody')
  await people.getByLabel('E-mail').press('Enter')
  await expect(people.getByRole('alert')).toContainText('must be an e-mail address')
  await people.getByLabel('E-mail').fill('newt@marsh-post.example')
  await people.getByLabel('Name', { exact: true }).fill('Newt')
  await people.getByRole('button', { name: 'let in' }).click()
  const told = people.getByRole('status')
  await expect(told).toContainText('Newt had no account here')
  const password = (await told.locator('code').textContent())!.trim()
  await expect(people.getByRole('list', { name: 'People' })).toContainText('newt@marsh-post.example')

  const guest = await (await browser.newContext()).newPage()
  await guest.goto(world.url)
  await guest.getByLabel('E-mail').fill('newt@marsh-post.example')
  await guest.getByLabel('Password').fill(password)
  await guest.getByRole('button', { name: 'Sit down' }).click()
  await expect(guest.getByText('you review it')).toBeVisible()
  await expect(guest.getByRole('button', { name: 'people' })).toHaveCount(0)
  await guest.getByRole('button', { name: 'Newt', exact: true }).click()
  const another = guest.getByRole('dialog', { name: 'Another password' })
  await another.getByLabel('The one now').fill('not this one')
  await another.getByLabel(/^The new one/).fill('lantern-over-reeds')
  await another.getByRole('button', { name: 'change it' }).click()
  await expect(another).toContainText('This is not the password now.')
  await another.getByLabel('The one now').fill(password)
  await another.getByRole('button', { name: 'change it' }).click()
  await expect(guest.getByText('The password is changed')).toBeVisible()
  await openDesk(guest, world, shot)
  await expect(guest.getByRole('radiogroup', { name: 'Tools' })).toHaveCount(0)

  await people.getByRole('button', { name: 'Let Newt go' }).click()
  await expect(people.getByRole('list', { name: 'People' })).not.toContainText('Newt')
  await guest.goto(`${world.url}/shelf`)
  await expect(guest.getByText('you review it')).toHaveCount(0)
})

test('a reviewer looks, flips and plays, and has nothing in the hand to draw with', async ({
  page,
  browser,
  newWorld,
}) => {
  const world = await newWorld()
  await enter(page, world)
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  await pen(page, ring(0.5, 0.5, 0.15))
  await safe(page)
  const { guest, heard, context } = await asReviewer(browser, world, shot)
  await openDesk(guest, world, shot)
  await expect(guest.getByRole('radiogroup', { name: 'Tools' })).toHaveCount(0)
  await mouse(guest, [
    [0.2, 0.2],
    [0.6, 0.3],
  ])
  await guest.keyboard.press('t')
  await guest.keyboard.press('Space')
  await expect(guest.getByRole('button', { name: 'Stop' })).toBeVisible()
  await guest.keyboard.press('Space')

  // What the owner draws meanwhile is seen at once.
  await pen(page, ring(0.3, 0.3, 0.08))
  await safe(page)
  for (let i = 0; i < 24; i++) await guest.keyboard.press('ArrowUp')
  await expect(guest.getByText(/frames 1–2/)).toBeVisible()
  const { document } = await stored(page, world, shot)
  expect([Object.keys(document.drawings).length, strokesIn(document)]).toEqual([1, 2])
  const picture = async (tab: typeof page) =>
    (await tab.locator('main.paper canvas').nth(2).screenshot()).toString('base64')
  await page.bringToFront()
  await page.keyboard.press('1')
  expect(heard).toEqual([])
  expect((await picture(guest)).length).toBeGreaterThan(1000)
  await context.close()
})
