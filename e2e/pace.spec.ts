import { newLayer } from '@unhurried/core/document'
import { longestTask } from '../scripts/tasks.mjs'
import { commitOps, enter, expect, newShot, openDesk, safe, test } from './world.ts'

test.beforeEach(({ page, world }) => enter(page, world))

test('a sheet of 2,000 frames and 12 layers is scrolled and edited without a task over 50 ms', async ({
  page,
  world,
}) => {
  test.setTimeout(150_000)
  const shot = await newShot(page, world, { frames: 2000 })
  for (let l = 0; l < 11; l++) {
    const layer = `part-${l}`
    await commitOps(page, world, shot, [
      {
        kind: 'layer.add',
        layer: newLayer(layer, layer, l + 2),
      },
      ...Array.from({ length: 40 }, (_, i) => ({
        kind: 'drawing.add',
        drawing: {
          id: `${layer}-${i}`,
          layer,
          number: i + 1,
          role: i % 4 ? 'inbetween' : 'key',
          elements: {},
          marks: {},
        },
      })),
      {
        kind: 'exposure.write',
        take: 'take-1',
        layer,
        from: 0,
        runs: Array.from({ length: 1000 }, (_, f) => ({ drawing: `${layer}-${(f + l) % 40}`, frames: 2 })),
      },
    ])
  }
  await openDesk(page, world, shot)
  await page.keyboard.press('j')
  await expect(page.getByRole('button', { name: 'back to the paper' })).toBeVisible()
  await page.waitForTimeout(1200)
  const box = await page.locator('.sheet .rows').boundingBox()
  if (!box) throw new Error('no sheet')
  const turnAndEdit = async (): Promise<void> => {
    await page.mouse.move(box.x + 300, box.y + 300)
    for (let i = 0; i < 30; i++) {
      await page.mouse.wheel(0, i < 20 ? 1400 : -900)
      await page.waitForTimeout(60)
    }
    await page.mouse.click(box.x + 500, box.y + 300)
    for (const key of '= = - Shift+ArrowDown Shift+ArrowDown Shift+ArrowRight r Alt+1 i q q'.split(' ')) {
      await page.keyboard.press(key)
      await page.waitForTimeout(120)
    }
    await safe(page)
  }
  // Work is counted, not the time that passes: a machine shared with others stalls now and then. What a stall leaves
  // behind (cold caches) still costs some: of three rounds one must be free of long tasks.
  const rounds: number[] = []
  while (rounds.length < 3 && !rounds.some(workMs => workMs <= 50)) {
    rounds.push((await longestTask(page, turnAndEdit)).workMs)
  }
  const longest = rounds.map(Math.round).join(', ')
  test.info().annotations.push({ type: 'longest task of each round, ms', description: longest })
  expect(Math.min(...rounds), `longest tasks of the rounds: ${longest} ms`).toBeLessThanOrEqual(50)
  await page.keyboard.press('j')
})
