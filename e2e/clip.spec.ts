import { unzipSync } from 'fflate'
import * as gifenc from 'gifenc'
import { readFileSync } from 'node:fs'
import type { Page } from 'playwright/test'
import UPNG from 'upng-js'
import { reedLine, WALTZ_POSES } from '../packages/server/src/demo/reeds.ts'
import { bringIn, documentNow, drawer, enter, expect, newShot, openDesk, pen, ring, safe, test } from './world.ts'

test.describe.configure({ timeout: 90_000 })
// Somebody listens all the time: what begins and ends with each press comes too late now and then.
test.beforeEach(({ page }) => void page.on('filechooser', () => undefined))

/** The made-up film of the demo: 72 frames at 24, thirty poses on ones, twos, threes and holds; noisy, and packed small. */
const FILM = readFileSync(new URL('../packages/server/src/demo/reedWaltz.webm', import.meta.url))
const HOLDS = [3, 2, 2, 1, 1, 2, 6, 2, 2, 1, 1, 1, 3, 2, 2, 8, 1, 1, 2, 2, 2, 3, 2, 2, 1, 1, 6, 2, 2, 6]
const reeds = { name: 'reeds at the lock.webm', mimeType: 'video/webm', buffer: FILM }

/** A moving picture of grey sheets, each of a shade (0–255) for so many milliseconds. */
function moved(sheets: readonly (readonly [shade: number, ms: number])[]): Buffer {
  // Outside a browser the package comes as one thing.
  const { GIFEncoder } = 'default' in gifenc ? (gifenc.default as typeof gifenc) : gifenc
  const moving = GIFEncoder()
  for (const [shade, delay] of sheets) {
    const palette: [number, number, number][] = [
      [shade, shade, shade],
      [0, 0, 0],
    ]
    const still = { delay, repeat: 0, transparent: false, transparentIndex: 0, dispose: -1 }
    moving.writeFrame(new Uint8Array(64 * 48), 64, 48, { palette, ...still })
  }
  moving.finish()
  return Buffer.from(moving.bytes())
}

/** How dark the paper is on the whole, 0–255, as it is seen. */
const darkness = (page: Page) =>
  page.evaluate(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('main.paper canvas')
    if (!canvas) return 0
    const small = new OffscreenCanvas(64, 36)
    const brush = small.getContext('2d', { willReadFrequently: true })!
    brush.drawImage(canvas, 0, 0, 64, 36)
    const { data } = brush.getImageData(0, 0, 64, 36)
    let sum = 0
    for (let i = 0; i < data.length; i += 4) sum += 255 - data[i + 1]!
    return sum / (data.length / 4)
  })

test('a clip lies under the paper, is read to the frame, traced on twos in one press, and its timing taken', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 72 })
  await openDesk(page, world, shot)
  const plain = await darkness(page)
  await bringIn(page, reeds)
  await safe(page)
  const note = await drawer(page, 'Clip under the paper')
  await expect(note).toContainText('picture 1 of 72 lies here')
  await expect.poll(() => darkness(page)).toBeGreaterThan(plain + 15)
  const clip = async () => Object.values((await documentNow(page, world, shot)).clips)[0]!
  expect(await clip()).toMatchObject({ name: 'reeds at the lock', widthPx: 480, heightPx: 270, from: 0, wash: 0.5 })

  // Paper alone by a key; that is told among what is still in force.
  await page.keyboard.press('Shift+G')
  await expect.poll(() => darkness(page)).toBeLessThan(plain + 3)
  await page
    .getByRole('complementary', { name: 'Still in force' })
    .getByRole('button', { name: 'clips are not seen' })
    .click()
  await expect.poll(() => darkness(page)).toBeGreaterThan(plain + 15)

  // Which picture lies under a frame: by seconds, from where it begins, at its speed.
  await page.keyboard.press('PageDown')
  await expect(note).toContainText('picture 25 of 72 lies here, 1.00 s')
  await note.getByLabel('Frame the clip begins on').fill('13')
  await note.getByLabel('Frame the clip begins on').press('Enter')
  await expect(note).toContainText('picture 13 of 72')
  await note.getByLabel('Clip its speed, ×').fill('2')
  await note.getByLabel('Clip its speed, ×').press('Enter')
  await expect(note).toContainText('picture 25 of 72')
  for (let i = 0; i < 2; i++) await page.keyboard.press('Control+z')
  await expect.poll(clip).toMatchObject({ from: 0, rate: 1 })

  // A word on the picture that lies here; it leads back to its frame.
  await note.getByLabel('Note on this picture of the clip').fill('all three lean to the left')
  await note.getByRole('button', { name: 'keep', exact: true }).click()
  await page.keyboard.press('PageUp')
  await note.getByRole('button', { name: /1\.00 s all three lean/ }).click()
  await expect(note).toContainText('picture 25 of 72')
  await note.getByRole('button', { name: 'Take the note “all three lean to the left” off' }).click()
  await expect.poll(async () => ((await clip()) as unknown as { notes: object[] }).notes).toEqual([])

  // Read: every frame rightly, in words and as a plot; a picture can be put right by hand.
  await note.getByRole('button', { name: 'read its timing' }).click()
  const count = (frames: number) => HOLDS.filter(hold => hold === frames).length
  await expect(note).toContainText(
    `30 drawings in 72 frames: ${count(2)} on twos, ${count(1)} on ones, ${count(3)} on threes`,
  )
  await expect(note).toContainText('4 holds (6, 8, 6, 6 frames)')
  await page.keyboard.press('ArrowDown')
  await note.getByRole('button', { name: 'a new drawing here' }).click()
  await expect(note).toContainText('31 drawings')
  await note.getByRole('button', { name: 'no new drawing here' }).click()
  await expect(note).toContainText('30 drawings')

  // Traced on twos: a layer over all with blank drawings that the queue asks for.
  await note.getByRole('button', { name: 'twos', exact: true }).click()
  await expect(note).toContainText('36 drawings on this layer not traced yet')
  await pen(page, ring(0.5, 0.5, 0.1))
  await expect(note).toContainText('35 drawings')
  const traced = async () => {
    const document = await documentNow(page, world, shot)
    const id = Object.keys(document.layers).find(layer => document.layers[layer]!.name === 'reeds at the lock traced')!
    return { document, id, column: document.takes[document.current]!.columns[id]! }
  }
  expect((await traced()).column.map(run => run.frames)).toEqual(Array.from({ length: 36 }, () => 2))

  // Its timing as a take: the drawings there are begin where the clip changes.
  // Its timing beside that of the layer, which was traced on twos; taken, they are the same.
  await expect(note).toContainText(/Below, .*: \d+ of its 36 drawings begin with the clip’s/)
  await note.getByRole('button', { name: 'take its timing' }).click()
  await expect(note).toContainText('it changes where the clip does.')
  await expect
    .poll(async () => (await traced()).document.takes[(await traced()).document.current]!.name)
    .toBe('as reeds at the lock')
  expect((await traced()).column.map(run => run.frames)).toEqual(HOLDS)

  // Undone step by step nothing is left; a reload in between loses nothing.
  await page.reload()
  await expect.poll(() => darkness(page)).toBeGreaterThan(plain + 5)
  await page.keyboard.press('Control+z')
  await page.getByRole('button', { name: 'undo it there' }).click()
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z')
  await expect.poll(async () => Object.keys((await documentNow(page, world, shot)).clips).length).toBe(0)
  await expect.poll(() => darkness(page)).toBeLessThan(plain + 3)
})

test('a film that is cut off or hostile is told in a sentence, and nothing is left half done', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 24 })
  await openDesk(page, world, shot)
  const told = (text: string) => expect(page.locator('.el-message').filter({ hasText: text }).first()).toBeVisible()
  const odd = (name: string, buffer: Buffer) => ({ name, mimeType: 'video/webm', buffer })
  await bringIn(page, odd('cut.webm', FILM.subarray(0, 900)))
  await told('“cut.webm”')
  await bringIn(page, odd('chance.webm', Buffer.concat([FILM.subarray(0, 4), Buffer.alloc(5000, 0x5a)])))
  await told('“chance.webm”')
  await bringIn(
    page,
    odd(
      'page.mp4',
      Buffer.concat([
        Buffer.from([0, 0, 0, 24]),
        Buffer.from('ftypisom'),
        Buffer.from('<script>alert(1)</script>'.repeat(9)),
      ]),
    ),
  )
  await told('“page.mp4”')
  const { clips, sounds } = await documentNow(page, world, shot)
  expect([Object.keys(clips), Object.keys(sounds)]).toEqual([[], []])
  // The page is alive, and draws.
  await pen(page, ring(0.4, 0.5, 0.1))
  await safe(page)
})

test('a point is followed through the clip to the pixel, put right by hand, told of, and its way drawn along', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 72 })
  await openDesk(page, world, shot)
  await bringIn(page, reeds)
  await expect(await drawer(page, 'Clip under the paper')).toContainText('picture 1 of 72 lies here')
  await safe(page)
  const note = await drawer(page, 'Followed points')
  const points = async () => Object.values((await documentNow(page, world, shot)).points)
  const clip = async () => Object.values((await documentNow(page, world, shot)).clips)[0]!
  const [a, , , d, e, f] = (await clip()).matrix
  /** A place of the clip on the screen. */
  const onScreen = async ({ x, y }: { x: number; y: number }) => {
    const box = (await page.getByTestId('paper').boundingBox())!
    const paper = (await documentNow(page, world, shot)).format
    const scale = Math.min((box.width - 52) / paper.width, (box.height - 52) / paper.height)
    const [left, top] = [(box.width - scale * paper.width) / 2, (box.height - scale * paper.height) / 2]
    return { x: box.x + left + scale * (a * x + e), y: box.y + top + scale * (d * y + f) }
  }
  const ask = async (name: string) => {
    await note.getByLabel('Name of a point to follow').fill(name)
    await note.getByRole('button', { name: 'follow', exact: true }).click()
  }
  const tip = (frame: number, reed: number) => reedLine(WALTZ_POSES[frame]!, reed).at(-1)!

  // Where all is alike nothing can be followed; Escape lets it be.
  await ask('sky')
  const sky = await onScreen({ x: 470, y: 20 })
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: /^Press where/ })).toHaveCount(0)
  await ask('sky')
  await page.mouse.click(sky.x, sky.y)
  await expect(page.getByText(/It is all alike there|is lost from/)).toBeVisible()
  for (const point of await points())
    await note.getByRole('button', { name: `Remove the followed point ${point.name}` }).click()
  await safe(page)

  for (const [reed, name] of ['first reed', 'second reed'].entries()) {
    await ask(name)
    const at = await onScreen(tip(0, reed))
    await page.mouse.click(at.x, at.y)
    await expect(note.getByLabel('Name of a point to follow')).toBeVisible({ timeout: 30_000 })
    await safe(page)
  }
  const seen = (await points()).sort((one, other) => one.order - other.order)
  expect(seen.map(({ name, places }) => [name, places.length])).toEqual([
    ['first reed', 72],
    ['second reed', 72],
  ])
  for (const [reed, { places }] of seen.entries()) {
    const off = places.map(({ x, y }, frame) => Math.hypot(x - tip(frame, reed).x, y - tip(frame, reed).y))
    // Pressed to the pixel of the screen, and followed over 72 pictures.
    expect(Math.max(...off)).toBeLessThan(1.5 + 1)
  }

  // Its spacing, and when it sets out, turns and arrives: a press goes there.
  await expect(note).toContainText('usually')
  await expect(note.getByRole('row', { name: /first reed/ })).toBeVisible()
  await expect(note).toContainText(/arrive together|glides alike|follows|runs ahead/)

  // Put right by keyboard: the ring is a handle; from there it is followed anew.
  await page.keyboard.press('PageDown')
  const ring = page.getByRole('button', { name: /^first reed, followed/ })
  await ring.focus()
  await ring.press('ArrowRight')
  await safe(page)
  await expect
    .poll(
      async () =>
        (await points()).find(({ name }) => name === 'first reed')!.places.filter(one => one.sure === 2).length,
    )
    .toBe(2)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+Z')
  await expect
    .poll(
      async () =>
        (await points()).find(({ name }) => name === 'first reed')!.places.filter(one => one.sure === 2).length,
    )
    .toBe(1)

  // Its usual step as a ceiling for one's own.
  await note.getByRole('button', { name: 'its usual step as my ceiling' }).click()
  const checks = await drawer(page, 'Findings')
  await expect(checks).toContainText('longest step')
  expect(Number(await checks.getByLabel('Ceiling of steps, px a frame').inputValue())).toBeGreaterThan(1)
  await page.keyboard.press('Control+z')
  await expect(checks).not.toContainText('longest step')

  // Its way as a guide, stronger than it was.
  await note.getByRole('button', { name: 'its way as a guide' }).click()
  await safe(page)
  const guide = Object.values((await documentNow(page, world, shot)).guides)[0]!
  expect(guide).toMatchObject({ recipe: 'along', numbers: { times: 1 } })
  const guides = await drawer(page, 'Guides')
  await expect(guides).toContainText('followed way')
  await guides.getByRole('button', { name: /^lay \d+ drawings on the sheet/ }).click()
  await safe(page)
  expect(Object.values((await documentNow(page, world, shot)).drawings).length).toBeGreaterThan(20)

  // Without the clip there is nothing that is followed.
  const clips = await drawer(page, 'Clip under the paper')
  await clips.getByRole('button', { name: 'take it away' }).click()
  await safe(page)
  expect(await points()).toEqual([])
  await page.keyboard.press('Control+Z')
  await safe(page)
  expect(await points()).toHaveLength(2)
})

test('a study of somebody else’s work says so on the shelf, in the send-off, and in the name of its file', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { name: 'Dusk redrawn', frames: 6 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.5, 0.5, 0.15))
  await safe(page)
  await page.getByRole('link', { name: 'Plan' }).click()
  await page.getByLabel('Whose work the shot is a study of').fill('Old Heron')
  await page.keyboard.press('Enter')
  await expect(page.getByText('a study of Old Heron, for practice only. The shelf')).toBeVisible()
  await safe(page)
  await page.getByRole('link', { name: 'Send off' }).click()
  await expect(page.getByText('This is a study of Old Heron, for practice only; its file says so.')).toBeVisible()
  await page.getByRole('button', { name: 'Make the GIF' }).click()
  await expect(page.getByRole('link', { name: /^Save .*-study-of-old-heron\.gif$/ })).toBeVisible({ timeout: 30_000 })
  await page.goto(`${world.url}/shelf`)
  // A strip is painted once its card is seen.
  await page.getByPlaceholder('find a film or a shot').fill('Dusk redrawn')
  await expect(page.getByText('a study of Old Heron, for practice only')).toBeVisible()
})

test('numbered pictures, and a picture that moves, become clips by the time each is shown, and are read like any other', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 24, fps: 12 })
  await openDesk(page, world, shot)
  const places = [40, 40, 120, 120, 200, 200]
  const pictures = await page.evaluate(async places => {
    const made: number[][] = []
    for (const x of places) {
      const canvas = new OffscreenCanvas(320, 180)
      const brush = canvas.getContext('2d')!
      brush.fillStyle = '#fdfaf3'
      brush.fillRect(0, 0, 320, 180)
      brush.fillStyle = '#2f2c28'
      brush.fillRect(x, 60, 60, 60)
      made.push([...new Uint8Array(await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer())])
    }
    return made
  }, places)
  await bringIn(
    page,
    ...pictures.map((bytes, i) => ({ name: `walk ${i + 1}.png`, mimeType: 'image/png', buffer: Buffer.from(bytes) })),
  )
  const asked = page.getByRole('region', { name: '6 pictures' })
  await asked.getByRole('button', { name: 'as a clip under the paper, to be traced and read' }).click()
  const note = await drawer(page, 'Clip under the paper')
  await expect(note).toContainText('picture 1 of 6 lies here', { timeout: 30_000 })
  await note.getByRole('button', { name: 'read its timing' }).click()
  await expect(note).toContainText('3 drawings in 6 frames')
  await safe(page)
  const clips = async () => Object.values((await documentNow(page, world, shot)).clips)
  expect(await clips()).toMatchObject([{ name: 'walk', widthPx: 320, heightPx: 180, seconds: 0.5 }])

  // Of a picture that moves each part is shown as long as it says.
  await bringIn(page, {
    name: 'wink.gif',
    mimeType: 'image/gif',
    buffer: moved([
      [47, 80],
      [223, 240],
      [47, 160],
    ]),
  })
  await page
    .getByRole('region', { name: '3 pictures' })
    .getByRole('button', { name: 'as a clip under the paper, to be traced and read' })
    .click()
  await expect.poll(async () => (await clips()).length, { timeout: 30_000 }).toBe(2)
  expect((await clips()).map(clip => Math.round(clip.seconds * 100)).sort()).toEqual([48, 50])
  // What has just come is in the hand.
  await expect(note).toContainText('picture 1 of 3 lies here')
})

test('one’s own clip goes out under the drawings, each of its pictures on its frames; what is not one’s own stays', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 30, width: 320, height: 240 })
  await openDesk(page, world, shot)
  const SHADES = [40, 110, 180, 240]
  const dusk = moved(SHADES.map(shade => [shade, 250] as const))
  await bringIn(page, { name: 'dusk.gif', mimeType: 'image/gif', buffer: dusk })
  await page.getByRole('button', { name: 'as a clip under the paper, to be traced and read' }).click()
  const note = await drawer(page, 'Clip under the paper')
  await expect(note).toContainText('picture 1 of 4 lies here')
  await pen(page, ring(0.3, 0.5, 0.1))
  await safe(page)
  await page.getByRole('link', { name: 'Send off' }).click()
  const clips = page.getByRole('region', { name: 'Clips' })
  await expect(clips).toContainText('Stays here: dusk.')
  await expect(clips.getByRole('switch')).toHaveCount(0)

  await page.getByRole('link', { name: 'Desk' }).click()
  await (await drawer(page, 'Clip under the paper')).getByLabel('mine: may be sent off').check()
  await safe(page)
  await page.getByRole('link', { name: 'Send off' }).click()
  await page.getByRole('radio', { name: /numbered/ }).click()
  /** How bright the paper is on every frame, above where anything is drawn. */
  const brightness = async () => {
    await page.getByRole('button', { name: 'Make the PNGs' }).click()
    const saving = page.waitForEvent('download')
    await page.getByRole('link', { name: /^Save/ }).click()
    const files = unzipSync(new Uint8Array(readFileSync(await (await saving).path())))
    return Object.keys(files)
      .sort()
      .map(name => {
        const png = UPNG.decode(files[name]!.slice().buffer)
        const pixels = new Uint8Array(UPNG.toRGBA8(png)[0]!)
        return pixels[4 * (10 * png.width + (png.width >> 1)) + 1]!
      })
  }
  expect(new Set(await brightness())).toEqual(new Set([250]))
  await clips.locator('.el-switch').click()
  await expect(clips).toContainText('dusk, without the paper that lies over it on the desk')
  const under = await brightness()
  expect(under).toHaveLength(30)
  // A quarter of a second each, six frames; where nothing of it lies there is paper.
  under.forEach((bright, i) => {
    const shade = SHADES[Math.floor(i / 6)] ?? 250
    expect([i, Math.abs(bright - shade) < 9]).toEqual([i, true])
  })
  // The preview shows the same, frame after frame.
  const preview = page.getByLabel('The shot as it will be sent')
  const shades = new Set<number>()
  await expect(async () => {
    const now = await preview.evaluate((canvas: HTMLCanvasElement) => {
      const brush = new OffscreenCanvas(1, 1).getContext('2d', { willReadFrequently: true })!
      brush.drawImage(canvas, canvas.width >> 1, 10, 1, 1, 0, 0, 1, 1)
      return brush.getImageData(0, 0, 1, 1).data[1]!
    })
    shades.add(SHADES.findIndex(shade => Math.abs(shade - now) < 9))
    expect(SHADES.map((_, i) => shades.has(i))).toEqual(SHADES.map(() => true))
  }).toPass({ intervals: [90] })
})

test('one’s own clip that flashes is told before it goes out, and only while it goes out', async ({ page, world }) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 24, width: 320, height: 240 })
  await openDesk(page, world, shot)
  const storm = moved(Array.from({ length: 12 }, (_, i) => [i % 2 ? 20 : 230, 80] as const))
  await bringIn(page, { name: 'storm.gif', mimeType: 'image/gif', buffer: storm })
  await page.getByRole('button', { name: 'as a clip under the paper, to be traced and read' }).click()
  const note = await drawer(page, 'Clip under the paper')
  await note.getByLabel('mine: may be sent off').check()
  await pen(page, ring(0.3, 0.5, 0.1))
  await safe(page)
  await page.getByRole('link', { name: 'Send off' }).click()
  const before = page.getByRole('region', { name: 'Before it goes out' })
  await expect(before).toContainText('Nothing was found that flashes')
  const goes = page.getByRole('region', { name: 'Clips' }).locator('.el-switch')
  await goes.click()
  await expect(before.getByRole('alert')).toContainText(/it flashes: \d+ changes between light and dark/)
  // The room of measures tells of the same film.
  await before.getByRole('alert').getByRole('link').click()
  const check = page.getByRole('navigation', { name: 'Checks' }).getByRole('button', { name: /^flashes/ })
  await expect(check).toContainText('1 finding')
  await page.getByRole('link', { name: 'Send off' }).click()
  await goes.click()
  await expect(before).toContainText('Nothing was found that flashes')
})
