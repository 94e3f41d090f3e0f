import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { Page } from 'playwright/test'
import { packSamples } from '@unhurried/core/geometry'
import {
  commitOps,
  dash,
  documentNow,
  enter,
  expect,
  exposed,
  newShot,
  openDesk,
  pen,
  postBatches,
  safe,
  stored,
  strokesIn,
  test,
  type World,
} from './world.ts'

test('whatever stands in between answers for a while, no stroke is given up', async ({ page, world, quietConsole }) => {
  quietConsole.allowNetwork = true
  await enter(page, world)
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  const statuses = [413, 403, 404, 400, 413]
  for (let i = 0; i < 40; i++) {
    if (i === 10) {
      await page.route('**/journal', route =>
        route.fulfill({ status: statuses[i % statuses.length] ?? 413, contentType: 'text/html', body: '<h1>No</h1>' }),
      )
    }
    if (i === 25) await page.unroute('**/journal')
    await pen(page, dash(i))
  }
  await safe(page)
  expect(strokesIn((await stored(page, world, shot)).document)).toBe(40)
  await expect(page.getByRole('button', { name: /set aside/ })).toHaveCount(0)
})

test('what the server will not take is set aside with its picture: laid down again, saved, opened, let go', async ({
  page,
  world,
  quietConsole,
}) => {
  quietConsole.allowNetwork = true
  await enter(page, world)
  const shot = await newShot(page, world)
  await exposed(page, world, shot, 'A4 b4')
  await openDesk(page, world, shot)
  // Another desk takes the drawing away while this one is cut off.
  await page.route('**/journal', route => route.abort())
  await pen(page, dash(0))
  await pen(page, dash(3))
  await expect(page.getByRole('status').filter({ hasText: 'on this machine only' })).toBeVisible()
  const nothing = [{ drawing: null, frames: 4 }]
  await commitOps(page, world, shot, [
    { kind: 'exposure.write', take: 'take-1', layer: 'layer-1', from: 0, runs: nothing },
    { kind: 'drawing.remove', id: 'layer-1-A' },
  ])
  await page.unroute('**/journal')
  await safe(page)
  const mark = page.getByRole('button', { name: '2 set aside' })
  await expect(mark).toBeVisible()
  // A reload keeps it.
  await page.reload()
  await mark.click()
  const panel = page.getByRole('dialog', { name: 'Set aside' })
  await expect(panel.getByText('another desk got there first: that drawing is gone')).toHaveCount(2)
  await expect(panel.locator('canvas')).toHaveCount(2)

  const [file] = await Promise.all([
    page.waitForEvent('download'),
    panel.getByRole('button', { name: 'save as a file' }).first().click(),
  ])
  const path = await file.path()
  await panel.getByRole('button', { name: 'let it go' }).first().click()
  await page.getByRole('button', { name: 'keep it after all' }).click()
  await expect(panel.locator('li')).toHaveCount(2)
  await panel.getByRole('button', { name: 'let it go' }).last().click()
  await expect(panel.locator('li')).toHaveCount(1)
  await panel.locator('input[type=file]').setInputFiles(path)
  await expect(panel.locator('li')).toHaveCount(2)
  await panel
    .locator('input[type=file]')
    .setInputFiles({ name: 'other.json', mimeType: 'application/json', buffer: Buffer.from('{"kind":"x"}') })
  await expect(page.getByText(/other\.json cannot be opened/)).toBeVisible()

  // The drawing is gone, so its strokes go onto the one in the hand.
  await page.keyboard.press('Escape')
  await page.goto(`${world.url}/shot/${shot}/desk?frame=6`)
  await page.getByRole('button', { name: '2 set aside' }).click()
  await panel.getByRole('button', { name: 'lay all down again' }).click()
  await expect(panel).toBeHidden()
  const { drawings } = await documentNow(page, world, shot)
  expect(Object.values(drawings).map(d => [d.number, Object.keys(d.elements).length])).toEqual([[5, 2]])
  await expect(page.getByRole('button', { name: /set aside/ })).toHaveCount(0)
})

/** Draws so many strokes, of the first of which a copy of the database is kept; answers with the shot. */
async function drawPastACopy(page: Page, world: World, kept: number, all: number): Promise<string> {
  await enter(page, world)
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  for (let i = 0; i < kept; i++) await pen(page, dash(i))
  await safe(page)
  await world.stop()
  await world.keepCopy()
  await world.start()
  for (let i = kept; i < all; i++) await pen(page, dash(i))
  await safe(page)
  return shot
}

test('a database put back to an earlier copy: the open desk notices, and sends all it has seen', async ({
  page,
  newWorld,
  quietConsole,
}) => {
  quietConsole.allowNetwork = true
  const world = await newWorld()
  const shot = await drawPastACopy(page, world, 4, 9)
  expect(strokesIn((await stored(page, world, shot)).document)).toBe(9)
  await world.stop()
  await world.putBack()
  await world.start()
  await pen(page, dash(9))
  await expect.poll(async () => strokesIn((await stored(page, world, shot)).document), { timeout: 30_000 }).toBe(10)
  await safe(page)
  await expect(page.getByRole('button', { name: /set aside/ })).toHaveCount(0)
})

test('what a desk found there when it was opened, and an earlier copy does not have, is set aside', async ({
  page,
  newWorld,
  quietConsole,
}) => {
  quietConsole.allowNetwork = true
  const world = await newWorld()
  const shot = await drawPastACopy(page, world, 3, 8)
  await page.reload()
  await expect(page.getByTestId('paper')).toBeVisible()
  await world.stop()
  await world.putBack()
  await world.start()
  await pen(page, dash(9))
  await page.getByRole('button', { name: '1 set aside' }).click({ timeout: 30_000 })
  const panel = page.getByRole('dialog', { name: 'Set aside' })
  await expect(panel.getByText('earlier copy of this shot does not have it')).toBeVisible()
  await panel.getByRole('button', { name: 'lay it down again' }).click()
  await expect(panel.getByText('Nothing is set aside.')).toBeVisible()
  await safe(page)
  expect(strokesIn((await stored(page, world, shot)).document)).toBe(9)
})

test('a desk that was refused to listen for a moment listens again', async ({ page, world, quietConsole }) => {
  quietConsole.allowNetwork = true
  await enter(page, world)
  const shot = await newShot(page, world)
  await exposed(page, world, shot, 'A4')
  await page.route('**/events', route =>
    route.fulfill({ status: 503, json: { code: 'busy', message: 'no', details: [] } }),
  )
  await openDesk(page, world, shot)
  await page.unroute('**/events')
  await expect(page.getByText(/frames 1–4/)).toBeVisible()
  await commitOps(page, world, shot, [{ kind: 'frames.insert', take: 'take-1', at: 2, count: 3, fill: {} }])
  await expect(page.getByText(/frames 1–7/)).toBeVisible({ timeout: 20_000 })
})

test('a page on another port changes nothing, and reads nothing', async ({ page, world, context, quietConsole }) => {
  quietConsole.allowNetwork = true
  await enter(page, world)
  const shot = await newShot(page, world)
  const elsewhere = createServer((_, res) => {
    res.setHeader('Content-Type', 'text/html')
    res.end('<title>elsewhere</title>')
  }).listen(0, '127.0.0.1')
  await new Promise(done => elsewhere.once('listening', done))
  const other = await context.newPage()
  await other.goto(`http://127.0.0.1:${(elsewhere.address() as AddressInfo).port}/`)
  const before = await stored(page, world, shot)
  const tried = await other.evaluate(
    async ([url, id]) => {
      const paths = [
        `/api/shots/${id}/remove`,
        `/api/shots/${id}`,
        '/api/films',
        `/api/shots/${id}/journal`,
        '/api/session',
      ]
      const ways: RequestInit[] = [
        { method: 'POST', mode: 'no-cors', credentials: 'include', body: '{"name":"x"}' },
        { method: 'DELETE', credentials: 'include' },
        { method: 'GET', mode: 'no-cors', credentials: 'include' },
        { method: 'POST', credentials: 'include', headers: { 'Content-Type': 'application/json' }, body: '{}' },
      ]
      const read: string[] = []
      for (const path of paths) {
        for (const way of ways) {
          await fetch(`${url}${path}`, way)
            .then(async reply => read.push(await reply.text()))
            .catch(() => undefined)
        }
      }
      const form = Object.assign(document.createElement('form'), {
        method: 'post',
        action: `${url}/api/shots/${id}/remove`,
      })
      document.body.append(form)
      form.submit()
      return read.join('')
    },
    [world.url, shot] as const,
  )
  await other.waitForURL(/remove$/)
  await expect(other.locator('body')).toContainText('wrong-origin')
  expect(tried).toBe('')
  expect(await stored(page, world, shot)).toEqual(before)
  const { films } = await (await page.request.get(`${world.url}/api/shelf`)).json()
  expect(films.some((film: { name: string }) => film.name === 'x')).toBe(false)
  elsewhere.close()
})

test('one stroke that would take for ever to paint hangs neither the shelf nor plan and flip', async ({
  page,
  newWorld,
}) => {
  const world = await newWorld()
  await enter(page, world)
  const good = await newShot(page, world, { name: 'Reed' })
  await openDesk(page, world, good)
  await pen(page, dash(2))
  await safe(page)
  const bad = await newShot(page, world, { name: 'Hostile' })
  // Very many strokes that share one very long sample, under the largest map, with the softest brush.
  const points = Array.from({ length: 50_000 }, (_, i) => ({
    x: i % 2 ? 90_000 : -90_000,
    y: (i * 7) % 600,
    pressure: 1,
  }))
  const samples = { long: Buffer.from(packSamples(points)).toString('base64') }
  const element = (i: number) => ({
    id: `e${i}`,
    kind: 'line',
    z: i,
    samples: 'long',
    part: null,
    matrix: [10_000, 0, 0, 10_000, 0, 0],
    swatch: 'graphite',
    width: 0.0001,
    nib: { look: i % 2 ? 'brush' : 'pencil', ends: 'round', thinning: 0.62 },
    label: null,
  })
  await exposed(page, world, bad, 'A12 b12')
  const elements = Array.from({ length: 400 }, (_, i) => element(i))
  await postBatches(page, world, bad, [{ kind: 'elements.add', drawing: 'layer-1-A', elements }], samples)

  await page.goto(`${world.url}/shelf`)
  const card = (name: string) => page.locator('article', { hasText: name })
  await expect(card('Reed').locator('canvas')).toBeVisible({ timeout: 20_000 })
  await expect(card('Hostile').getByText('too much on it to be painted small')).toBeVisible({ timeout: 20_000 })
  // The page is free all the while.
  const turns = await page.evaluate(
    () =>
      new Promise<number>(done => {
        let count = 0
        const from = performance.now()
        const tick = () => (count++, performance.now() - from < 500 ? requestAnimationFrame(tick) : done(count))
        tick()
      }),
  )
  expect(turns).toBeGreaterThan(10)
  await page.goto(`${world.url}/shot/${bad}/flip?frame=1`)
  await expect(page.getByRole('main', { name: 'Takes' })).toBeVisible()
  await page.getByRole('link', { name: 'Plan' }).click()
  await expect(page.getByRole('main', { name: 'Plan' })).toBeVisible()
})
