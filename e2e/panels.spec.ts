import AxeBuilder from '@axe-core/playwright'
import type { Locator, Page } from 'playwright/test'
import { expect, test, type World } from './world.ts'

test.describe.configure({ timeout: 240_000 })

/** What stands in the way of anyone on the screen as it is. */
async function blames(page: Page): Promise<string[]> {
  await page.waitForTimeout(350)
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    .analyze()
  return violations.map(
    v =>
      `${v.id}: ${v.nodes
        .map(node => node.target.join(' '))
        .slice(0, 4)
        .join(', ')}`,
  )
}

async function seated(page: Page, newWorld: (settings?: Record<string, string>) => Promise<World>): Promise<void> {
  const world = await newWorld({ DEMO: '1' })
  await page.goto(world.url)
  await page.getByRole('button', { name: 'Sit down' }).click()
  await page.getByRole('link', { name: 'Open Hop between lily pads' }).click()
  await expect(page.getByRole('main')).toBeVisible()
  await expect(page.locator('main.paper canvas').first()).toBeVisible()
}

test('every panel that can be opened on the desk can be read and reached by everyone', async ({ page, newWorld }) => {
  await seated(page, newWorld)
  const found: Record<string, string[]> = {}
  const look = async (name: string) => {
    const blamed = await blames(page)
    if (blamed.length) found[name] = blamed
  }
  const withKey = async (name: string, key: string, open: Locator) => {
    await page.keyboard.press(key)
    await expect(open, name).toBeVisible()
    await look(name)
    await page.keyboard.press('Escape')
    await expect(open, name).toBeHidden()
  }
  const { keyboard } = page
  for (const task of ['inbetween', 'paint', 'judge', 'draw']) {
    await page.locator('aside.margin').getByRole('radio', { name: task, exact: true }).first().click()
    await look(`margin: ${task}`)
  }
  for (const title of await page.locator('aside.margin button.title').all()) {
    if ((await title.getAttribute('aria-expanded')) === 'false') await title.click()
  }
  await look('all drawers open')

  await withKey('keys', '?', page.getByRole('dialog', { name: 'Keys' }))
  await withKey('marked frames', 'l', page.getByRole('dialog', { name: 'Marked frames' }))
  await withKey('history', 'Shift+E', page.getByRole('dialog', { name: /The making of/ }))
  await keyboard.press('o')
  await expect(page.getByRole('dialog', { name: 'Layers' })).toBeVisible()
  await look('layers')
  await page
    .getByRole('button', { name: /^More about/ })
    .first()
    .click()
  await look('more about a layer')
  await keyboard.press('Escape')
  await keyboard.press('Escape')

  await page.getByRole('button', { name: 'spacing …' }).click()
  await expect(page.getByRole('tooltip').or(page.locator('.el-popper:visible')).first()).toBeVisible()
  await look('spacing')
  await keyboard.press('Escape')

  await keyboard.press('j')
  await look('the whole sheet')
  await keyboard.press('j')
  await look('the sheet as a strip')
  await keyboard.press('j')

  for (const key of ['1', '2', 'Shift+C', '3', '4', '5', '`', '6', '7', '9', ';']) {
    await keyboard.press(key)
    const tip = page.locator('button.tip')
    if (await tip.isVisible()) await tip.click()
    await look(`tool on ${key}`)
    await keyboard.press('Escape')
  }
  await keyboard.press('1')
  await keyboard.press('Shift+A')
  await look('gathered')
  await keyboard.press('Escape')
  expect(found).toEqual({})
})

test('so can what is opened elsewhere', async ({ page, newWorld }) => {
  await seated(page, newWorld)
  const found: Record<string, string[]> = {}
  const look = async (name: string) => {
    const blamed = await blames(page)
    if (blamed.length) found[name] = blamed
  }
  await page.getByRole('link', { name: 'The Marsh Post' }).click()
  for (const [button, dialog] of [
    ['New shot', 'New shot'],
    ['tablet', /tablet/i],
  ] as const) {
    await page.getByRole('button', { name: button }).first().click()
    await expect(page.getByRole('dialog', { name: dialog })).toBeVisible()
    await look(String(button))
    await page.keyboard.press('Escape')
  }
  await page.keyboard.press('?')
  await look('keys of the shelf')
  expect(found).toEqual({})
})
