import { unzipSync } from 'fflate'
import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import type { Page } from 'playwright/test'
import { bring, HITS, plan, sound, steps, wav } from './sounds.ts'
import { commitOps, documentNow, enter, expect, newShot, openDesk, pen, ring, safe, test } from './world.ts'

test.describe.configure({ timeout: 90_000 })
// Somebody listens all the time: what begins and ends with each press comes too late now and then.
test.beforeEach(({ page }) => void page.on('filechooser', () => undefined))

/** Moments at which bytes of a file set in, as the browser hears them, in seconds; and how long it is. */
const heardIn = (page: Page, bytes: Uint8Array) =>
  page.evaluate(async base64 => {
    const all = Uint8Array.from(atob(base64), c => c.charCodeAt(0))
    const context = new OfflineAudioContext(1, 1, 48_000)
    const buffer = await context.decodeAudioData(all.buffer)
    const data = buffer.getChannelData(0)
    const found: number[] = []
    let quiet = 4800
    for (let i = 0; i < data.length; i++) {
      if (Math.abs(data[i]!) > 0.12) {
        if (quiet >= 4800) found.push(i / buffer.sampleRate)
        quiet = 0
      } else quiet++
    }
    return { seconds: buffer.duration, found }
  }, Buffer.from(bytes).toString('base64'))

test('a recording comes in, is laid, trimmed and moved by field and key; its accents become beats; a line is spread under it', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 72 })
  await plan(page, world, shot)
  await bring(page, steps)
  const track = sound(page).getByRole('button', { name: /^steps in the reeds, from frame 1/ })
  await expect(track).toBeVisible()
  await safe(page)
  const first = Object.values((await documentNow(page, world, shot)).sounds)[0]!
  expect(first).toMatchObject({ name: 'steps in the reeds', from: 0, skip: 0, mine: false })
  expect(first.seconds).toBeCloseTo(3, 2)

  // What is stored is what was sent, by its contents; nothing else that was in the file is in it.
  const film = (await (await page.request.get(`${world.url}/api/shots/${shot}`)).json()).shot.film as string
  const kept = await (await page.request.get(`${world.url}/api/films/${film}/media/${first.media}`)).body()
  expect(createHash('sha256').update(kept).digest('hex')).toBe(first.media)
  expect((await heardIn(page, kept)).found).toHaveLength(4)

  // Four places where it sets in, each on the frame that is shown then.
  await expect(sound(page)).toContainText('4 places where it sets in')
  await sound(page).getByRole('button', { name: 'Take frame 13 as a beat' }).click()
  await expect
    .poll(async () => Object.values((await documentNow(page, world, shot)).beats).map(b => b.frame))
    .toEqual([12])
  await sound(page).getByRole('button', { name: 'take all as beats' }).click()
  const beats = async () =>
    Object.values((await documentNow(page, world, shot)).beats)
      .map(b => b.frame)
      .sort((a, b) => a - b)
  await expect.poll(async () => (await beats()).length).toBe(4)
  for (const [i, frame] of (await beats()).entries()) expect(Math.abs(frame - HITS[i]! * 24)).toBeLessThanOrEqual(1)
  await expect(sound(page)).toContainText('beats without a pose')

  // Moved by keys, trimmed by fields; as one step each.
  await track.focus()
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expect.poll(async () => Object.values((await documentNow(page, world, shot)).sounds)[0]!.from).toBe(11)
  const field = (label: string) => sound(page).getByLabel(label, { exact: true })
  await field('Seconds left out at its beginning').fill('0.5')
  await field('Seconds left out at its beginning').press('Enter')
  await field('Seconds that are heard').fill('1.25')
  await field('Seconds that are heard').press('Enter')
  await expect
    .poll(async () => Object.values((await documentNow(page, world, shot)).sounds)[0])
    .toMatchObject({ skip: 0.5, use: 1.25 })

  // The line lies over what is heard; an edge of a word moves its neighbour too.
  await sound(page).getByLabel('A line that is spoken').fill('The post is late!')
  await field('From frame').fill('12')
  await field('To frame').fill('42')
  await field('To frame').press('Tab')
  await sound(page).getByRole('button', { name: 'spread the words' }).click()
  const words = async () => Object.values((await documentNow(page, world, shot)).words).sort((a, b) => a.from - b.from)
  await expect.poll(async () => (await words()).map(word => word.text)).toEqual(['The', 'post', 'is', 'late!'])
  const before = await words()
  expect([before[0]!.from, before[3]!.to]).toEqual([11, 42])
  const post = sound(page).locator('.word-box', { hasText: 'post' })
  const at = (await post.boundingBox())!
  await page.mouse.move(at.x + at.width - 3, at.y + 8)
  await page.mouse.down()
  await page.mouse.move(at.x + at.width - 30, at.y + 8, { steps: 4 })
  await page.mouse.up()
  await expect.poll(async () => (await words())[1]!.to).toBeLessThan(before[1]!.to)
  const after = await words()
  expect(after[2]!.from).toBe(after[1]!.to)

  // On the sheet it runs down beside the frames; taken off, nothing is left of it but what was made of it.
  await page.getByRole('link', { name: 'Desk' }).click()
  await expect(page.getByRole('button', { name: 'Sound is heard' })).toHaveAttribute('aria-pressed', 'true')
  const layer = { kind: 'drawn', locked: false, follows: null, counted: false, volume: 'flat', left: null }
  await commitOps(page, world, shot, [
    { kind: 'layer.add', layer: { ...layer, id: 'reeds', name: 'reeds behind the water', order: 5 } },
  ])
  await expect(page.getByRole('button', { name: /^reeds behind/ })).toBeVisible()
  // With that column beside them the names still stand over their layers, as an edge and in the whole room.
  const apart = () =>
    page.evaluate(() => {
      const boxes = (which: string) => [...document.querySelectorAll(which)].map(one => one.getBoundingClientRect())
      const columns = boxes('.strip [data-layer]')
      return boxes('.head button.layer').map(({ left, width }, i) =>
        Math.round(Math.abs(left - columns[i]!.left) + Math.abs(width - columns[i]!.width)),
      )
    })
  expect(await apart()).toEqual([0, 0, 0])
  await page.keyboard.press('j')
  await expect(page.getByText('back to the paper')).toBeVisible()
  expect(await apart()).toEqual([0, 0, 0])
  await page.goBack()
  await sound(page).getByRole('button', { name: 'take it off' }).click()
  await expect.poll(async () => Object.keys((await documentNow(page, world, shot)).sounds).length).toBe(0)
  await page.keyboard.press('Control+z')
  await expect(track.or(sound(page).getByRole('button', { name: /^steps in the reeds, from/ }))).toBeVisible()
})

test('one’s own sound goes out with the film, at its moment; what is not one’s own stays', async ({ page, world }) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 24, width: 320, height: 180 })
  await plan(page, world, shot)
  await bring(
    page,
    { ...steps, name: 'mine.wav', buffer: wav(0.8, [0.25]) },
    { ...steps, name: 'heard elsewhere.wav', buffer: wav(1, [0.75], 500) },
  )
  await expect(sound(page).getByRole('button', { name: /^heard elsewhere/ })).toBeVisible()
  await sound(page)
    .getByRole('button', { name: /^mine, from/ })
    .click()
  await sound(page).getByLabel('mine: goes out with the film').check()
  await openDesk(page, world, shot)
  await pen(page, ring(0.3, 0.5, 0.12))
  await page.getByRole('link', { name: 'Send off' }).click()
  const make = async (format: RegExp, button: string, name: string) => {
    await page.getByRole('radio', { name: format }).click()
    await page.getByRole('button', { name: button }).click()
    const saved = page.waitForEvent('download')
    await page.getByRole('link', { name: `Save ${name}` }).click()
    return new Uint8Array(await readFile(await (await saved).path()))
  }
  await expect(page.getByText('This format is silent.')).toBeVisible()
  const listen = page.getByRole('button', { name: 'hear it' })
  await expect(listen).toBeHidden()
  // Where it goes out, it is heard before, once somebody asks for it: one's own, and nothing else.
  await page.getByRole('radio', { name: /WebM video/ }).click()
  await page.evaluate(() => {
    const node = AudioBufferSourceNode.prototype
    const { start } = node
    const told: number[] = []
    Object.assign(globalThis, { told })
    node.start = function (...when) {
      told.push(this.buffer?.duration ?? 0)
      return start.apply(this, when)
    }
  })
  const told = () => page.evaluate(() => (globalThis as unknown as { told: number[] }).told)
  await page.waitForTimeout(300)
  expect(await told()).toEqual([])
  await listen.click()
  await expect.poll(async () => (await told()).length).toBeGreaterThan(0)
  await page.getByRole('button', { name: 'silent', exact: true }).click()
  const webm = await make(/WebM video/, 'Make the WebM', 'a-jelly-pebble.webm')
  await expect(page.getByText('Stays here: heard elsewhere.')).toBeVisible()
  const inWebm = await heardIn(page, webm)
  expect(inWebm.found).toHaveLength(1)
  expect(Math.abs(inWebm.found[0]! - 0.25)).toBeLessThan(0.02)
  expect(Math.abs(inWebm.seconds - 1)).toBeLessThan(0.05)
  const mp4 = await heardIn(page, await make(/MP4 video/, 'Make the MP4', 'a-jelly-pebble.mp4'))
  expect(Math.abs(mp4.found[0]! - 0.25)).toBeLessThan(0.02)
  const files = unzipSync(await make(/numbered PNGs/, 'Make the PNGs', 'a-jelly-pebble.zip'))
  expect(Object.keys(files)).toContain('sound.wav')
  const beside = await heardIn(page, files['sound.wav']!)
  expect(beside.seconds).toBeCloseTo(1, 4)
  expect(Math.abs(beside.found[0]! - 0.25)).toBeLessThan(0.01)
})

test('what is broken, hostile or no sound is told in a sentence; with nobody there it waits here, and is sent later', async ({
  page,
  world,
  quietConsole,
}) => {
  quietConsole.allowNetwork = true
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 24 })
  await plan(page, world, shot)
  const told = (text: string) => expect(page.locator('.el-message').filter({ hasText: text }).first()).toBeVisible()
  const odd = (name: string, buffer: Buffer) => ({ name, mimeType: 'audio/wav', buffer })
  await bring(page, odd('page.wav', Buffer.from('<html><script>alert(1)</script></html>')))
  await told('“page.wav” holds no sound')
  await bring(page, odd('empty.mp3', Buffer.alloc(0)))
  await told('“empty.mp3” has nothing in it')
  // A head that promises an hour, with nothing behind it; and a name of a form with chance behind it.
  const promise = wav(0.01, [])
  promise.writeUInt32LE(0x7fffff00, 4)
  promise.writeUInt32LE(0x7ffffe00, 40)
  await bring(page, odd('cut.wav', promise.subarray(0, 44)))
  await told('“cut.wav”')
  await bring(page, odd('chance.ogg', Buffer.concat([Buffer.from('OggS'), Buffer.alloc(4000, 0x5a)])))
  await told('“chance.ogg”')
  await bring(page, odd('chance.mp3', Buffer.concat([Buffer.from('ID3'), Buffer.alloc(4000, 0xa5)])))
  await told('“chance.mp3”')
  expect(Object.keys((await documentNow(page, world, shot)).sounds)).toEqual([])

  // Nobody answers: it is heard here, and is on this machine only; after a reload it is sent on.
  await page.route('**/api/films/*/media**', route => route.abort())
  await bring(page, steps)
  await expect(sound(page)).toContainText('4 places where it sets in')
  await expect(
    page
      .getByRole('status')
      .filter({ hasText: /sending/ })
      .first(),
  ).toBeVisible()
  await page.unroute('**/api/films/*/media**')
  await page.reload()
  await safe(page)
  await expect(sound(page)).toContainText('4 places where it sets in')
  // Another machine hears it too.
  const context = await page
    .context()
    .browser()!
    .newContext({ viewport: { width: 1280, height: 800 } })
  const other = await context.newPage()
  await enter(other, world)
  await plan(other, world, shot)
  await expect(sound(other)).toContainText('4 places where it sets in')
  await context.close()
})
