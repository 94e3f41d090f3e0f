import { readFileSync } from 'node:fs'
import { packSamples } from '@unhurried/core/geometry'
import { GifReader } from 'omggif'
import {
  commitOps,
  documentNow,
  drawer,
  enter,
  expect,
  newShot,
  openDesk,
  pen,
  postBatches,
  ring,
  safe,
  sheetOf,
  test,
} from './world.ts'

test.describe.configure({ timeout: 90_000 })

test('findings are gone through by keys: looked at, read on the plot, put right in one step, or meant so with a reason', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 24 })
  await openDesk(page, world, shot)
  // Six drawings on twos, the first one held; a mark on each that jumps on the fourth, and a blink of nothing before the last.
  await pen(page, ring(0.2, 0.5, 0.1))
  await safe(page)
  const { layers } = await documentNow(page, world, shot)
  const layer = Object.keys(layers).find(id => layers[id]!.kind === 'drawn')!
  const first = Object.keys((await documentNow(page, world, shot)).drawings)[0]!
  const take = (await documentNow(page, world, shot)).current
  const ids = [first, 'd2', 'd3', 'd4', 'd5', 'd6']
  const xs = [100, 120, 140, 200, 220, 240]
  await commitOps(page, world, shot, [
    { kind: 'mark.add', mark: { id: 'nose', layer, name: 'nose', order: 1, kind: 'point' } },
    ...ids.slice(1).map((id, i) => ({
      kind: 'drawing.add',
      drawing: { id, layer, number: i + 10, role: 'key', elements: {}, marks: {} },
    })),
    ...ids.map((drawing, i) => ({
      kind: 'marks.place',
      drawing,
      places: { nose: { x: xs[i], y: 180, planted: false } },
    })),
    {
      kind: 'exposure.write',
      take,
      layer,
      from: 0,
      runs: [
        { drawing: ids[0], frames: 12 },
        ...['d2', 'd3', 'd4', 'd5'].map(drawing => ({ drawing, frames: 2 })),
        { drawing: null, frames: 2 },
        { drawing: 'd6', frames: 2 },
      ],
    },
  ])
  const findings = await drawer(page, 'Findings')
  await expect(findings).toContainText('nothing is shown on frames 21–22')
  await findings.getByRole('link', { name: 'look into them' }).click()

  const checks = page.getByRole('navigation', { name: 'Checks' })
  const list = page.getByRole('complementary', { name: 'Findings' })
  const here = list.locator('[aria-current="true"]')
  await expect(checks.getByRole('button', { name: /^place on the way/ })).toContainText('needs a chart')
  const unasked = checks.getByRole('group')
  await unasked.getByText(/not asked of this shot/).click()
  await expect(unasked.getByRole('button', { name: /^longest step/ })).toBeVisible()
  await expect(checks.getByRole('button', { name: /^everything/ })).toContainText('2 findings')
  await page.keyboard.press('e')
  await page.keyboard.press('e')
  await expect(here).toContainText('nothing is shown on frames 21–22')
  await expect(page).toHaveURL(/frame=21$/)
  await page.keyboard.press('w')
  await expect(here).toContainText('nose of 12 jumps from 11: 30 px a frame, 10 and 10 beside it')
  await expect(page).toHaveURL(/frame=17$/)
  // The plot tells what one stands on, and goes where it is pressed.
  const plot = page.getByRole('region', { name: 'Plot' })
  await expect(plot.getByRole('status')).toContainText('frame 17 · drawing 12 · 30 px a frame')
  await page.keyboard.press('ArrowUp')
  await expect(plot.getByRole('status')).toContainText('frame 16 · drawing 11 · 10 px a frame')
  const picture = plot.getByRole('img')
  const box = (await picture.boundingBox())!
  await page.mouse.click(box.x + 46 + ((box.width - 60) * 18.5) / 24, box.y + 60)
  await expect(page).toHaveURL(/frame=19$/)
  await page.mouse.move(box.x + 46 + ((box.width - 60) * 12.5) / 24, box.y + 60)
  await page.mouse.down()
  await page.mouse.move(box.x + 46 + ((box.width - 60) * 20.5) / 24, box.y + 60, { steps: 3 })
  await page.mouse.up()
  await expect(plot.getByRole('button', { name: 'all frames' })).toBeVisible()
  const saving = page.waitForEvent('download')
  await plot.getByRole('button', { name: 'save as CSV' }).click()
  const csv = readFileSync(await (await saving).path(), 'utf8')
  expect(csv.split('\r\n').slice(0, 3)).toEqual(['frame,drawing,"px a frame",planned', '13,10,10,', '15,11,10,'])

  // Meant so, with a reason: it is quiet, also after a reload; seen when wished, and asked again.
  await page.keyboard.press('a')
  await page.getByLabel('Why it is meant so').fill('it slips on the wet pad')
  await page.keyboard.press('Enter')
  await expect(checks.getByRole('button', { name: /^pops and stalls/ })).toContainText('nothing found, 1 meant so')
  await safe(page)
  await page.reload()
  await expect(checks.getByRole('button', { name: /^everything/ })).toContainText('1 finding')
  await list.getByLabel('those that are meant so, too').check()
  await expect(list).toContainText('meant so: it slips on the wet pad')
  await list.getByRole('button', { name: /^worth a look: nose of 12 jumps/ }).click()
  await list.getByRole('button', { name: 'ask again' }).click()
  await expect(checks.getByRole('button', { name: /^everything/ })).toContainText('2 findings')

  // Put right in one step, and undone.
  await list.getByRole('button', { name: /^worth a look: nothing is shown/ }).click()
  await expect(list).toContainText('hold 13 2 frames longer')
  await page.keyboard.press('f')
  await expect(checks.getByRole('button', { name: /^exposure/ })).toContainText('nothing found')
  await page.keyboard.press('q')
  await expect(checks.getByRole('button', { name: /^exposure/ })).toContainText('1 finding')
  // When its parts set out and arrive, as a table.
  await checks.getByRole('button', { name: /^all at once/ }).click()
  await expect(page.getByRole('row', { name: /^nose 13/ })).toBeVisible()
  await page.keyboard.press('d')
  await expect(page.getByTestId('paper')).toBeVisible()
})

test('a shot without anything says what it needs, and no key does harm', async ({ page, world }) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 12 })
  await page.goto(`${world.url}/shot/${shot}/measure`)
  const list = page.getByRole('complementary', { name: 'Findings' })
  await expect(list).toContainText('Nothing found.')
  for (const key of ['e', 'w', 'a', 'f', 'ArrowDown']) await page.keyboard.press(key)
  await expect(page).toHaveURL(/frame=2$/)
  const checks = page.getByRole('navigation', { name: 'Checks' })
  await expect(checks.getByRole('button', { name: /^weight/ })).toContainText('needs marks on the drawings')
  await checks.getByRole('button', { name: /^volume/ }).click()
  await expect(page.getByText('There is nothing to plot here.')).toBeVisible()
  await checks.getByRole('button', { name: /^weight/ }).click()
  await expect(page.getByText('Once two drawings are there, when each part sets out')).toBeVisible()
})

/** As a pen leaves them: some pixels apart. */
const evenly = (places: readonly (readonly number[])[]) =>
  places.slice(1).flatMap(([x, y], i) => {
    const [fromX, fromY] = places[i]!
    return Array.from({ length: 20 }, (_, k) => ({
      x: fromX! + ((x! - fromX!) * k) / 19,
      y: fromY! + ((y! - fromY!) * k) / 19,
      pressure: 0.5,
    }))
  })

/** A stroke through places, and its samples. */
const strokeThrough = (id: string, kind: 'line' | 'shape', places: readonly (readonly number[])[]) => ({
  element: {
    id,
    kind,
    z: 1,
    samples: id,
    part: null,
    swatch: 'graphite',
    width: 4,
    nib: { look: 'ink', ends: 'round', thinning: 0 },
    label: null,
    matrix: null,
  },
  samples: Buffer.from(packSamples(evenly(places))).toString('base64'),
})

test('a line that stands open is told with its place, on the desk too, and closed by one key; parts are seen as a grid, and all of it goes onto paper', async ({
  page,
  world,
}) => {
  await page.addInitScript(() => {
    window.print = () =>
      document.documentElement.setAttribute('data-printed', document.querySelector('article.report')?.textContent ?? '')
  })
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 8 })
  await openDesk(page, world, shot)
  const { layers, current: take } = await documentNow(page, world, shot)
  const layer = Object.keys(layers).find(id => layers[id]!.kind === 'drawn')!
  // A square of lines that ends 10 px before it is closed, and one that is painted.
  const open = strokeThrough('open', 'line', [
    [200, 100],
    [300, 100],
    [300, 200],
    [200, 200],
    [200, 110],
  ])
  const painted = strokeThrough('painted', 'shape', [
    [200, 100],
    [300, 100],
    [300, 200],
    [200, 200],
  ])
  const drawing = (id: string, number: number, element: { id: string }) => ({
    kind: 'drawing.add',
    drawing: { id, layer, number, role: 'key', elements: { [element.id]: element }, marks: {} },
  })
  const runs = ['one', 'two'].map(id => ({ drawing: id, frames: 4 }))
  await postBatches(
    page,
    world,
    shot,
    [
      drawing('one', 1, open.element),
      drawing('two', 2, painted.element),
      { kind: 'exposure.write', take, layer, from: 0, runs },
    ],
    { open: open.samples, painted: painted.samples },
  )
  const findings = await drawer(page, 'Findings')
  await expect(findings).toContainText('2 on this drawing')
  await page.keyboard.press('Shift+M')
  await expect(findings).toContainText('1 · a line of 1 stands open by')
  await expect(findings.getByRole('button', { name: 'off the paper' })).toBeVisible()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await expect(findings).not.toContainText('on this drawing')
  await findings.getByRole('link', { name: 'look into them' }).click()

  const checks = page.getByRole('navigation', { name: 'Checks' })
  await checks.getByRole('button', { name: /^lines/ }).click()
  await expect(checks.getByRole('button', { name: /^lines/ })).toContainText('1 finding')
  await page.keyboard.press('e')
  await page.keyboard.press('f')
  await expect(checks.getByRole('button', { name: /^lines/ })).toContainText('nothing found')
  expect(Object.keys((await documentNow(page, world, shot)).drawings.one!.elements)).toHaveLength(2)
  await page.keyboard.press('q')
  await expect(checks.getByRole('button', { name: /^lines/ })).toContainText('1 finding')

  await checks.getByRole('button', { name: /^parts/ }).click()
  const grid = page.getByRole('region', { name: 'Parts and drawings' })
  await expect(grid.getByRole('row', { name: /^graphite/ })).toContainText('there')
  await grid.getByRole('button', { name: 'go to drawing 2, frame 5' }).click()
  await expect(page).toHaveURL(/frame=5$/)
  await page.keyboard.press('p')
  await expect(page.locator('html')).toHaveAttribute('data-printed', /a line of 1 stands open/)
  await expect(page.locator('article.report')).toHaveCount(0)
})

test('a picture that flashes is told in the room and before it goes out, and is quiet when it is slower', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 24 })
  await openDesk(page, world, shot)
  const { layers, current: take } = await documentNow(page, world, shot)
  const layer = Object.keys(layers).find(id => layers[id]!.kind === 'drawn')!
  // Half of the paper is dark on every other drawing.
  const corners = [
    [0, 0],
    [640, 0],
    [640, 180],
    [0, 180],
    [0, 0],
  ]
  const field = packSamples(corners.map(([x, y]) => ({ x: x!, y: y!, pressure: 1 })))
  const shape = {
    id: 'field',
    kind: 'shape',
    z: 1,
    samples: 'field',
    part: null,
    swatch: 'graphite',
    width: 1,
    nib: { look: 'ink', ends: 'round', thinning: 0 },
    label: null,
    matrix: null,
  }
  const drawing = (id: string, number: number, elements: object) => ({
    kind: 'drawing.add',
    drawing: { id, layer, number, role: 'key', elements, marks: {} },
  })
  const held = (frames: number) => ({
    kind: 'exposure.write',
    take,
    layer,
    from: 0,
    runs: Array.from({ length: 24 / frames }, (_, i) => ({ drawing: i % 2 ? 'dark' : 'light', frames })),
  })
  const ops = [drawing('light', 1, {}), drawing('dark', 2, { field: shape }), held(2)]
  await postBatches(page, world, shot, ops, { field: Buffer.from(field).toString('base64') })

  await page.goto(`${world.url}/shot/${shot}/measure`)
  const check = page.getByRole('navigation', { name: 'Checks' }).getByRole('button', { name: /^flashes/ })
  await expect(check).toContainText('1 finding')
  await check.click()
  const list = page.getByRole('complementary', { name: 'Findings' })
  await expect(list).toContainText('hardly meant: flashes: 11 changes between light and dark within a second')
  await page.keyboard.press('e')
  await expect(page).toHaveURL(/frame=3$/)
  await expect(page.getByRole('region', { name: 'Plot' }).getByRole('status')).toContainText(/frame 3 · \d+(\.\d)? %/)

  await page.getByRole('link', { name: 'Send off' }).click()
  const before = page.getByRole('region', { name: 'Before it goes out' })
  await expect(before.getByRole('alert')).toContainText('frames 3–23: it flashes: 11 changes')
  // Held twice as long it changes six times, which is three flashes.
  await commitOps(page, world, shot, [held(4)])
  await expect(before).toContainText('Nothing was found that flashes more than three times a second.')
  await commitOps(page, world, shot, [held(3)])
  await expect(before.getByRole('alert')).toContainText('it nearly flashes: 7 changes')
  await before.getByRole('link', { name: 'frames 4–22' }).click()
  await expect(check).toContainText('1 finding')
  // A sprite that is shown small covers too little of the field of ten degrees.
  await check.click()
  const shown = page.getByRole('spinbutton', { name: 'shown so wide, px' })
  await expect(shown).toHaveValue('1024')
  await shown.fill('120')
  await shown.press('Enter')
  await expect(check).toContainText('nothing found')
})

test('a painted figure that is lost before its ground is told, and is not once it is darker', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 12 })
  await openDesk(page, world, shot)
  const { layers, current: take } = await documentNow(page, world, shot)
  const [layer, behind] = ['drawn', 'background'].map(kind =>
    Object.keys(layers).find(id => layers[id]!.kind === kind)!,
  )
  const block = (left: number, top: number, right: number, bottom: number) =>
    Buffer.from(
      packSamples(
        [left, right, right, left, left].map((x, i) => ({
          x,
          y: i === 0 || i === 1 || i === 4 ? top : bottom,
          pressure: 1,
        })),
      ),
    ).toString('base64')
  const shape = (id: string, swatch: string) => ({
    [id]: {
      ...{ id, kind: 'shape', z: 1, samples: id, part: null, swatch, width: 1, label: null, matrix: null },
      nib: { look: 'ink', ends: 'round', thinning: 0 },
    },
  })
  const drawing = (id: string, on: string, elements: object) => ({
    kind: 'drawing.add',
    drawing: { id, layer: on, number: 1, role: 'key', elements, marks: {} },
  })
  const shown = (id: string, on: string) => ({
    ...{ kind: 'exposure.write', take, layer: on, from: 0 },
    runs: [{ drawing: id, frames: 12 }],
  })
  await postBatches(
    page,
    world,
    shot,
    [
      drawing('pad', behind!, shape('pad-shape', 'moss')),
      drawing('leaf', layer!, shape('leaf-shape', 'moss')),
      shown('pad', behind!),
      shown('leaf', layer!),
    ],
    // Half of the leaf’s outline lies over the pad.
    { 'pad-shape': block(100, 50, 340, 310), 'leaf-shape': block(280, 150, 400, 210) },
  )
  await page.goto(`${world.url}/shot/${shot}/measure`)
  const check = page.getByRole('navigation', { name: 'Checks' }).getByRole('button', { name: /^figure and ground/ })
  await expect(check).toContainText('1 finding')
  await check.click()
  const list = page.getByRole('complementary', { name: 'Findings' })
  // 60 px each above, below and at its left, of 360.
  await expect(list).toContainText(/1 is lost before what lies behind it along (49|5[0-3]) % of its outline/)
  await commitOps(page, world, shot, [
    { kind: 'elements.set', drawing: 'leaf', changes: [{ id: 'leaf-shape', patch: { swatch: 'graphite' } }] },
  ])
  await expect(check).toContainText('nothing found')
})

test('what a shape cuts off is told once the shot is cut to it, is moved back in by one key, and goes out in that shape', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 12 })
  await openDesk(page, world, shot)
  const { layers, current: take } = await documentNow(page, world, shot)
  const layer = Object.keys(layers).find(id => layers[id]!.kind === 'drawn')!
  const block = (left: number): Buffer =>
    Buffer.from(
      packSamples(
        [0, 60, 60, 0, 0].map((x, i) => ({ x: left + x, y: i === 0 || i === 1 || i === 4 ? 150 : 210, pressure: 1 })),
      ),
    )
  const drawing = (n: number) => ({
    kind: 'drawing.add',
    drawing: {
      ...{ id: `d${n}`, layer, number: n, role: 'key', marks: {} },
      elements: {
        [`e${n}`]: {
          ...{ id: `e${n}`, kind: 'shape', z: 1, samples: `s${n}`, part: null, swatch: 'moss', width: 1, label: null },
          ...{ matrix: null, nib: { look: 'ink', ends: 'round', thinning: 0 } },
        },
      },
    },
  })
  const runs = [1, 2, 3].map(n => ({ drawing: `d${n}`, frames: 4 }))
  await postBatches(
    page,
    world,
    shot,
    [drawing(1), drawing(2), drawing(3), { kind: 'exposure.write', take, layer, from: 0, runs }],
    // A square leaves 140 to 500: two thirds of the second are beyond it.
    Object.fromEntries([300, 100, 240].map((x, i) => [`s${i + 1}`, block(x).toString('base64')])),
  )
  await page.getByRole('link', { name: 'Measure' }).click()
  const check = page.getByRole('navigation', { name: 'Checks' }).getByRole('button', { name: /^in the picture/ })
  await expect(check).toContainText('nothing found')
  await page.getByRole('link', { name: 'Plan' }).click()
  const shown = page.getByRole('region', { name: 'Where it is shown' })
  await expect(shown.getByText('leaves bars')).toHaveCount(4)
  await shown.getByRole('group', { name: 'Also cut to' }).getByRole('checkbox', { name: 'a square' }).check()
  await expect(shown.getByText('cut to it, at')).toHaveCount(2)
  // The middle of the picture is what is left of it.
  const [square, picture] = await shown
    .getByRole('figure')
    .filter({ hasText: 'square post' })
    .evaluate(figure =>
      [figure.querySelector('.shape')!, figure.querySelector('canvas')!].map(one => {
        const { left, width } = one.getBoundingClientRect()
        return { middle: left + width / 2, width }
      }),
    )
  expect(picture!.middle).toBeCloseTo(square!.middle, 0)
  expect(picture!.width / square!.width).toBeCloseTo(16 / 9, 1)
  await page.getByRole('link', { name: 'Measure' }).click()
  await expect(check).toContainText('1 finding')
  await check.click()
  const list = page.getByRole('complementary', { name: 'Findings' })
  await expect(list).toContainText(/cut to a square, 6[5-8] % of 2 is lost, on the left/)
  await page.keyboard.press('.')
  await expect(page.getByRole('combobox')).toHaveValue('2')
  await page.keyboard.press('f')
  await expect(check).toContainText('nothing found')
  const moved = (await documentNow(page, world, shot)).drawings.d2!.elements.e2!.matrix
  expect(moved?.slice(0, 4)).toEqual([1, 0, 0, 1])
  expect(Math.abs(moved![4]! - 40)).toBeLessThanOrEqual(1)
  await page.keyboard.press('q')
  await expect(check).toContainText('1 finding')

  await page.getByRole('link', { name: 'Send off' }).click()
  const shapes = page.getByRole('radiogroup', { name: 'Cut to another shape' })
  await expect(page.getByText('as it will be sent, 640 × 360')).toBeVisible()
  await shapes.getByRole('radio', { name: '9:16' }).click()
  await expect(page.getByText('Nothing is said yet of what that cuts off.')).toBeVisible()
  await shapes.getByRole('radio', { name: 'a square' }).click()
  await expect(page.getByText('Nothing is said yet')).toBeHidden()
  await page.getByRole('spinbutton', { name: 'Width in pixels' }).fill('180')
  await page.getByRole('spinbutton', { name: 'Width in pixels' }).press('Enter')
  await expect(page.getByText('as it will be sent, 180 × 180')).toBeVisible()
  await page.getByRole('button', { name: 'Make the GIF' }).click()
  const saved = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Save a-jelly-pebble-square.gif' }).click()
  const gif = new GifReader(new Uint8Array(readFileSync(await (await saved).path())))
  const pixels = new Uint8Array(180 * 180 * 4)
  gif.decodeAndBlitFrameRGBA(0, pixels)
  // The first block, at 300 to 360 of the picture, is at 80 to 110 of the square at half its size.
  const row = [...Array(180).keys()].filter(x => pixels[4 * (90 * 180 + x)]! < 200)
  expect([gif.width, gif.height, row[0], row.at(-1)]).toEqual([180, 180, 80, 109])
})

test('what is said is asked of every drawing and put right; a check speaks later when the shot says so; parts are ordered from root to tip', async ({
  page,
  world,
}) => {
  await enter(page, world)
  const shot = await newShot(page, world, { frames: 24 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.5, 0.5, 0.12))
  await openDesk(page, world, shot, 3)
  await pen(page, ring(0.52, 0.5, 0.12))
  const said = await drawer(page, 'What is said')
  await expect(said).toContainText('a stone is still')
  await expect(said.getByLabel('What', { exact: true })).toHaveValue('')
  await said.getByRole('button', { name: 'say it' }).click()
  await expect(said).toContainText('figure is still')
  // What two marks are needed for cannot be said without them.
  await said.getByLabel('What is said').last().selectOption('follows')
  await expect(said).toContainText('It needs two marks on the drawings.')
  await expect(said.getByRole('button', { name: 'say it' })).toBeDisabled()
  // A pose is that of the drawing in the hand.
  await said.getByLabel('What is said').last().selectOption('reads')
  await said.getByRole('button', { name: 'say it, frames 3–4' }).click()
  await expect(said).toContainText('the pose of figure is to be read')

  await page.goto(`${world.url}/shot/${shot}/measure?frame=1`)
  const checks = page.getByRole('navigation', { name: 'Checks' })
  const list = page.getByRole('complementary', { name: 'Findings' })
  await checks.getByRole('button', { name: /^exposure/ }).click()
  await expect(list).toContainText('3 is to be read, and held for 2 frames: a quarter of a second is 6')
  await page.keyboard.press('f')
  await expect(list).not.toContainText('is to be read')
  expect(sheetOf(await documentNow(page, world, shot))).toBe('1×2 3×6 -×16')
  await page.keyboard.press('q')
  await expect(list).toContainText('3 is to be read')
  await checks.getByRole('button', { name: /^still parts/ }).click()
  await expect(list).toContainText('what is drawn is said to be still, and is another on 3 than on 1: it shimmers')
  await page.keyboard.press('f')
  await expect(checks.getByRole('button', { name: /^still parts/ })).toContainText('nothing found')
  await safe(page)
  const samples = Object.values((await documentNow(page, world, shot)).drawings).map(drawing =>
    Object.values(drawing.elements).map(one => one.samples),
  )
  expect(samples[0]).toEqual(samples[1])
  await page.keyboard.press('q')
  await expect(checks.getByRole('button', { name: /^still parts/ })).toContainText('1 finding')

  // Marks 20 px apart and then 24: a fifth more.
  const document = await documentNow(page, world, shot)
  const [layer] = Object.entries(document.layers).find(([, one]) => one.kind === 'drawn')!
  const ids = Object.keys(document.drawings)
  const more = ['m3', 'm4', 'm5'].map((id, i) => ({
    kind: 'drawing.add',
    drawing: { id, layer, number: 50 + i, role: 'inbetween', elements: {}, marks: {} },
  }))
  await commitOps(page, world, shot, [
    ...['eye', 'ear'].map((id, i) => ({ kind: 'mark.add', mark: { id, layer, name: id, order: i, kind: 'point' } })),
    ...more,
    ...[...ids, 'm3', 'm4', 'm5'].map((drawing, i) => ({
      kind: 'marks.place',
      drawing,
      places: {
        eye: { x: 100 + 10 * i, y: 100, planted: false },
        ear: { x: (i === 4 ? 124 : 120) + 10 * i, y: 100, planted: false },
      },
    })),
    {
      kind: 'exposure.write',
      take: document.current,
      layer,
      from: 4,
      runs: ['m3', 'm4', 'm5'].map(drawing => ({ drawing, frames: 2 })),
    },
    { kind: 'saying.add', saying: { id: 'size', kind: 'size', layer, about: ['eye', 'ear'], from: 0, to: 24 } },
  ])
  await checks.getByRole('button', { name: /^size of parts/ }).click()
  await expect(list).toContainText('from eye to ear is 120 % of the usual on 52: 24 px, 20 otherwise')
  const limit = page.getByRole('spinbutton', { name: 'off the usual by more than, %' })
  await expect(limit).toHaveValue('6')
  await limit.fill('25')
  await limit.press('Enter')
  await expect(checks.getByRole('button', { name: /^size of parts/ })).toContainText('nothing found')
  await page.getByRole('button', { name: 'as it comes: 6' }).click()
  await expect(checks.getByRole('button', { name: /^size of parts/ })).toContainText('1 finding')
  // Beyond its bounds it stays at them.
  await limit.fill('9000')
  await limit.press('Enter')
  await expect(limit).toHaveValue('100')
  await page.keyboard.press('q')

  await checks.getByRole('button', { name: /^all at once/ }).click()
  const table = page.getByRole('region', { name: 'When parts move' })
  await table.getByRole('button', { name: 'from root to tip' }).click()
  await expect(table.getByRole('rowheader')).toHaveText([/eye/, /ear/])
  await table.getByRole('button', { name: 'ear nearer to the root' }).click()
  await expect(table.getByRole('rowheader')).toHaveText([/ear/, /eye/])
  const grips = table.locator('.grip')
  const [from, to] = [(await grips.nth(1).boundingBox())!, (await grips.nth(0).boundingBox())!]
  await page.mouse.move(from.x + 5, from.y + 6)
  await page.mouse.down()
  await page.mouse.move(to.x + 5, to.y - 3, { steps: 8 })
  await page.mouse.up()
  await expect(table.getByRole('rowheader')).toHaveText([/eye/, /ear/])
  await checks.getByRole('button', { name: /^how well it is seen/ }).click()
  await expect(page.getByRole('region', { name: 'How well drawings are seen' })).toContainText('52')

  // A mark that is missing is proposed from the drawings beside it: on a blank one, between them; one key places it.
  await page.goto(`${world.url}/shot/${shot}/desk?frame=5`)
  await expect(page.getByTestId('paper')).toBeVisible()
  await page.keyboard.press('n')
  const note = await drawer(page, 'Marks')
  await note.getByRole('button', { name: 'off' }).first().click()
  await expect(note.getByRole('status')).toContainText('Nothing like it is found here')
  await page.keyboard.press('Alt+n')
  await expect(page).toHaveURL(/frame=7$/)
  expect((await documentNow(page, world, shot)).drawings.m3?.marks.eye).toMatchObject({ x: 120, y: 100 })
})
