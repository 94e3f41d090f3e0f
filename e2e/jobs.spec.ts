import { readFile } from 'node:fs/promises'
import { GifReader } from 'omggif'
import type { Locator, Page } from 'playwright/test'
import {
  documentNow,
  enter,
  expect,
  mouse,
  newShot,
  openDesk,
  pen,
  ring,
  safe,
  sheetOf,
  strokesIn,
  test,
  type Place,
  type StoredDocument,
} from './world.ts'

/*
 * Whole jobs, from an empty shot to the file, by hand. Every step of the hand is counted: a key, a press, a stroke, a field
 * filled in. What the counts may come to is part of the test: a step that the desk could have saved is a fault.
 */

/** A hand whose steps are counted. */
function handOf(page: Page) {
  let steps = 0
  const counted = async <T>(done: Promise<T>, n = 1): Promise<T> => {
    steps += n
    return done
  }
  return {
    get steps() {
      return steps
    },
    async key(keys: string, times = 1) {
      for (let i = 0; i < times; i++) await counted(page.keyboard.press(keys))
    },
    /** closes what is open: a dialog, a panel, a marking */
    async close() {
      await counted(page.keyboard.press('Escape'))
      await expect(page.locator('.el-overlay:visible')).toHaveCount(0)
      await expect(page.locator('.el-popover[aria-hidden="false"]')).toHaveCount(0)
    },
    press: (what: Locator) => counted(what.click()),
    fill: (field: Locator, text: string) => counted(field.fill(text)),
    /** a number or a name typed where the keys go already */
    type: (text: string) => counted(page.keyboard.type(text)),
    draw: (places: readonly Place[]) => counted(pen(page, places)),
    mouse: (places: readonly Place[]) => counted(mouse(page, places)),
    /** goes to a frame by its number */
    async goTo(frame: number) {
      await counted(page.keyboard.press('/'))
      await counted(page.keyboard.type(String(frame)))
      await counted(page.keyboard.press('Enter'))
      await expect(page.getByText(new RegExp(`^Frame ${frame} of`))).toBeAttached()
    },
  }
}
type Hand = ReturnType<typeof handOf>

test.beforeEach(({ page, world }) => enter(page, world))

/** A wing as a leaf from the shoulder, so far folded (0 open, 1 folded). */
const wing = (folded: number): Place[] =>
  Array.from({ length: 21 }, (_, i) => {
    const a = (i / 20) * Math.PI
    return [0.5 + (0.06 + 0.24 * (1 - folded)) * Math.sin(a), 0.5 - 0.28 * (1 - Math.cos(a)) * 0.5 - 0.04 * folded]
  })

const layerNamed = (document: StoredDocument, name: string) =>
  Object.entries(document.layers).find(([, layer]) => layer.name === name)?.[0] ?? ''
/** What a layer shows, as numbers and holds. */
const shown = (document: StoredDocument, name: string) => sheetOf(document, layerNamed(document, name))

async function sendOff(page: Page, hand: Hand, name: string): Promise<GifReader> {
  await hand.press(page.getByRole('link', { name: 'Send off' }))
  await hand.press(page.getByRole('button', { name: 'Make the GIF' }))
  const saved = page.waitForEvent('download')
  await hand.press(page.getByRole('link', { name: `Save ${name}.gif` }))
  return new GifReader(new Uint8Array(await readFile(await (await saved).path())))
}
/** How long a GIF lasts, in hundredths of a second. */
const lasts = (gif: GifReader) =>
  Array.from({ length: gif.numFrames() }, (_, i) => gif.frameInfo(i).delay).reduce((a, b) => a + b)

test('the moth folds its wings: body held, wings twice slowly and once fast with the same drawings, painted, ground exchanged', async ({
  page,
  world,
}) => {
  test.setTimeout(90_000)
  const shot = await newShot(page, world, { name: 'The moth folds its wings', frames: 48, fps: 12 })
  await openDesk(page, world, shot)
  const hand = handOf(page)
  // Body and open wings on one sheet; the body gets a layer of its own, held through the shot.
  await hand.draw(ring(0.5, 0.55, 0.07, 20, 0.6))
  await hand.draw([
    [0.49, 0.46],
    [0.46, 0.4],
    [0.44, 0.36],
  ])
  await hand.key('Shift+A')
  await hand.fill(page.getByLabel("Name of the part's layer"), 'body')
  await hand.press(page.getByRole('button', { name: 'move it there' }))
  await expect(page.getByText('body has a layer of its own, held: taken from 1')).toBeVisible()
  expect(shown(await documentNow(page, world, shot), 'body')).toBe('1×48')
  await hand.press(page.getByRole('button', { name: 'figure', exact: true }))
  // The wings, four drawings, open to folded. On the sheet that is there, and on new ones behind it.
  await hand.draw(wing(0))
  for (const folded of [0.4, 0.75, 1]) {
    await hand.key('t')
    await hand.draw(wing(folded))
  }
  expect(shown(await documentNow(page, world, shot), 'figure')).toBe('1×1 2×1 3×1 4×1 -×44')
  // Slowly: all four on fours; then there and back once more of the same drawings, and once fast.
  await hand.key('Home')
  await hand.key('Shift+PageDown')
  await expect(page.locator('.marked')).toHaveCount(1)
  await hand.key('Alt+4')
  await expect(page.getByRole('status').filter({ hasText: 'on fours' })).toContainText('48 frames as before')
  await hand.goTo(1)
  await hand.key('Shift+PageDown')
  await hand.key('Shift+ArrowDown', 3)
  await hand.key('Control+c')
  await hand.goTo(17)
  await hand.key('Control+v')
  await expect(page.getByRole('status').filter({ hasText: 'paste' })).toContainText('48 frames as before')
  expect(shown(await documentNow(page, world, shot), 'figure')).toBe('1×4 2×4 3×4 4×4 1×4 2×4 3×4 4×4 -×16')
  await hand.goTo(33)
  await hand.key('Control+v')
  await expect
    .poll(async () => shown(await documentNow(page, world, shot), 'figure'))
    .toContain('4×4 1×4 2×4 3×4 4×4 1×4')
  await hand.key('Shift+PageDown')
  await hand.key('Shift+ArrowDown', 3)
  await hand.key('Alt+1')
  await hand.close()
  expect(shown(await documentNow(page, world, shot), 'figure')).toMatch(/1×1 2×1 3×1 4×1 -×12$/)
  await hand.goTo(36)
  await hand.key('Shift+End')
  const timed = await documentNow(page, world, shot)
  expect(shown(timed, 'figure')).toBe('1×4 2×4 3×4 4×4 1×4 2×4 3×4 4×4 1×1 2×1 3×1 4×13')
  // Paint under the wings: one press for the layer, one shape a drawing, shown wherever its drawing is.
  await hand.key('o')
  await hand.press(page.getByRole('button', { name: 'Add paint under figure' }))
  await hand.close()
  await hand.key('2')
  await hand.press(page.getByRole('radio', { name: 'straw' }))
  for (const [i, folded] of [0, 0.4, 0.75, 1].entries()) {
    await hand.goTo(1 + 4 * i)
    await hand.draw([...wing(folded), [0.5, 0.5]])
  }
  // Two grounds, the second from the fast fold on.
  await hand.press(page.getByRole('button', { name: 'background', exact: true }))
  await hand.goTo(1)
  await hand.press(page.getByRole('radio', { name: 'pale green' }))
  await hand.draw([
    [0.02, 0.8],
    [0.5, 0.75],
    [0.98, 0.8],
    [0.98, 0.98],
    [0.02, 0.98],
  ])
  await hand.goTo(33)
  await hand.key('t')
  await hand.press(page.getByRole('radio', { name: 'lily pad' }))
  await hand.draw([
    [0.02, 0.7],
    [0.5, 0.66],
    [0.98, 0.7],
    [0.98, 0.98],
    [0.02, 0.98],
  ])
  const done = await documentNow(page, world, shot)
  expect(shown(done, 'figure paint')).toBe(shown(done, 'figure'))
  expect(shown(done, 'background')).toBe('1×32 33×16')
  expect(shown(done, 'body')).toBe('1×48')
  expect(strokesIn(done)).toBe(2 + 4 + 4 + 2)
  const gif = await sendOff(page, hand, 'the-moth-folds-its-wings')
  expect([gif.numFrames(), lasts(gif)]).toEqual([12, 400])
  test.info().annotations.push({ type: 'hand steps', description: String(hand.steps) })
  expect(hand.steps).toBeLessThanOrEqual(100)
})

test('mist over the pond: seven drawings with the soft brush, on twos beside threes, 80 frames with their remainder, moved', async ({
  page,
  world,
}) => {
  test.setTimeout(90_000)
  const shot = await newShot(page, world, { name: 'Mist over the pond', frames: 80 })
  await openDesk(page, world, shot)
  const hand = handOf(page)
  await hand.press(page.getByTitle('Settings of the tool in the hand'))
  await hand.press(page.getByRole('radio', { name: /soft brush/ }).first())
  await hand.close()
  const wisp = (i: number): Place[] =>
    Array.from({ length: 12 }, (_, k) => [0.25 + 0.05 * k, 0.55 + 0.06 * Math.sin((2 * Math.PI * (k + 1.7 * i)) / 12)])
  await hand.draw(wisp(0))
  for (let i = 1; i < 7; i++) {
    await hand.key('t')
    await hand.draw(wisp(i))
  }
  expect(shown(await documentNow(page, world, shot), 'figure')).toBe('1×2 3×2 5×2 7×2 9×2 11×2 13×2 -×66')
  // On threes, looped and seen closed on the light table, linked to the end.
  await hand.key('Control+a')
  await hand.key('Alt+3')
  await hand.close()
  await hand.key('Home')
  await hand.key('Shift+ArrowDown', 20)
  await hand.key('Shift+L')
  await expect(page.getByRole('status').filter({ hasText: 'loop' })).toContainText('frames 1 to 21 go round')
  await hand.press(page.getByRole('button', { name: 'close a loop' }))
  await hand.key('l')
  const panel = page.getByRole('dialog', { name: 'Marked frames' })
  await hand.press(panel.getByRole('button', { name: 'link to the end of the shot' }))
  const cycle = panel.getByRole('region', { name: 'Linked cycle' })
  await expect(cycle).toContainText('21 frames, 3 times and 17 over')
  // The remainder: entered so that the shot ends on its last drawing.
  await hand.press(cycle.getByRole('button', { name: /entering at 4: it shows 3 first/ }))
  await expect(cycle).toContainText('shows 3 first')
  await hand.close()
  const filled = await documentNow(page, world, shot)
  expect(shown(filled, 'figure')).toMatch(/^3×2 5×3 7×3 .* 13×3$/)
  // Beside it reeds on twos, on a layer of their own, to the end as well.
  await hand.key('o')
  const layers = page.getByRole('dialog', { name: 'Layers' })
  await hand.fill(layers.getByLabel('Name of a new layer'), 'reeds')
  await hand.press(layers.getByRole('button', { name: 'add a layer' }))
  await hand.close()
  await hand.key('Home')
  for (let i = 0; i < 4; i++) {
    if (i > 0) await hand.key('t')
    await hand.draw([
      [0.8, 0.9],
      [0.8 + 0.01 * i, 0.6],
      [0.8 + 0.03 * i, 0.3],
    ])
  }
  await hand.key('Home')
  await hand.key('Shift+ArrowDown', 7)
  await hand.key('l')
  await hand.press(panel.getByRole('button', { name: 'link to the end of the shot' }))
  await expect(cycle).toContainText('8 frames, 10 times exactly')
  await expect(cycle).toContainText('meets the 21 frames of figure again after 168')
  await hand.close()
  // Moved in time: the reeds begin later, as a whole; moved in place: the mist, through all its drawings.
  await hand.key('l')
  for (let i = 0; i < 3; i++) await hand.press(cycle.getByRole('button', { name: 'later', exact: true }))
  await hand.close()
  expect(shown(await documentNow(page, world, shot), 'reeds')).toMatch(/^-×3 1×2 3×2 5×2 7×2 1×2 /)
  await hand.press(page.getByRole('button', { name: 'figure', exact: true }))
  await hand.key('Home')
  await hand.key('Control+a')
  await hand.key('5')
  await hand.press(page.getByTitle('Settings of the tool in the hand'))
  await hand.press(page.getByLabel('through all marked drawings'))
  await hand.close()
  await hand.key('Shift+A')
  await hand.key('Shift+ArrowUp', 2)
  const moved = await documentNow(page, world, shot)
  const mist = Object.values(moved.drawings).filter(d => d.layer === layerNamed(moved, 'figure'))
  expect(mist).toHaveLength(7)
  for (const drawing of mist) {
    expect(Object.values(drawing.elements)[0]?.matrix).toEqual([1, 0, 0, 1, 0, -20])
  }
  await hand.close()
  const gif = await sendOff(page, hand, 'mist-over-the-pond')
  expect(lasts(gif)).toBe(Math.round((80 * 100) / 24))
  test.info().annotations.push({ type: 'hand steps', description: String(hand.steps) })
  expect(hand.steps).toBeLessThanOrEqual(115)
})

test('Tilda points: blocks, finished art over them, a small move back, the arm out in three, both ends held', async ({
  page,
  world,
}) => {
  test.setTimeout(90_000)
  const shot = await newShot(page, world, { name: 'Tilda points', frames: 36 })
  await openDesk(page, world, shot)
  const hand = handOf(page)
  const arm = (reach: number): Place[] => [
    [0.5, 0.55],
    [0.5 + reach * 0.5, 0.5],
    [0.5 + reach, 0.45],
  ]
  // Blocks: rest, a little back, and out in three.
  await hand.key('Shift+V')
  await hand.mouse([
    [0.4, 0.35],
    [0.55, 0.8],
  ])
  await hand.key('1')
  const reaches = [0.1, 0.06, 0.18, 0.3, 0.34]
  await hand.draw(arm(reaches[0] as number))
  for (const reach of reaches.slice(1)) {
    await hand.key('Shift+T')
    await hand.key('3')
    await hand.mouse([
      [0.6, 0.3],
      [0.6, 0.62],
    ])
    await hand.key('1')
    await hand.draw(arm(reach))
  }
  // Timing: the rest is held, the move back for three, the arm out on ones, the end to the end.
  await hand.goTo(1)
  await hand.key('Alt+4')
  await hand.key('=', 8)
  await hand.key('g')
  await hand.key('=')
  await hand.key('g')
  await hand.key('Shift+ArrowDown', 3)
  await hand.key('Alt+1')
  await hand.close()
  await hand.key('g', 2)
  await hand.key('Shift+End')
  const blocks = await documentNow(page, world, shot)
  expect(
    sheetOf(blocks)
      .split(' ')
      .map(run => run.split('×')[1]),
  ).toEqual(['12', '3', '1', '1', '19'])
  // Finished art over the blocks, in their time; the queue asks for every sheet.
  await hand.key('o')
  await hand.press(page.getByRole('button', { name: 'More about figure' }))
  await hand.fill(page.getByLabel('Name of the layer over it'), 'Tilda')
  await hand.press(page.getByRole('button', { name: 'lay it over' }))
  await hand.close()
  const queue = page.getByRole('region', { name: 'Queue' })
  for (const reach of reaches) {
    await hand.key('e')
    await hand.draw(ring(0.47, 0.5, 0.16, 16, 0.8))
    await hand.draw(arm(reach))
  }
  await expect(queue).toContainText('All that is on the sheet is drawn.')
  const done = await documentNow(page, world, shot)
  expect(shown(done, 'Tilda')).toBe(sheetOf(done))
  expect(done.layers['layer-1']?.kind).toBe('guide')
  await hand.key('Space')
  await page.waitForTimeout(500)
  await hand.key('Space')
  const gif = await sendOff(page, hand, 'tilda-points')
  expect([gif.numFrames(), lasts(gif)]).toEqual([5, 150])
  test.info().annotations.push({ type: 'hand steps', description: String(hand.steps) })
  expect(hand.steps).toBeLessThanOrEqual(80)
})

test('a turn drawn straight ahead, 64 frames as they come, with charts and own marks, and two passes compared', async ({
  page,
  world,
}) => {
  test.setTimeout(90_000)
  const shot = await newShot(page, world, { name: 'A turn', frames: 8 })
  await openDesk(page, world, shot)
  const hand = handOf(page)
  await hand.press(page.getByRole('link', { name: 'Plan' }))
  await hand.press(page.getByText('straight ahead', { exact: true }))
  await hand.press(page.getByRole('link', { name: 'Desk' }))
  await expect(page.getByTestId('paper')).toBeVisible()
  // Sixteen drawings on fours, the length as it comes.
  await hand.press(page.getByRole('switch', { name: /^length/ }))
  await hand.press(page.getByRole('button', { name: /^new on/ }))
  await hand.press(page.getByRole('button', { name: /^new on/ }))
  const head = (i: number, r: number): Place[] => ring(0.5 + 0.14 * Math.sin((i / 15) * Math.PI - Math.PI / 2), 0.5, r)
  for (let i = 0; i < 16; i++) {
    if (i > 0) await hand.key('t')
    await hand.draw(head(i, 0.15))
  }
  const ahead = await documentNow(page, world, shot)
  const take = ahead.takes[ahead.current]
  expect([take?.length, sheetOf(ahead).split(' ').length]).toEqual([64, 16])
  expect(Object.values(ahead.drawings).map(d => d.role)).toEqual(['key', ...Array<string>(15).fill('inbetween')])
  // The length is fixed by a press; a key in the middle and at the end, and charts between them.
  await hand.press(page.getByRole('switch', { name: /^length/ }))
  for (const frame of [33, 61]) {
    await hand.goTo(frame)
    await hand.press(page.getByRole('radio', { name: 'key', exact: true }))
  }
  await hand.goTo(1)
  await hand.press(page.getByRole('group', { name: 'Spacing' }).getByRole('button', { name: 'slow out' }))
  await hand.goTo(33)
  await hand.press(page.getByRole('group', { name: 'Spacing' }).getByRole('button', { name: 'slow in' }))
  // A mark of its own, placed in one pass: a press a drawing.
  await hand.key('6')
  await expect(page.getByLabel('Name of a new mark')).toBeFocused()
  await hand.fill(page.getByLabel('Name of a new mark'), 'nose')
  await hand.key('Enter')
  await hand.key('Home')
  const paper = await page.getByTestId('paper').boundingBox()
  for (let i = 0; i < 16; i++) {
    const x = 0.5 + 0.2 * Math.sin((i / 15) * Math.PI - Math.PI / 2)
    await page.mouse.click((paper?.x ?? 0) + x * (paper?.width ?? 0), (paper?.y ?? 0) + 0.5 * (paper?.height ?? 0))
  }
  await safe(page)
  const marked = await documentNow(page, world, shot)
  expect(Object.values(marked.drawings).filter(d => Object.keys(d.marks).length === 1).length).toBeGreaterThan(14)
  // Begun afresh: the second pass has the numbers, the timing, the charts and the marks.
  await hand.close()
  await hand.key('1')
  await hand.key('o')
  await hand.press(page.getByRole('button', { name: 'More about figure' }))
  await hand.fill(page.getByLabel('Why the old pass is left'), 'it turned like a coin')
  await hand.press(page.getByRole('button', { name: 'begin afresh' }))
  await hand.close()
  const queue = page.getByRole('region', { name: 'Queue' })
  for (let i = 0; i < 3; i++) {
    await hand.key('e')
    await hand.draw(head(i, 0.17))
  }
  await expect(queue).toContainText('13')
  const second = await documentNow(page, world, shot)
  const fresh = layerNamed(second, 'figure')
  expect(fresh).not.toBe('layer-1')
  expect(sheetOf(second, fresh)).toBe(sheetOf(second))
  expect(Object.values(second.charts)).toHaveLength(4)
  // Both passes side by side.
  await hand.press(page.getByRole('link', { name: 'Flip' }))
  await hand.press(page.getByRole('checkbox', { name: 'figure · pass 1' }))
  await expect(page.locator('figure.take')).toHaveCount(2)
  await expect(page.locator('figure.take').nth(1)).toContainText('left: it turned like a coin')
  const gif = await sendOff(page, hand, 'a-turn')
  expect(lasts(gif)).toBe(Math.round((64 * 100) / 24))
  test.info().annotations.push({ type: 'hand steps', description: String(hand.steps) })
  expect(hand.steps).toBeLessThanOrEqual(100)
})
