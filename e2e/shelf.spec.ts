import { enter, expect, newShot, test } from './world.ts'

test('the shelf by keys: cards in the direction pressed, found by name, laid in another order, end to end', async ({
  page,
  newWorld,
}) => {
  const world = await newWorld()
  await enter(page, world)
  const made = await page.request.post(`${world.url}/api/films`, { data: { name: 'The Marsh Post' } })
  const film = (await made.json()).id as string
  for (const name of ['Ripples', 'Reeds', 'Moth']) await newShot(page, world, { name, film })
  await page.goto(`${world.url}/shelf`)
  const names = () => page.getByRole('article').locator('.name').allInnerTexts()
  await expect(page.getByRole('article')).toHaveCount(3)
  const before = await names()
  const inHand = () => page.evaluate(() => document.activeElement?.getAttribute('aria-label'))
  await page.keyboard.press('ArrowRight')
  expect(await inHand()).toBe(`Open ${before[0]}`)
  await page.keyboard.press('ArrowRight')
  expect(await inHand()).toBe(`Open ${before[1]}`)
  await page.keyboard.press('ArrowLeft')
  expect(await inHand()).toBe(`Open ${before[0]}`)
  // One more press of Tab for what else there is to do with the card; then the next one.
  await page.keyboard.press('Tab')
  expect(await inHand()).toBe(`More for ${before[0]}`)
  await page.keyboard.press('Tab')
  expect(await inHand()).toBe(`Open ${before[1]}`)

  await page.keyboard.press('/')
  await page.keyboard.type('reeds')
  await expect(page.getByRole('article')).toHaveCount(1)
  await page.keyboard.press('Escape')
  await expect(page.getByRole('article')).toHaveCount(3)

  await page.getByRole('button', { name: `More for ${before[0]}` }).click()
  await page.getByRole('menuitem', { name: 'Lay it later' }).locator('visible=true').click()
  await expect.poll(names).toEqual([before[1], before[0], before[2]])
  // Dragged by its grip from the third place over the second to the first.
  await page.getByRole('article').nth(2).hover()
  await page.getByRole('article').nth(2).locator('.grip').hover()
  await page.mouse.down()
  const first = await page.getByRole('article').nth(0).boundingBox()
  if (!first) throw new Error('no card')
  await page.mouse.move(first.x + 1.5 * first.width, first.y + 60, { steps: 8 })
  await page.mouse.move(first.x + 30, first.y + 60, { steps: 20 })
  await page.mouse.move(first.x + 20, first.y + 62, { steps: 4 })
  await page.mouse.up()
  await expect.poll(names).toEqual([before[2], before[1], before[0]])
  await page.reload()
  await expect.poll(names).toEqual([before[2], before[1], before[0]])

  await page.getByRole('button', { name: 'as one strip' }).first().click()
  await expect(page.getByRole('listitem')).toHaveCount(3)
  await page.getByRole('listitem').nth(0).getByRole('link').click()
  await expect(page.getByRole('heading', { name: before[2] })).toBeVisible()
})

test('what is removed lies in the bin: found by name, put back with all that was drawn, or thrown away for good', async ({
  page,
  newWorld,
}) => {
  const world = await newWorld()
  await enter(page, world)
  await newShot(page, world, { name: 'Ripples' })
  await newShot(page, world, { name: 'Reeds' })
  await page.goto(`${world.url}/shelf`)
  for (const name of ['Ripples', 'Reeds']) {
    await page.getByRole('button', { name: `More for ${name}` }).click()
    await page.getByRole('menuitem', { name: 'Remove' }).locator('visible=true').click()
    await expect(page.getByRole('article').filter({ hasText: name })).toHaveCount(0)
  }
  await page.keyboard.press('b')
  await expect(page).toHaveURL(/\/bin$/)
  await expect(page.getByRole('listitem')).toHaveCount(2)
  await expect(page.getByRole('listitem').first()).toContainText('for 30 more days')
  await page.getByRole('textbox', { name: 'Find in the bin by name' }).fill('rip')
  await expect(page.getByRole('listitem')).toHaveCount(1)
  await page.getByRole('button', { name: 'Put Ripples back' }).click()
  await expect(page.getByText('Nothing of that name lies here.')).toBeVisible()
  await page.getByRole('textbox', { name: 'Find in the bin by name' }).fill('')
  await page.getByRole('button', { name: 'Throw Reeds away for good' }).click()
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('listitem')).toHaveCount(1)
  await page.getByRole('button', { name: 'empty the bin' }).click()
  await page.getByRole('button', { name: 'Empty the bin', exact: true }).click()
  await expect(page.getByText('Films and shots that are removed stay for 30 days.')).toBeVisible()
  await page.getByRole('link', { name: 'Shelf' }).click()
  await expect(page.getByRole('article')).toHaveCount(1)
  await expect(page.getByRole('article')).toContainText('Ripples')
})
