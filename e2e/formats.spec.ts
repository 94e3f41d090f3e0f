import { readFile } from 'node:fs/promises'
import { ALL_FORMATS, BufferSource, Input } from 'mediabunny'
import type { Page } from 'playwright/test'
import UPNG from 'upng-js'
import { enter, expect, exposed, mouse, newShot, openDesk, safe, test, type Place } from './world.ts'

const FPS = 24
/** Three pictures that fill the paper: held five, four and three frames. */
const HELD = [5, 4, 3] as const
const COLOURS = ['bark', 'lily pad', 'pale green'] as const
const ALL_OVER: Place[] = [
  [0.03, 0.03],
  [0.5, 0.02],
  [0.97, 0.03],
  [0.98, 0.97],
  [0.5, 0.98],
  [0.02, 0.97],
  [0.02, 0.5],
]

type Rgba = readonly [number, number, number, number]
const near = (a: Rgba, b: Rgba) => a.every((v, i) => Math.abs(v - (b[i] ?? 0)) <= 14)

async function painted(page: Page, world: Parameters<typeof newShot>[1]) {
  await enter(page, world)
  const shot = await newShot(page, world, { name: 'Three sheets', frames: 12, fps: FPS })
  await exposed(page, world, shot, 'A5b4c3')
  const palette: Rgba[] = []
  for (const [i, name] of COLOURS.entries()) {
    await openDesk(page, world, shot, 1 + HELD.slice(0, i).reduce((a, b) => a + b, 0))
    await page.keyboard.press('2')
    const swatch = page.getByRole('radio', { name, exact: true })
    const fill = (await swatch.locator('path').getAttribute('fill')) ?? ''
    palette.push([1, 3, 5].map(at => Number.parseInt(fill.slice(at, at + 2), 16)).concat(255) as unknown as Rgba)
    await swatch.click()
    await mouse(page, ALL_OVER)
    await safe(page)
  }
  await page.getByRole('link', { name: 'Send off' }).click()
  return palette
}

async function made(page: Page, make: string): Promise<Buffer> {
  await page.getByRole('button', { name: make }).click()
  const saved = page.waitForEvent('download')
  await page.getByRole('link', { name: /^Save three-sheets/ }).click({ timeout: 60_000 })
  return readFile(await (await saved).path())
}

/** Colours in the middle of a video's pictures at some moments, as a browser shows them on a page of its own. */
async function shownAt(page: Page, file: Buffer, type: string, seconds: readonly number[]): Promise<Rgba[]> {
  const cinema = await page.context().newPage()
  return cinema.evaluate(
    async ({ base64, type, seconds }) => {
      const bytes = Uint8Array.from(atob(base64), c => c.charCodeAt(0))
      const video = document.createElement('video')
      video.muted = true
      video.src = URL.createObjectURL(new Blob([bytes], { type }))
      await new Promise((done, fail) => {
        video.onloadeddata = done
        video.onerror = () => fail(new Error(video.error?.message ?? 'no video'))
      })
      const canvas = document.createElement('canvas')
      canvas.width = video.videoWidth
      canvas.height = video.videoHeight
      const brush = canvas.getContext('2d', { willReadFrequently: true })!
      const colours: Rgba[] = []
      for (const at of seconds) {
        video.currentTime = at
        await new Promise(done => (video.onseeked = done))
        // What was sought may be there to be painted only some pictures of the page later: until then there is nothing.
        let data = new Uint8ClampedArray(4)
        for (let tries = 0; tries < 120 && data[3] === 0; tries++) {
          await new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)))
          brush.clearRect(0, 0, canvas.width, canvas.height)
          brush.drawImage(video, 0, 0)
          data = brush.getImageData(canvas.width >> 1, canvas.height >> 1, 1, 1).data as typeof data
        }
        const corner = brush.getImageData(0, 0, 1, 1).data
        colours.push([data[0]!, data[1]!, data[2]!, corner[3]!])
      }
      return colours
    },
    { base64: file.toString('base64'), type, seconds },
  )
}

async function trackOf(file: Buffer) {
  const input = new Input({ source: new BufferSource(new Uint8Array(file)), formats: ALL_FORMATS })
  const track = await input.getPrimaryVideoTrack()
  if (!track) throw new Error('no video track')
  const { packetCount } = await track.computePacketStats()
  return {
    frames: packetCount,
    seconds: await input.computeDuration(),
    codec: await track.getCodec(),
    size: [await track.getCodedWidth(), await track.getCodedHeight()],
  }
}

test('MP4 and WebM have every frame at its moment, so many turns, at an even size, and show the pictures', async ({
  page,
  world,
}) => {
  test.setTimeout(120_000)
  const palette = await painted(page, world)
  await page.getByRole('radio', { name: /MP4 video/ }).click()
  await page.getByRole('spinbutton', { name: 'Width in pixels' }).fill('321')
  await page.getByRole('spinbutton', { name: 'Width in pixels' }).press('Tab')
  await expect(page.getByText('This format has even numbers of pixels: 322 × 182.')).toBeVisible()
  await page.getByRole('spinbutton', { name: 'How often it goes round' }).fill('2')
  await page.getByRole('spinbutton', { name: 'How often it goes round' }).press('Tab')
  await expect(page.getByRole('switch', { name: 'With the paper' })).toBeDisabled()
  const mp4 = await made(page, 'Make the MP4')
  expect(await trackOf(mp4)).toMatchObject({ frames: 24, codec: 'avc', size: [322, 182] })
  expect((await trackOf(mp4)).seconds).toBeCloseTo(1, 6)
  // First frame; the last of the second picture; the first of the third; the first picture of the second turn.
  const moments = [0, 8, 9, 12, 23].map(frame => (frame + 0.5) / FPS)
  const expected = [0, 1, 2, 0, 2].map(i => palette[i] as Rgba)
  const seen = await shownAt(page, mp4, 'video/mp4', moments)
  seen.forEach(([r, g, b], i) => expect([i, near([r, g, b, 255], expected[i] as Rgba)]).toEqual([i, true]))

  await page.getByRole('radio', { name: /WebM video/ }).click()
  await page.getByRole('spinbutton', { name: 'How often it goes round' }).fill('1')
  await page.getByRole('spinbutton', { name: 'How often it goes round' }).press('Tab')
  await page.locator('.el-switch').click()
  const webm = await made(page, 'Make the WebM')
  expect(await trackOf(webm)).toMatchObject({ frames: 12, codec: 'vp9', size: [322, 182] })
  expect((await trackOf(webm)).seconds).toBeCloseTo(0.5, 2)
  const clear = await shownAt(page, webm, 'video/webm', [0.5 / FPS, 5.5 / FPS, 11.5 / FPS])
  clear.forEach(([r, g, b], i) => expect([i, near([r, g, b, 255], palette[i] as Rgba)]).toEqual([i, true]))
  // Without the paper the corner is see-through.
  expect(clear.map(colour => colour[3] < 40)).toEqual([true, true, true])
})

test('a moving PNG holds its pictures for whole frames exactly; some frames and some turns are what was asked', async ({
  page,
  world,
}) => {
  test.setTimeout(120_000)
  const palette = await painted(page, world)
  await page.getByRole('radio', { name: /moving PNG/ }).click()
  await page.getByText('some', { exact: true }).click()
  await page.getByRole('spinbutton', { name: 'From frame' }).fill('4')
  await page.getByRole('spinbutton', { name: 'To frame' }).fill('11')
  await page.getByRole('spinbutton', { name: 'To frame' }).press('Tab')
  await page.getByRole('checkbox', { name: 'for ever' }).uncheck()
  await page.getByRole('spinbutton', { name: 'How often it goes round' }).fill('3')
  await page.getByRole('spinbutton', { name: 'How often it goes round' }).press('Tab')
  const file = await made(page, 'Make the moving PNG')
  const bytes = new Uint8Array(file)
  const png = UPNG.decode(bytes.buffer)
  expect([png.tabs.acTL?.num_frames, png.tabs.acTL?.num_plays, png.width, png.height]).toEqual([3, 3, 640, 360])
  // Delays as they are written: frames over the rate. Frames 4–5, 6–9 and 10–11.
  const delays: number[][] = []
  for (let at = 8; at < file.length; at += 12 + file.readUInt32BE(at)) {
    if (file.toString('latin1', at + 4, at + 8) === 'fcTL')
      delays.push([file.readUInt16BE(at + 28), file.readUInt16BE(at + 30)])
  }
  expect(delays).toEqual([
    [2, FPS],
    [4, FPS],
    [2, FPS],
  ])
  const middle = (png.width * (png.height >> 1) + (png.width >> 1)) * 4
  const colours = UPNG.toRGBA8(png).map(picture => [...new Uint8Array(picture, middle, 4)] as unknown as Rgba)
  expect(colours).toEqual(palette)
  // A browser reads it as well: a check sum that is wrong would be refused.
  const wide = await page.evaluate(async base64 => {
    const image = new Image()
    image.src = `data:image/png;base64,${base64}`
    await image.decode()
    return image.naturalWidth
  }, file.toString('base64'))
  expect(wide).toBe(640)
})
