import AxeBuilder from '@axe-core/playwright'
import type { Locator, Page } from 'playwright/test'
import { drawer, expect, test, type World } from './world.ts'

test.describe.configure({ timeout: 240_000 })
// A dozen pictures that move beside each other take the machine from what is looked at.
test.use({ contextOptions: { reducedMotion: 'reduce' } })

/** What stands in the way of anyone in a part of the screen as it is. */
async function blames(page: Page, part: string): Promise<string[]> {
  await page.waitForTimeout(350)
  // There are no frames in frames: no second page is needed to put results together; and what is in order is not listed.
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({ resultTypes: ['violations'] })
    .include(part)
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
  const look = async (name: string, part: string) => {
    const blamed = await blames(page, part)
    if (blamed.length) found[name] = blamed
  }
  const withKey = async (name: string, key: string, open: Locator) => {
    await page.keyboard.press(key)
    await expect(open, name).toBeVisible()
    await look(name, '[role=dialog]')
    await page.keyboard.press('Escape')
    await expect(open, name).toBeHidden()
  }
  const { keyboard } = page
  // Every task has some of the same drawers open: all of them are looked at once.
  for (const title of await page.locator('aside.margin button.title').all()) {
    if ((await title.getAttribute('aria-expanded')) === 'false') await title.click()
  }
  await look('all drawers open', 'aside.margin')

  await withKey('keys', '?', page.getByRole('dialog', { name: 'Keys' }))
  await withKey('marked frames', 'l', page.getByRole('dialog', { name: 'Marked frames' }))
  await withKey('history', 'Shift+E', page.getByRole('dialog', { name: /The making of/ }))
  await keyboard.press('o')
  await expect(page.getByRole('dialog', { name: 'Layers' })).toBeVisible()
  await look('layers', '[role=dialog]')
  await page
    .getByRole('button', { name: /^More about/ })
    .first()
    .click()
  await look('more about a layer', '.el-popper[aria-hidden=false]')
  await keyboard.press('Escape')
  await keyboard.press('Escape')

  await page.getByRole('button', { name: 'spacing …' }).click()
  await expect(page.getByRole('tooltip').or(page.locator('.el-popper:visible')).first()).toBeVisible()
  await look('spacing', '.el-popper[aria-hidden=false]')
  await keyboard.press('Escape')

  for (const key of ['1', '2', 'Shift+C', '3', '4', '5', '`', '6', '7', '9', ';']) {
    await keyboard.press(key)
    const tip = page.locator('button.tip')
    if (!(await tip.isVisible())) continue
    await tip.click()
    // The one before it fades for a moment.
    await expect(page.locator('.el-popper[aria-hidden=false]')).toHaveCount(1)
    await look(`tool on ${key}`, '.el-popper[aria-hidden=false]')
    await keyboard.press('Escape')
  }
  await keyboard.press('1')
  await keyboard.press('Shift+A')
  await look('gathered', 'aside.margin')
  await keyboard.press('Escape')
  expect(found).toEqual({})
})

test('so can what is opened elsewhere', async ({ page, newWorld }) => {
  await seated(page, newWorld)
  const found: Record<string, string[]> = {}
  const look = async (name: string, part: string) => {
    const blamed = await blames(page, part)
    if (blamed.length) found[name] = blamed
  }
  await page.getByRole('link', { name: 'The Marsh Post' }).click()
  for (const [button, dialog] of [
    ['New shot', 'New shot'],
    ['tablet', /tablet/i],
  ] as const) {
    await page.getByRole('button', { name: button }).first().click()
    await expect(page.getByRole('dialog', { name: dialog })).toBeVisible()
    await look(String(button), '[role=dialog]')
    await page.keyboard.press('Escape')
  }
  await page.keyboard.press('?')
  await look('keys of the shelf', '[role=dialog]')
  await page.keyboard.press('Escape')
  // A shot with sound, and one with a clip that was read.
  await page.getByRole('link', { name: 'Open The stamp' }).click()
  await page.getByRole('link', { name: 'Plan' }).click()
  await expect(page.getByText('where it sets in')).toBeVisible()
  await look('sound', 'section[aria-label="Sound"]')
  await page.getByRole('link', { name: 'The Marsh Post' }).click()
  await page.getByRole('link', { name: 'Open Reed waltz' }).click()
  await (await drawer(page, 'Clip under the paper')).getByRole('button', { name: 'read its timing' }).click()
  await expect(page.getByText('30 drawings in 72 frames')).toBeVisible()
  await look('clip', 'aside.margin')
  await expect(await drawer(page, 'Followed points')).toContainText('when each part moves')
  await look('followed points', 'aside.margin')
  // Photographed sheets, at every step, and the camera.
  await page.keyboard.press('Shift+J')
  const work = page.getByRole('dialog', { name: 'Photographed sheets' })
  await look('no sheet yet', '[role=dialog]')
  const sheet = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(400, 300)
    const brush = canvas.getContext('2d')!
    brush.fillStyle = '#eee'
    brush.fillRect(0, 0, 400, 300)
    brush.fillStyle = '#222'
    brush.fillRect(120, 90, 160, 90)
    return [...new Uint8Array(await (await canvas.convertToBlob()).arrayBuffer())]
  })
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    work.getByRole('button', { name: 'add photographs' }).click(),
  ])
  await chooser.setFiles([{ name: 'sheet.png', mimeType: 'image/png', buffer: Buffer.from(sheet) }])
  await expect(work.getByRole('listitem')).toHaveCount(1)
  for (const step of ['1 · light and ink', '2 · drawings', '3 · on one another', '4 · onto the sheet']) {
    await work.getByRole('button', { name: step }).click()
    await look(step, '[role=dialog]')
  }
  await work.getByRole('button', { name: 'take by camera' }).click()
  await expect(work.getByRole('button', { name: 'take sheet 2' })).toBeEnabled()
  await look('camera', '[role=dialog]')
  expect(found).toEqual({})
})
