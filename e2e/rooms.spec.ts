import AxeBuilder from '@axe-core/playwright'
import type { Page } from 'playwright/test'
import { enter, expect, newShot, test, exposed } from './world.ts'

async function blames(page: Page): Promise<string[]> {
  await page.waitForTimeout(400)
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({ resultTypes: ['violations'] })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa'])
    .analyze()
  return violations.map(
    v =>
      `${v.id}: ${v.nodes
        .map(node => node.target.join(' '))
        .slice(0, 3)
        .join(', ')}`,
  )
}

test('the demo: every room shows the film, measured, and can be read and reached by everyone', async ({
  page,
  newWorld,
}) => {
  const world = await newWorld({ DEMO: '1' })
  await page.goto(world.url)
  await expect(page.getByLabel('E-mail')).toHaveValue('wilma@marsh-post.example')
  expect(await blames(page)).toEqual([])
  await page.getByRole('button', { name: 'Sit down' }).click()
  await expect(page.getByText('16 drawings, all drawn')).toBeVisible()
  // Cards are worked out once they are in sight.
  await page.getByRole('link', { name: 'Open A dropped acorn' }).scrollIntoViewIfNeeded()
  await expect(page.getByText('3 of 7 drawings, 4 to go')).toBeVisible()
  expect(await blames(page)).toEqual([])
  await page.getByRole('link', { name: 'Open Hop between lily pads' }).click()
  await expect(page.getByText(/11 lies at 0\.69, wanted 0\.75: \d+ px on/)).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('complementary', { name: 'Exposure sheet' })).toContainText(
    'first take · 30 frames · 1.25 s at 24, on twos · 16 drawings',
  )
  expect(await blames(page)).toEqual([])
  await page.keyboard.press('j')
  await expect(page.getByRole('button', { name: 'back to the paper' })).toBeVisible()
  await expect(page.getByText('Off, long and thin; floats a little at the top.')).toBeVisible()
  expect(await blames(page)).toEqual([])
  await page.keyboard.press('j')
  await page.keyboard.press('j')
  await page.getByRole('link', { name: 'Plan' }).click()
  await expect(page.getByRole('region', { name: 'Budget of drawings' })).toContainText('16 drawings, all drawn')
  expect(await blames(page)).toEqual([])
  await page.getByRole('link', { name: 'Flip' }).click()
  await page.getByRole('checkbox', { name: 'floats at the top' }).check()
  await expect(page.locator('figure.take').nth(1)).toContainText('3 frames longer; 9 held 3 frames longer')
  expect(await blames(page)).toEqual([])
  await page.getByRole('link', { name: 'Measure' }).click()
  const found = page.getByRole('complementary', { name: 'Findings' })
  await expect(found).toContainText('11 lies at 69 % of the way, planned 75 %')
  await page.keyboard.press('e')
  await expect(page).toHaveURL(/measure\?frame=11/)
  await expect(page.getByRole('region', { name: 'Plot' }).getByRole('status')).toContainText('planned 75')
  expect(await blames(page)).toEqual([])
  await page.getByRole('link', { name: 'Desk' }).click()
  await expect(page.getByTestId('paper')).toBeVisible()
  await page.keyboard.press('Home')
  await page.keyboard.press('g')
  await expect(page).toHaveURL(/frame=5/)
  await page.getByRole('link', { name: 'Send off' }).click()
  await expect(page).toHaveURL(/send-off\?frame=5/)
  await expect(page.getByText('8, 9, 8, 8, 9, 8, 8, 9, 8, 8, 9, 8, 8, 9 …')).toBeVisible()
  expect(await blames(page)).toEqual([])
})

test('an export is stopped at once, and nothing is offered to save', async ({ page, world }) => {
  await enter(page, world)
  const shot = await newShot(page, world, { width: 4000, height: 3000, frames: 400 })
  // Pictures that differ, so that making them all takes far longer than the hand does.
  await exposed(page, world, shot, 'A1b1c1d1e1f1g1h1i1j1k1l1m1n1o1p1q1r1s1t1')
  await page.goto(`${world.url}/shot/${shot}/send-off`)
  await page.getByText('numbered PNGs').click()
  await page.getByRole('spinbutton').fill('4000')
  await page.getByRole('spinbutton').press('Tab')
  await page.getByRole('button', { name: 'Make the PNGs' }).click()
  await page.getByRole('button', { name: 'Stop' }).click()
  await expect(page.getByRole('button', { name: 'Make the PNGs' })).toBeVisible()
  await expect(page.getByRole('link', { name: /^Save/ })).toHaveCount(0)
})

test('shots are renamed, duplicated, removed and put back; wrong wishes are named', async ({ page, newWorld }) => {
  const world = await newWorld()
  await enter(page, world)
  await newShot(page, world, { name: 'Ripples' })
  await page.goto(`${world.url}/shelf`)
  const card = page.getByRole('article').filter({ hasText: 'Ripples' }).first()
  await expect(card).toContainText('nothing drawn yet')
  await card.getByRole('button', { name: 'More for Ripples' }).click()
  await page.getByRole('menu', { name: 'More for Ripples', exact: true }).getByText('Duplicate').click()
  await expect(page.getByText('Ripples (copy)')).toBeVisible()
  await page.getByRole('button', { name: 'More for Ripples (copy)' }).click()
  await page.getByRole('menu', { name: 'More for Ripples (copy)' }).getByText('Remove').click()
  await expect(page.getByRole('article').filter({ hasText: 'Ripples (copy)' })).toHaveCount(0)
  await page.getByRole('button', { name: 'put it back' }).click()
  await expect(page.getByRole('article').filter({ hasText: 'Ripples (copy)' })).toHaveCount(1)
  await page.getByRole('button', { name: 'More for Ripples (copy)' }).click()
  await page.getByRole('menu', { name: 'More for Ripples (copy)' }).getByText('Rename').click()
  const box = page.getByRole('dialog').getByRole('textbox')
  await box.fill('  ')
  await expect(page.getByText('A name, please.')).toBeVisible()
  await box.fill('Moth loop')
  await page.getByRole('button', { name: 'Rename', exact: true }).click()
  await expect(page.getByRole('article').filter({ hasText: 'Moth loop' })).toHaveCount(1)

  await page.getByRole('button', { name: 'new shot', exact: true }).first().click()
  await page.getByPlaceholder('36 or 1.5 s').fill('2.5 f')
  await expect(page.getByText('Frames come whole.').first()).toBeVisible()
  await page.getByRole('button', { name: 'Lay it on the desk' }).click()
  await expect(page.getByText('A shot needs a name.')).toBeVisible()
})

test('an address that leads nowhere, and a shot that is not there, are told in words', async ({
  page,
  world,
  quietConsole,
}) => {
  quietConsole.allowNetwork = true
  await enter(page, world)
  await page.goto(`${world.url}/attic`)
  await expect(page.getByText('There is no such room.')).toBeVisible()
  await page.goto(`${world.url}/shot/00000000-0000-4000-8000-000000000000/desk`)
  await expect(page.getByText('There is no such shot.')).toBeVisible()
  await page.goto(`${world.url}/shot/constructor/desk`)
  await expect(page.getByText('This shot cannot be opened.')).toBeVisible()
})

test('signed out, one comes back to the room one wanted', async ({ page, world, quietConsole }) => {
  quietConsole.allowNetwork = true
  await enter(page, world)
  const shot = await newShot(page, world)
  await page.request.delete(`${world.url}/api/session`)
  await page.goto(`${world.url}/shot/${shot}/desk?frame=3`)
  await page.getByLabel('E-mail').fill('otter@marsh-post.example')
  await page.getByLabel('Password').fill('wrong')
  await page.getByRole('button', { name: 'Sit down' }).click()
  await expect(page.getByRole('alert')).toHaveText('E-mail address and password do not belong together.')
  await page.getByLabel('Password').fill('under-the-lily-pads')
  await page.getByRole('button', { name: 'Sit down' }).click()
  await expect(page).toHaveURL(new RegExp(`${shot}/desk\\?frame=3`))
})
