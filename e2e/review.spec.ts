import {
  asReviewer,
  documentNow,
  drawer,
  enter,
  expect,
  newShot,
  openDesk,
  pen,
  ring,
  safe,
  stored,
  strokesIn,
  test,
} from './world.ts'

test.describe.configure({ timeout: 90_000 })

test('every drawing is looked at by keys, in parts where it is large; one that is drawn on comes back; the send-off tells what is left', async ({
  page,
  world,
}) => {
  await enter(page, world)
  // At 100 % the picture is more than the window shows.
  const shot = await newShot(page, world, { frames: 72, fps: 24, width: 1920, height: 1080 })
  await openDesk(page, world, shot)
  for (const [frame, size] of [
    [1, 0.05],
    [3, 0.3],
    [5, 0.05],
  ] as const) {
    await openDesk(page, world, shot, frame)
    await pen(page, ring(0.5, 0.5, size))
    await safe(page)
  }
  await page.goto(`${world.url}/shot/${shot}/send-off?frame=1`)
  const before = page.getByRole('region', { name: 'Before it goes out' })
  await expect(before).toContainText('3 drawings not looked at closely.')
  await before.getByRole('link', { name: '3 drawings' }).click()

  const list = page.getByRole('navigation', { name: 'Drawings to look at' })
  const told = page.getByRole('main', { name: 'Review' }).getByRole('status')
  const here = list.locator('[aria-current="true"]')
  await expect(list).toContainText('0 of 3 looked at')
  await expect(told).toContainText('3 frames left · all of it')
  const seen = async () => {
    await page.waitForTimeout(330)
    await page.keyboard.press('e')
  }
  const seenUntil = (words: string) =>
    expect(async () => {
      await seen()
      await expect(list).toContainText(words, { timeout: 300 })
    }).toPass()
  // A picture that is not there yet cannot be seen; nor is one that flies past.
  await seenUntil('1 of 3')
  await expect(here).toContainText('not looked at yet')
  await expect(told).toContainText('part 1 of')
  const parts = Number(/part 1 of (\d+)/.exec((await told.textContent()) ?? '')?.[1])
  expect(parts).toBeGreaterThan(1)
  await page.keyboard.press('e')
  await expect(told).toContainText('too quick to count')
  for (let i = 0; i < parts; i++) {
    await expect(list).toContainText('1 of 3 looked at')
    await seen()
    if (i > 0) continue
    // Something remarked half-way: what was seen of it stays seen.
    await expect(told).toContainText('part 2 of')
    await page.keyboard.press('a')
    await page.getByLabel('Remark', { exact: true }).fill('wobbles here')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('region', { name: 'Remarks' })).toContainText('wobbles here')
    await page.keyboard.press('c')
    await expect(page.getByRole('region', { name: 'Remarks' })).toContainText('closed')
    await expect(told).toContainText('part 2 of')
  }
  await expect(list).toContainText('2 of 3 looked at')
  await page.keyboard.press('w')
  await expect(page).toHaveURL(/frame=3$/)
  await page.keyboard.press('=')
  await expect(page.getByRole('main', { name: 'Review' })).toContainText('200 %')
  await page.keyboard.press('-')
  await page.keyboard.press('-')
  await expect(page.getByRole('main', { name: 'Review' })).toContainText('100 %')
  await list
    .getByRole('button', { name: /^Frame 5|drawing|5/ })
    .last()
    .click()
  await seen()
  await expect(told).toContainText('Everything has been looked at.')
  await safe(page)
  await page.reload()
  await expect(list).toContainText('3 of 3 looked at')

  // Looked at once more when one says so, or when it is drawn on; not by its timing.
  await page.keyboard.press('r')
  await expect(list).toContainText('2 of 3 looked at')
  await seenUntil('3 of 3 looked at')
  await page.keyboard.press('d')
  await expect(page.getByTestId('paper')).toBeVisible()
  await pen(page, ring(0.3, 0.3, 0.03))
  await safe(page)
  // What can be undone is kept once the hand rests.
  await page.waitForTimeout(600)
  await page.goto(`${world.url}/shot/${shot}/review?frame=1`)
  await expect(list).toContainText('2 of 3 looked at')
  await expect(list.getByRole('button', { name: /drawn on since/ })).toHaveCount(1)
  await page.goto(`${world.url}/shot/${shot}/send-off?frame=5`)
  await expect(before).toContainText('1 drawing not looked at closely.')
  // What was looked at is no step of the drawing: undo takes the stroke back, and it is as it was looked at.
  await page.getByRole('link', { name: 'Desk' }).click()
  await page.keyboard.press('q')
  await safe(page)
  await page.getByRole('link', { name: 'Review' }).click()
  await expect(list).toContainText('3 of 3 looked at')
})

test('a reviewer remarks with a place and a sketch, and draws nothing; whoever draws sees it on the paper, answers it, and closes it', async ({
  page,
  browser,
  newWorld,
}) => {
  const world = await newWorld()
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 24, fps: 24, width: 640, height: 360 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.5, 0.5, 0.15))
  await safe(page)
  const { guest, heard, context, account } = await asReviewer(browser, world, shot)
  await guest.goto(`${world.url}/shot/${shot}/review?frame=1`)
  const remarks = guest.getByRole('region', { name: 'Remarks' })
  await expect(guest.getByRole('navigation', { name: 'Drawings to look at' })).toContainText('0 of 1')
  await guest.keyboard.press('a')
  await expect(remarks.getByRole('button', { name: 'keep' })).toBeDisabled()
  await guest.getByLabel('Remark', { exact: true }).fill('wetter')
  const stage = (await guest.locator('main .stage .stage').boundingBox())!
  const [x, y] = [stage.x + stage.width / 2, stage.y + stage.height / 2]
  await guest.mouse.click(x + 40, y + 20)
  await guest.mouse.move(x, y)
  await guest.mouse.down()
  await guest.mouse.move(x + 60, y - 30, { steps: 8 })
  await guest.mouse.up()
  await remarks.getByRole('button', { name: 'keep' }).click()
  await expect(remarks).toContainText('Newt')
  await safe(guest)
  const made = Object.values((await stored(page, world, shot)).document.remarks)
  expect(made).toMatchObject([{ by: account, name: 'Newt', frame: 0, text: 'wetter' }])
  expect(Math.hypot(made[0]!.at!.x - 360, made[0]!.at!.y - 200)).toBeLessThan(6)
  expect(made[0]!.sketch).toHaveLength(1)
  expect(made[0]!.drawing).not.toBeNull()
  // Looked at, under their own name.
  await expect(async () => {
    await guest.keyboard.press('e')
    await expect(guest.getByRole('navigation', { name: 'Drawings to look at' })).toContainText('1 of 1 looked at', {
      timeout: 400,
    })
  }).toPass()
  await safe(guest)
  expect(Object.keys((await stored(page, world, shot)).document.looked)).toEqual([account])

  // On the owner's desk it is there at once, in its drawer and on the paper.
  const note = await drawer(page, 'Review')
  await expect(note).toContainText('wetter')
  await expect(page.locator('main.paper .remarks path')).toHaveCount(2)
  await note.getByRole('button', { name: 'answer' }).click()
  await note.getByLabel('Answer').fill('on 5, too?')
  await page.keyboard.press('Enter')
  await safe(page)
  await expect(remarks).toContainText('Otter on 5, too?')
  await guest.keyboard.press('s')
  await guest.keyboard.type('yes')
  await guest.keyboard.press('Enter')
  await expect(note).toContainText('Newt yes')
  await note.getByRole('button', { name: 'close' }).click()
  await expect(remarks).toContainText('closed')
  await expect(note.getByRole('heading')).not.toContainText('1')
  expect(strokesIn(await documentNow(page, world, shot))).toBe(1)
  // Undone by whoever did it, and nothing else with it.
  await page.keyboard.press('q')
  await expect(remarks.getByText('closed')).toHaveCount(0)
  expect(heard).toEqual([])
  await context.close()
})
