import {
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
  watchConsole,
} from './world.ts'

test('with no server at all the desk opens, reloads, and is drawn on; what was drawn goes over when there is one again', async ({
  browser,
  newWorld,
}) => {
  const world = await newWorld()
  const context = await browser.newContext({ serviceWorkers: 'allow', viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  const heard: string[] = []
  watchConsole(page, heard)
  await enter(page, world)
  const shot = await newShot(page, world, { name: 'Pond at night' })
  await page.goto(`${world.url}/shelf`)
  // The application is on this machine once its worker is in charge of the page.
  await page.evaluate(async () => void (await navigator.serviceWorker.ready))
  await openDesk(page, world, shot)
  await pen(page, ring(0.3, 0.4, 0.1))
  await safe(page)
  // As it was opened it is kept when the desk is quiet; what comes after, at once.
  await page.waitForTimeout(3500)
  await pen(page, ring(0.6, 0.4, 0.1))
  await safe(page)
  // A model sheet of the film, of this very drawing.
  const beside = await drawer(page, 'Beside the paper')
  await beside.getByLabel('Name of a new model sheet').fill('Heron')
  await beside.getByRole('button', { name: 'new sheet' }).click()
  await beside.getByRole('button', { name: 'this drawing as its front' }).click()
  await expect(beside.getByRole('button', { name: 'Heron beside the paper' })).toBeVisible()
  await safe(page)
  await page.waitForTimeout(1500)
  await world.kill()

  await page.reload()
  await expect(page.getByText('this is the shot as it was last seen on this machine')).toBeVisible()
  // It is looked at without the server; what is changed of it is refused in words, and nothing is lost.
  const asSeen = await drawer(page, 'Beside the paper')
  await expect(asSeen).toContainText('as they were last seen here')
  await asSeen.getByRole('button', { name: 'Heron beside the paper' }).click()
  await expect(page.getByRole('region', { name: /^Heron/ }).locator('canvas')).toBeVisible()
  const strokes = () =>
    page.evaluate(() => {
      const copy = document.querySelectorAll<HTMLCanvasElement>('main.paper canvas')[2]
      const data = copy?.getContext('2d')?.getImageData(0, 0, copy.width, copy.height).data ?? []
      let [left, right] = [0, 0]
      for (let i = 3; i < data.length; i += 4) {
        if ((data[i] as number) <= 200) continue
        if ((i / 4) % (copy?.width ?? 1) < (copy?.width ?? 0) / 2) left++
        else right++
      }
      return [left > 200, right > 200]
    })
  await expect.poll(strokes).toEqual([true, true])
  await pen(page, ring(0.45, 0.7, 0.1))
  await expect(page.getByRole('status').filter({ hasText: /on this machine/ })).toBeVisible()
  await page.reload()
  await expect(page.getByTestId('paper')).toBeVisible()
  await page.getByRole('link', { name: 'Back to the shelf' }).or(page.locator('a.film')).first().click()
  const here = page.getByRole('region', { name: 'On this machine' })
  await expect(here.getByRole('link', { name: 'Pond at night' })).toBeVisible()
  await here.getByRole('link', { name: 'Pond at night' }).click()
  await expect(page.getByTestId('paper')).toBeVisible()

  await world.start()
  await expect(page.getByRole('status').filter({ hasText: /^\s*safe\s*$/ })).toBeVisible({ timeout: 40_000 })
  expect(strokesIn((await stored(page, world, shot)).document)).toBe(3)
  // Who signs out leaves nothing of the shot on this machine.
  await page.goto(`${world.url}/shelf`)
  await page.getByRole('button', { name: 'sign out' }).click()
  await expect(page.getByRole('button', { name: 'Sit down' })).toBeVisible()
  const left = await page.evaluate(
    () =>
      new Promise<number>(done => {
        const open = indexedDB.open('unhurried-sketch')
        open.onsuccess = () => {
          const tx = open.result.transaction(['copies', 'media'])
          const counts = ['copies', 'media'].map(name => tx.objectStore(name).count())
          const kept = Object.keys(localStorage).filter(key => key.startsWith('models '))
          tx.oncomplete = () => done(counts.reduce((sum, count) => sum + count.result, kept.length))
        }
      }),
  )
  expect(left).toBe(0)
  expect(heard.filter(words => !/Failed to load resource|net::ERR_|EventSource/.test(words))).toEqual([])
  await context.close()
})
