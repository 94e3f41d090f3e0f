import {
  documentNow,
  type Place,
  type StoredDocument,
  enter,
  expect,
  exposed,
  mouse,
  newShot,
  openDesk,
  pen,
  ring,
  safe,
  test,
} from './world.ts'

test.beforeEach(({ page, world }) => enter(page, world))

const elementsOf = (document: StoredDocument, number = 1) =>
  Object.values(Object.values(document.drawings).find(d => d.number === number)?.elements ?? {})

test('pens: a pencil, an ink line and a brush are kept as they were drawn; the curve fits the hand', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  const settings = page.getByTitle('Settings of the tool in the hand')
  const choose = async (name: RegExp) => {
    await settings.click()
    await page.getByRole('radiogroup', { name: 'Pens' }).getByRole('radio', { name }).click()
  }
  const away = async () => {
    await page.keyboard.press('Escape')
    await expect(page.getByRole('radiogroup', { name: 'Pens' })).toBeHidden()
  }
  await choose(/^rough/)
  // Scribble on the scrap of paper with a light hand.
  const scrap = await page.getByTestId('patch-line').boundingBox()
  if (!scrap) throw new Error('no scrap of paper')
  const client = await page.context().newCDPSession(page)
  const press = (type: string, i: number) =>
    client.send('Input.dispatchMouseEvent', {
      type: type as 'mouseMoved',
      x: scrap.x + 20 + i * 3,
      y: scrap.y + 50,
      button: 'left',
      buttons: 1,
      clickCount: 1,
      pointerType: 'pen',
      force: 0.1 + 0.3 * Math.sin((i / 60) * Math.PI),
    })
  await press('mousePressed', 0)
  for (let i = 1; i <= 60; i++) await press('mouseMoved', i)
  await press('mouseReleased', 60)
  await expect(page.getByText(/pressed 1\d % to 40 %/)).toBeVisible()
  await page.getByRole('button', { name: 'fit the curve to this hand' }).click()
  await expect(page.getByLabel('Pressure that counts as all')).not.toHaveValue('1')
  await page.getByRole('button', { name: 'straight', exact: true }).click()
  await away()
  await pen(page, ring(0.3, 0.3, 0.1))
  await page.getByRole('button', { name: 'far', exact: true }).click()
  await pen(page, ring(0.6, 0.3, 0.1))
  await page.getByRole('button', { name: 'far', exact: true }).click()
  await choose(/^soft brush/)
  await away()
  await pen(page, ring(0.5, 0.6, 0.1))
  const drawn = elementsOf(await documentNow(page, world, shot))
  expect(drawn.map(e => [e.nib.look, e.label, e.width])).toEqual([
    ['pencil', null, 4.5],
    ['pencil', 'far', 4.5],
    ['brush', null, 60],
  ])
  const inForce = page.getByRole('complementary', { name: 'Still in force' })
  await inForce.getByRole('button', { name: 'near and far in working colours' }).click()
  await expect(inForce).toBeHidden()
  await page.reload()
  await expect(settings).toContainText('soft brush')
})

test('figures: straight, even, true circles, and a body that keeps its area', async ({ page, world }) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  await page.keyboard.press('8')
  await page.keyboard.down('Shift')
  await mouse(page, [
    [0.1, 0.1],
    [0.4, 0.12],
  ])
  await page.keyboard.up('Shift')
  await page.keyboard.press('9')
  await page.keyboard.down('Shift')
  await mouse(page, [
    [0.5, 0.1],
    [0.7, 0.2],
  ])
  await page.keyboard.up('Shift')
  await expect(page.getByText('area against drawing 1')).toBeVisible()
  await page.getByRole('radiogroup', { name: 'Pulled' }).getByRole('radio', { name: 'area' }).click()
  await page.getByRole('button', { name: 'painted' }).click()
  await mouse(page, [
    [0.3, 0.6],
    [0.45, 0.6],
  ])
  const drawn = elementsOf(await documentNow(page, world, shot))
  expect(drawn.map(e => e.kind)).toEqual(['line', 'line', 'shape'])
  // Too small to be anything: nothing is drawn.
  await mouse(page, [[0.5, 0.5]])
  expect(elementsOf(await documentNow(page, world, shot))).toHaveLength(3)
})

test('gathered strokes: box, add and take away, mirrored copy, numbers, smooth, join, other pen, copy and paste', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 12 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.25, 0.3, 0.08))
  await pen(page, ring(0.6, 0.3, 0.08))
  await page.keyboard.press('5')
  await page.getByTitle('Settings of the tool in the hand').click()
  await page.getByRole('radiogroup', { name: 'Gather by' }).getByRole('radio', { name: 'box' }).click()
  await page.keyboard.press('Escape')
  const note = page.getByRole('region', { name: 'Gathered strokes' })
  await mouse(page, [
    [0.1, 0.05],
    [0.4, 0.6],
  ])
  await expect(note).toContainText('1 stroke on 1')
  await page.keyboard.down('Shift')
  await mouse(page, [
    [0.5, 0.05],
    [0.8, 0.6],
  ])
  await page.keyboard.up('Shift')
  await expect(note).toContainText('2 strokes on 1')
  await note.getByRole('button', { name: 'Mirrored copy, upside down' }).click()
  await expect(note).toContainText('2 strokes on 1')
  await page.keyboard.press('Shift+a')
  await expect(note).toContainText('4 strokes on 1')
  await note.getByLabel('turn, °').fill('90')
  await note.getByLabel('turn, °').press('Enter')
  const turned = elementsOf(await documentNow(page, world, shot))
  expect(
    turned.map(e =>
      e.matrix
        ?.map(v => Math.round(v))
        .slice(0, 4)
        .join(),
    ),
  ).toEqual(['0,1,-1,0', '0,1,-1,0', '0,1,1,0', '0,1,1,0'])
  await note.getByRole('button', { name: 'far' }).click()
  await note.getByRole('button', { name: 'thicker' }).click()
  await note.getByRole('button', { name: 'smooth' }).click()
  await note.getByRole('button', { name: 'join' }).click()
  await expect(note).toContainText('1 stroke on 1')
  const [joined, ...rest] = elementsOf(await documentNow(page, world, shot))
  expect([joined?.label, joined?.width, rest.length]).toEqual(['far', 6, 0])
  await page.keyboard.press('Control+c')
  for (let i = 0; i < 4; i++) await page.keyboard.press('Escape')
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowDown')
  await page.keyboard.press('t')
  // Undone before the browser could tell what is to be pasted: it is the pasting that is undone.
  await page.evaluate(() => {
    const press = (key: string, ctrlKey: boolean) =>
      document.body.dispatchEvent(
        new KeyboardEvent('keydown', { key, code: `Key${key.toUpperCase()}`, ctrlKey, bubbles: true }),
      )
    press('v', true)
    press('q', false)
  })
  const { drawings } = await documentNow(page, world, shot)
  expect(Object.values(drawings).map(d => [d.number, Object.keys(d.elements).length])).toEqual([
    [1, 1],
    [6, 0],
  ])
  await page.keyboard.press('Control+v')
  await expect(note).toContainText('1 stroke on 6')
  const pasted = elementsOf(await documentNow(page, world, shot), 6)
  expect(pasted.map(e => [e.samples, e.label])).toEqual([[joined?.samples, 'far']])
  // Everything is undone exactly, across a reload.
  for (let i = 0; i < 8; i++) await page.keyboard.press('q')
  expect(elementsOf(await documentNow(page, world, shot)).map(e => e.matrix)).toEqual([null, null])
})

test('a line is cut where a loop crosses it, pushed along, and bent; its weight stays', async ({ page, world }) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  await pen(
    page,
    Array.from({ length: 30 }, (_, i): [number, number] => [0.2 + i * 0.02, 0.5]),
  )
  const [line] = elementsOf(await documentNow(page, world, shot))
  await page.keyboard.press('5')
  await page.getByTitle('Settings of the tool in the hand').click()
  await page.getByRole('radio', { name: 'cut where it crosses' }).click()
  await page.keyboard.press('Escape')
  await mouse(page, [
    [0.1, 0.3],
    [0.5, 0.3],
    [0.5, 0.7],
    [0.1, 0.7],
  ])
  const parts = elementsOf(await documentNow(page, world, shot))
  expect(parts.map(e => [e.samples, e.part?.[0] === 0])).toEqual(
    expect.arrayContaining([
      [line?.samples, true],
      [line?.samples, false],
    ]),
  )
  await expect(page.getByRole('region', { name: 'Gathered strokes' })).toContainText('1 stroke on 1')
  const knob = await page.locator('svg.gathered circle.knob').boundingBox()
  if (!knob) throw new Error('no knob')
  await page.keyboard.down('Alt')
  await page.mouse.move(knob.x + 6, knob.y + 6)
  await page.mouse.down()
  await page.mouse.move(knob.x + 26, knob.y + 6, { steps: 4 })
  await expect(page.getByText(/^bent \d/)).toBeVisible()
  await page.mouse.up()
  await page.keyboard.up('Alt')
  await page.keyboard.press('Escape')
  await page.keyboard.press('`')
  await mouse(page, [
    [0.7, 0.5],
    [0.7, 0.55],
    [0.7, 0.6],
  ])
  const after = elementsOf(await documentNow(page, world, shot))
  expect(after.map(e => [e.width, e.part, e.samples === line?.samples])).toEqual([
    [line?.width, null, false],
    [line?.width, null, false],
  ])
  for (let i = 0; i < 3; i++) await page.keyboard.press('q')
  expect(elementsOf(await documentNow(page, world, shot))).toEqual([line])
})

test('changes go through all marked drawings, and say how many', async ({ page, world }) => {
  const shot = await newShot(page, world, { frames: 12 })
  await exposed(page, world, shot, 'A4 B4 C4')
  await openDesk(page, world, shot, 1)
  await pen(page, ring(0.5, 0.5, 0.1))
  await page.keyboard.press('Shift+a')
  await page.keyboard.press('Control+c')
  await page.keyboard.press('Escape')
  for (let i = 0; i < 9; i++) await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('5')
  await page.getByTitle('Settings of the tool in the hand').click()
  await page.getByRole('checkbox', { name: /through all marked drawings/ }).check()
  await page.keyboard.press('Escape')
  const inForce = page.getByRole('complementary', { name: 'Still in force' })
  await expect(inForce).toContainText('changes go through 3 drawings')
  await page.keyboard.press('Control+v')
  await expect(page.getByRole('region', { name: 'Gathered strokes' })).toContainText('3 strokes on 3 drawings')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expect(page.getByText('nudged 2, 0 px')).toBeVisible()
  const { drawings } = await documentNow(page, world, shot)
  expect(Object.values(drawings).map(d => Object.values(d.elements).map(e => e.matrix?.[4] ?? 0))).toEqual([
    [0, 2],
    [2],
    [2],
  ])
  await page.keyboard.press('Delete')
  await inForce.getByRole('button', { name: 'changes go through' }).click()
  expect(elementsOf(await documentNow(page, world, shot), 5)).toEqual([])
  expect(elementsOf(await documentNow(page, world, shot))).toHaveLength(1)
})

test('a shared drawing says how many places change with it, and gets its own copy; one layer is seen alone', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 12 })
  await openDesk(page, world, shot)
  await pen(page, ring(0.5, 0.5, 0.1))
  await page.keyboard.press('t')
  for (let i = 0; i < 2; i++) await page.keyboard.press('ArrowDown')
  await page.keyboard.press("'")
  await page.keyboard.type('1')
  await page.keyboard.press('Enter')
  const note = page.getByText('1 is shown in 2 places: what is changed here changes in all of them.')
  await expect(note).toBeVisible()
  await note.getByRole('button', { name: 'its own copy here' }).click()
  await expect(note).toBeHidden()
  await pen(page, ring(0.3, 0.5, 0.1))
  const document = await documentNow(page, world, shot)
  expect([elementsOf(document).length, elementsOf(document, 5).length]).toEqual([1, 2])
  await page.keyboard.press('Shift+o')
  const inForce = page.getByRole('complementary', { name: 'Still in force' })
  await expect(inForce).toContainText('only figure is seen')
  await inForce.getByRole('button').first().click()
  await expect(inForce).toBeHidden()
})

test('the making of a drawing: earlier versions beside the present one, played, and brought back', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world, { frames: 6 })
  await openDesk(page, world, shot)
  for (const x of [0.3, 0.5, 0.7]) await pen(page, ring(x, 0.5, 0.08))
  await page.keyboard.press('Backspace')
  await safe(page)
  await page.getByRole('button', { name: 'history' }).click()
  const making = page.getByRole('dialog', { name: 'The making of 1' })
  await expect(making.getByText('4 of 4')).toBeVisible()
  await expect(making.getByRole('button', { name: 'bring it back' })).toBeDisabled()
  await making.getByRole('button', { name: 'Play the making' }).click()
  await expect(making.getByText('4 of 4')).toBeVisible()
  await making.getByRole('slider').press('ArrowLeft')
  await expect(making.getByText('3 strokes')).toBeVisible()
  await making.getByRole('slider').press('ArrowLeft')
  await expect(making.getByText('3 of 4')).toBeHidden()
  await expect(making.getByText('2 of 4')).toBeVisible()
  await making.getByRole('button', { name: 'bring it back' }).click()
  await expect(making).toBeHidden()
  expect(elementsOf(await documentNow(page, world, shot))).toHaveLength(2)
  await page.keyboard.press('q')
  expect(elementsOf(await documentNow(page, world, shot))).toHaveLength(0)
})

test('fill: what lines bound is painted under them; a gap is told with its width, and closed when gaps that wide count', async ({
  page,
  world,
}) => {
  const shot = await newShot(page, world)
  await openDesk(page, world, shot)
  const around = ring(0.4, 0.5, 0.15, 40)
  await pen(page, around.slice(0, -2))
  await page.keyboard.press('Shift+c')
  await expect(page.getByRole('radio', { name: 'fill' })).toBeChecked()
  const settings = page.getByTitle('Settings of the tool in the hand')
  const gaps = async (px: number) => {
    await settings.click()
    await page.getByRole('slider', { name: 'Gaps that count as closed' }).press('Home')
    for (let i = 0; i < px; i++) await page.keyboard.press('ArrowRight')
    await page.keyboard.press('Escape')
  }
  const inside: Place = [0.4, 0.5]
  const shapes = async () => elementsOf(await documentNow(page, world, shot)).filter(e => e.kind === 'shape').length
  await gaps(0)
  await mouse(page, [inside])
  const told = page.getByText(/It leaks out through a gap of \d+ pixels/)
  await expect(told).toBeVisible()
  expect(await shapes()).toBe(0)
  // Hovering shows it before anything is pressed.
  const painted = () =>
    page.getByTestId('paper').evaluate((canvas: HTMLCanvasElement) => {
      const copy = new OffscreenCanvas(canvas.width, canvas.height).getContext('2d', { willReadFrequently: true })!
      copy.drawImage(canvas, 0, 0)
      const { data } = copy.getImageData(0, 0, canvas.width, canvas.height)
      return data.filter((value, i) => i % 4 === 3 && value > 0).length / (canvas.width * canvas.height)
    })
  await gaps(30)
  const box = await page.getByTestId('paper').boundingBox()
  if (!box) throw new Error('no paper')
  await page.mouse.move(box.x + 0.41 * box.width, box.y + 0.5 * box.height)
  await expect.poll(painted).toBeGreaterThan(0.03)
  expect(await painted()).toBeLessThan(0.2)
  await mouse(page, [inside])
  await expect.poll(shapes).toBe(1)
  await page.mouse.move(box.x + box.width / 2, box.y - 40)
  await expect.poll(painted).toBe(0)
  // Another press beside it paints the paper around, with the ring left out; each is one step.
  await page.keyboard.press('q')
  expect(await shapes()).toBe(0)
  await mouse(page, [[0.8, 0.5]])
  await expect.poll(shapes).toBe(1)
})
