import { zipSync } from 'fflate'
import type { Page } from 'playwright/test'
import { bringIn, documentNow, enter, expect, newShot, openDesk, safe, sheetOf, stored, test } from './world.ts'

test.describe.configure({ timeout: 90_000 })

// Somebody listens all the time: what begins and ends with each press comes too late now and then.
test.beforeEach(({ page }) => void page.on('filechooser', () => undefined))

interface Made {
  readonly name: string
  readonly mimeType: string
  readonly buffer: Buffer
}

/** A picture of the marsh, painted by the page: a pebble in a plain colour, see-through around it unless it is a JPEG. */
async function painted(page: Page, name: string, width: number, height: number, colour: string): Promise<Made> {
  const type = name.endsWith('.jpg') ? 'image/jpeg' : name.endsWith('.webp') ? 'image/webp' : 'image/png'
  const base64 = await page.evaluate(
    async ([w, h, fill, mime]) => {
      const canvas = new OffscreenCanvas(w, h)
      const brush = canvas.getContext('2d')!
      brush.fillStyle = fill
      brush.ellipse(w / 2, h / 2, w / 3, h / 3, 0, 0, 7)
      brush.fill()
      const bytes = new Uint8Array(await (await canvas.convertToBlob({ type: mime })).arrayBuffer())
      let text = ''
      for (const byte of bytes) text += String.fromCharCode(byte)
      return btoa(text)
    },
    [width, height, colour, type] as const,
  )
  return { name, mimeType: type, buffer: Buffer.from(base64, 'base64') }
}
const file = (name: string, ...parts: (string | number[])[]): Made => ({
  name,
  mimeType: 'application/octet-stream',
  buffer: Buffer.concat(
    parts.map(part => (typeof part === 'string' ? Buffer.from(part, 'latin1') : Buffer.from(part))),
  ),
})

const choose = (page: Page, files: readonly Made[]) => bringIn(page, ...files)
const question = (page: Page, name: string | RegExp) => page.getByRole('region', { name })
/** The colour of a place of the paper as it is seen, at shares of its size. */
const seen = (page: Page, x: number, y: number) =>
  page.evaluate(
    ([sx, sy]) => {
      const brush = new OffscreenCanvas(1, 1).getContext('2d', { willReadFrequently: true })!
      for (const canvas of document.querySelectorAll<HTMLCanvasElement>('main.paper canvas'))
        brush.drawImage(canvas, -Math.floor(canvas.width * sx), -Math.floor(canvas.height * sy))
      // To the nearest of sixteen steps: some forms of pictures are a little off.
      return [...brush.getImageData(0, 0, 1, 1).data].slice(0, 3).map(value => Math.round(value / 16))
    },
    [x, y] as const,
  )

test('a picture comes in as a background, others as drawings in counted order, one on a drawing; undone, reloaded, sent off', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 12, fps: 24, width: 640, height: 360 })
  await openDesk(page, world, shot)
  await choose(page, [await painted(page, 'hill.jpg', 1280, 720, '#3c6a55')])
  await expect(question(page, 'hill.jpg')).toContainText('1280 × 720 px.')
  await question(page, 'hill.jpg').getByRole('button', { name: 'as a background of its own, to the end' }).click()
  const behind = await documentNow(page, world, shot)
  const hill = Object.entries(behind.layers).find(([, layer]) => layer.name === 'hill')!
  expect([hill[1].kind, sheetOf(behind, hill[0])]).toEqual(['background', '1×12'])
  await expect.poll(() => seen(page, 0.5, 0.5)).toEqual([4, 7, 5])

  // Several at once, by the names they have; of a zip what is packed in it.
  await page
    .getByRole('button', { name: /^figure/ })
    .first()
    .click()
  await page.keyboard.press('Home')
  const [one, two, ten] = await Promise.all(
    ['1', '2', '10'].map((n, i) => painted(page, `pebble ${n}.png`, 60 + 20 * i, 40, '#b0552a')),
  )
  const zip = file('pebbles.zip', [
    ...zipSync({ 'a/pebble 10.png': ten!.buffer, 'a/pebble 2.png': two!.buffer, '__MACOSX/x.png': new Uint8Array(4) }),
  ])
  await choose(page, [zip, one!])
  await question(page, '3 pictures')
    .getByRole('button', { name: 'as drawings from frame 1 on, on twos' })
    .press('Enter')
  const drawn = await documentNow(page, world, shot)
  expect(sheetOf(drawn)).toBe('1×2 3×2 5×2 -×6')
  const widths = Object.values(drawn.drawings)
    .filter(drawing => drawing.layer === 'layer-1')
    .sort((a, b) => a.number - b.number)
    .flatMap(drawing =>
      Object.values(drawing.elements).map(element => (element as unknown as { widthPx: number }).widthPx),
    )
  expect(widths).toEqual([60, 80, 100])

  // On the drawing in hand it is gathered: moved by keys, dimmed by a number, each undone by itself.
  await choose(page, [await painted(page, 'moon.webp', 90, 90, '#f3dfa8')])
  await question(page, 'moon.webp').getByRole('button', { name: 'on 1' }).click()
  await expect(page.getByRole('region', { name: 'Gathered strokes' })).toContainText('1 picture on 1')
  await page.keyboard.press('Shift+ArrowRight')
  await page.getByLabel('Strength of the picture, %').fill('40')
  await page.keyboard.press('Enter')
  const moon = async () =>
    Object.values((await documentNow(page, world, shot)).drawings)
      .flatMap(
        drawing =>
          Object.values(drawing.elements) as unknown as { widthPx: number; opacity: number; matrix: number[] }[],
      )
      .find(element => element.widthPx === 90)
  await expect.poll(moon).toMatchObject({ opacity: 0.4, matrix: [1, 0, 0, 1, 285, 135] })
  await page.keyboard.press('q')
  await expect.poll(moon).toMatchObject({ opacity: 1, matrix: [1, 0, 0, 1, 285, 135] })
  // Cut by a number, and by a side on the paper; marked as standing for something, which the send-off tells.
  await page.getByLabel('Cut off, left, %').fill('50')
  await page.keyboard.press('Enter')
  await expect.poll(moon).toMatchObject({ cut: { left: 45, top: 0, right: 90, bottom: 90 } })
  await page.getByRole('button', { name: 'cut on the paper' }).click()
  await page.getByRole('button', { name: 'Upper side of the picture' }).focus()
  for (let i = 0; i < 2; i++) await page.keyboard.press('Shift+ArrowDown')
  await expect.poll(moon).toMatchObject({ cut: { left: 45, top: 20, right: 90, bottom: 90 } })
  await page.getByRole('button', { name: 'cut enough' }).click()
  await page.getByLabel('A placeholder').check()
  await expect.poll(moon).toMatchObject({ placeholder: true })
  await page.getByRole('link', { name: 'Send off', exact: true }).click()
  await expect(page.getByText('1 picture stands for something that is still to be drawn.')).toBeVisible()
  await page.getByRole('link', { name: 'Desk', exact: true }).click()
  for (let i = 0; i < 4; i++) await page.keyboard.press('q')
  await expect.poll(moon).toMatchObject({ cut: null, placeholder: false })
  await page.keyboard.press('q')
  await page.keyboard.press('q')
  await expect.poll(moon).toBeUndefined()
  await page.reload()
  await expect.poll(() => seen(page, 0.5, 0.5)).toEqual([11, 5, 3])
  await page.getByRole('link', { name: 'Flip', exact: true }).click()
  await expect(page.getByRole('main', { name: 'Takes' }).locator('canvas').first()).toBeVisible()
})

test('what is broken, huge, or none at all is told in a sentence, and the page lives on; a drawn text brings nothing that runs', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 12, fps: 24, width: 640, height: 360 })
  await openDesk(page, world, shot)
  const big = [0, 0, 0x75, 0x30]
  const head = [
    0x89,
    ...Buffer.from('PNG\r\n\x1a\n', 'latin1'),
    0,
    0,
    0,
    13,
    ...Buffer.from('IHDR'),
    ...big,
    ...big,
    8,
    6,
    0,
    0,
    0,
  ]
  const gif = [...Buffer.from('GIF89a'), 4, 0, 4, 0, 0x80, 0, 0, 0, 0, 0, 255, 255, 255]
  for (const [bad, why] of [
    [file('notes.png', 'these are words'), 'is no picture that can be brought in'],
    [file('huge.png', head, [0, 0, 0, 0]), 'is too large: 64 million pixels'],
    [
      file('cut.jpg', [0xff, 0xd8, 0xff, 0xe0, 0, 4, 0, 0, 0xff, 0xc0, 0, 17, 8, 0, 9, 0, 9, 3]),
      'is broken, or cut off',
    ],
    [file('endless.gif', gif), 'is broken, or cut off'],
    [file('empty.png'), 'has nothing in it'],
    [file('odd.zip', 'PK\x03\x04', [1, 2, 3]), 'is broken, or cut off'],
    [file('odd.svg', '<svg xmlns="http://www.w3.org/2000/svg"><g>'), 'is broken, or cut off'],
    [
      file(
        'laughs.svg',
        '<!DOCTYPE svg [<!ENTITY a "ha">]><svg xmlns="http://www.w3.org/2000/svg"><text>&a;</text></svg>',
      ),
      'is broken',
    ],
  ] as const) {
    await choose(page, [bad])
    await expect(page.getByText(`“${bad.name}” ${why}`)).toBeVisible()
    await expect(page.getByRole('region', { name: bad.name })).toBeHidden()
  }
  expect((await stored(page, world, shot)).seq).toBe(0)

  const asked: string[] = []
  page.on('request', request => asked.push(request.url()))
  await choose(page, [
    file(
      'reed.svg',
      `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="64" height="36" onload="window.ran = 1">
       <script>window.ran = 1</script><style>@import url(http://elsewhere.invalid/a.css);</style>
       <image href="http://elsewhere.invalid/b.png" width="64" height="36"/><rect width="64" height="36" fill="#3c6a55"/>
       <foreignObject width="9" height="9"><iframe src="http://elsewhere.invalid/c"/></foreignObject></svg>`,
    ),
  ])
  await question(page, 'reed.svg').getByRole('button', { name: 'only to be looked at' }).click()
  await expect.poll(() => seen(page, 0.5, 0.5)).toEqual([4, 7, 5])
  expect(await page.evaluate(() => (window as unknown as { ran?: number }).ran)).toBeUndefined()
  expect(asked.filter(url => url.includes('elsewhere'))).toEqual([])
  await safe(page)
})

/** Pictures of noise, which does not pack: each is more than a megabyte. */
async function noisy(page: Page, count: number): Promise<Made[]> {
  const all = await page.evaluate(async most => {
    const all: string[] = []
    for (let n = 0; n < most; n++) {
      const canvas = new OffscreenCanvas(640, 480)
      const brush = canvas.getContext('2d')!
      const image = brush.createImageData(640, 480)
      for (let at = 0; at < image.data.length; at += 65_536)
        crypto.getRandomValues(image.data.subarray(at, at + 65_536))
      for (let i = 3; i < image.data.length; i += 4) image.data[i] = 255
      brush.putImageData(image, 0, 0)
      const bytes = new Uint8Array(await (await canvas.convertToBlob()).arrayBuffer())
      let text = ''
      for (let at = 0; at < bytes.length; at += 8192) text += String.fromCharCode(...bytes.subarray(at, at + 8192))
      all.push(btoa(text))
    }
    return all
  }, count)
  return all.map((base64, i) => ({
    name: `noise ${i}.png`,
    mimeType: 'image/png',
    buffer: Buffer.from(base64, 'base64'),
  }))
}

test('many large pictures are one step all the same; drawn offline they wait, and go over when there is a server', async ({
  page,
  newWorld,
  quietConsole,
}) => {
  quietConsole.allowNetwork = true
  const world = await newWorld()
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 48, fps: 24, width: 640, height: 360 })
  await openDesk(page, world, shot)
  await choose(page, await noisy(page, 5))
  const many = question(page, '5 pictures').getByRole('button', { name: 'on a layer of their own, on twos' })
  await expect(many).toBeVisible()
  await world.kill()
  await many.click()
  await expect(page.getByRole('status').filter({ hasText: 'on this machine only' })).toBeVisible()
  await page.waitForTimeout(400)
  await world.start()
  await expect.poll(async () => Object.keys((await documentNow(page, world, shot)).drawings).length).toBe(5)
  await page.keyboard.press('q')
  await expect.poll(async () => Object.keys((await documentNow(page, world, shot)).drawings).length).toBe(0)
})

test('large pictures go over in pieces, told how far; cut off they go on, stopped they are set aside, and once here they are asked for no more', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 48, fps: 24, width: 640, height: 360 })
  await openDesk(page, world, shot)
  const [sent, fetched]: [string[], string[]] = [[], []]
  let mayPass = 2
  let waiting: () => void = () => undefined
  await page.route(/\/media\/[0-9a-f]{64}(\/\d+)?$/, async route => {
    const [method, url] = [route.request().method(), route.request().url()]
    if (method === 'GET') fetched.push(url)
    if (method !== 'PUT') return route.fallback()
    if (mayPass-- <= 0) await new Promise<void>(pass => (waiting = pass))
    sent.push(url.split('/media/')[1] ?? '')
    await route.fallback().catch(() => undefined)
  })
  await choose(page, await noisy(page, 3))
  await question(page, '3 pictures').getByRole('button', { name: 'on a layer of their own, on twos' }).click()
  const mark = page.getByRole('status').filter({ hasText: /^\s*sending [1-9]\d? %/ })
  await expect(mark).toBeVisible()
  await expect(mark).toHaveAttribute('title', /“3 pictures.*”: 4 MB on their way/)
  // The page goes away in the middle; what has arrived is not sent again.
  const before = new Set(sent)
  mayPass = Infinity
  await page.reload()
  waiting()
  await expect.poll(async () => Object.keys((await documentNow(page, world, shot)).drawings).length).toBe(3)
  expect(before.size).toBe(2)
  expect(sent.filter(piece => before.has(piece))).toHaveLength(2)

  // Somebody who has never seen them fetches each once; afterwards they are at hand.
  expect(fetched).toEqual([])
  const names = Object.values(
    (await (await page.request.get(`${world.url}/api/shots/${shot}/pictures`)).json()).pictures as object,
  )
  expect(new Set(names).size).toBe(3)
  await page.reload()
  await expect(page.locator('main.paper')).toBeVisible()
  await expect.poll(() => new Set(fetched).size).toBe(3)
  await page.reload()
  await expect(page.locator('main.paper')).toBeVisible()
  await page.waitForTimeout(500)
  expect(fetched).toHaveLength(3)

  // Stopped on the way: set aside, and what was done after it is stored.
  mayPass = 1
  await choose(page, await noisy(page, 3))
  await question(page, '3 pictures').getByRole('button', { name: 'on a layer of their own, on twos' }).click()
  await expect(mark).toBeVisible()
  await page.getByRole('button', { name: 'stop', exact: true }).click()
  mayPass = Infinity
  waiting()
  await expect(page.getByRole('button', { name: '1 set aside' })).toBeVisible()
  expect(Object.keys((await documentNow(page, world, shot)).drawings)).toHaveLength(3)
  await page.getByRole('button', { name: '1 set aside' }).click()
  const aside = page.getByRole('dialog')
  await expect(aside).toContainText('it was not to be sent any more')
  await aside.getByRole('button', { name: /again/ }).first().click()
  await expect.poll(async () => Object.keys((await documentNow(page, world, shot)).drawings).length).toBe(6)
})
