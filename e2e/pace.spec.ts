import { newLayer } from '@unhurried/core/document'
import { longestTask } from '../scripts/tasks.mjs'
import { bring, plan, sound, steps, wav } from './sounds.ts'
import { commitOps, enter, expect, newShot, openDesk, pen, ring, safe, test } from './world.ts'

test.beforeEach(({ page, world }) => enter(page, world))
// Somebody listens all the time: what begins and ends with each press comes too late now and then.
test.beforeEach(({ page }) => void page.on('filechooser', () => undefined))

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

test('what is heard and what is seen stay together, loop after loop and at half speed; a frame gone over is heard', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 24 })
  await plan(page, world, shot)
  await bring(page, { ...steps, buffer: wav(1, [0.5]) })
  await expect(sound(page).getByRole('button', { name: /^steps in the reeds, from/ })).toBeVisible()
  await safe(page)
  // What is told to the loudspeaker, and when by its clock.
  await page.addInitScript(() => {
    const told: { when: number; offset: number; seconds: number; rate: number }[] = []
    const contexts: AudioContext[] = []
    Object.assign(globalThis, { told, contexts })
    const start = AudioBufferSourceNode.prototype.start
    AudioBufferSourceNode.prototype.start = function (when = 0, offset = 0, seconds = 0) {
      told.push({ when, offset, seconds, rate: this.playbackRate.value })
      if (!contexts.includes(this.context as AudioContext)) contexts.push(this.context as AudioContext)
      start.call(this, when, offset, seconds)
    }
  })
  await openDesk(page, world, shot)
  await pen(page, ring(0.3, 0.5, 0.1))
  const told = () =>
    page.evaluate(() => (globalThis as never as { told: { when: number; offset: number; rate: number }[] }).told)
  // As soon as it is unpacked a frame that one goes to is heard.
  await expect(async () => {
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('ArrowDown')
    expect((await told()).length).toBeGreaterThan(0)
  }).toPass()
  expect((await told()).at(-1)!.offset).toBeCloseTo(1 / 24, 6)

  /**
   * How far the frame that is seen is from what is heard then, while it plays for a while; seconds, for nine frames in
   * ten: what a stall of the machine shows late is no drift.
   */
  const apart = (seconds: number, speed: number) =>
    page.evaluate(
      async ([long, share]) => {
        const { told: all, contexts } = globalThis as never as { told: { when: number }[]; contexts: AudioContext[] }
        const context = contexts[0]!
        const late = context.outputLatency || context.baseLatency || 0
        const end = performance.now() + long * 1000
        let last = ''
        const off: number[] = []
        const began = all[0]!.when
        while (performance.now() < end) {
          await new Promise(done => requestAnimationFrame(done))
          const number = document.querySelector('.nrs .here')?.textContent ?? ''
          if (number === last) continue
          last = number
          const heard = (context.currentTime - began - late) * 24 * share
          const behind = ((((heard - (Number(number) - 1) + 12) % 24) + 24) % 24) - 12
          off.push(Math.abs(behind - 0.5) - 0.5)
        }
        off.sort((a, b) => a - b)
        return { seconds: off[Math.floor(off.length * 0.9)]! / 24 / share, seen: off.length }
      },
      [seconds, speed] as const,
    )
  await page.keyboard.press('Home')
  await page.waitForTimeout(200)
  await page.evaluate(() => (globalThis as never as { told: unknown[] }).told.splice(0))
  await page.keyboard.press('Space')
  await expect.poll(async () => (await told()).length).toBeGreaterThan(0)
  const whole = await apart(4, 1)
  expect(whole.seen).toBeGreaterThan(12)
  expect(whole.seconds).toBeLessThan(0.05)
  // Each turn is told to the loudspeaker exactly a second after the one before, none twice.
  const turns = (await told()).map(one => one.when)
  turns.slice(1).forEach((when, i) => expect(when - turns[i]!).toBeCloseTo(1, 6))
  await page.keyboard.press('Space')
  await expect.poll(() => page.evaluate(() => document.querySelector('.nrs .here')?.textContent)).not.toBe('')

  // Silenced, nothing more is told; that stands among what is still in force.
  await page.keyboard.press('Shift+N')
  const quiet = (await told()).length
  await page.keyboard.press('Space')
  await page.waitForTimeout(600)
  await page.keyboard.press('Space')
  expect((await told()).length).toBe(quiet)
  await page
    .getByRole('complementary', { name: 'Still in force' })
    .getByRole('button', { name: 'nothing is heard' })
    .click()

  // In Flip at half speed it keeps its pitch: another recording twice as long, at its own rate.
  await page.getByRole('link', { name: 'Flip' }).click()
  await expect(page.getByRole('region', { name: 'Playing' })).toBeVisible()
  await page.keyboard.press('2')
  await expect(page.getByRole('switch', { name: 'keep its pitch' })).toBeChecked()
  await page.keyboard.press('Space')
  await expect.poll(async () => (await told()).length).toBeGreaterThan(quiet)
  expect((await told()).at(-1)!.rate).toBe(1)
  await page.keyboard.press('Space')
})
