import { randomUUID } from 'node:crypto'
import { World } from './house.ts'
import { openedForm } from '@unhurried/core/document'
import pg from 'pg'
import { test as base, expect, type Browser, type Page } from 'playwright/test'

/** What the console may say while a test keeps the server away on purpose. */
const NETWORK_WORDS = /Failed to load resource|net::ERR_|EventSource/

export const OWNER = { email: 'otter@marsh-post.example', name: 'Otter', password: 'under-the-lily-pads' }

interface PerTest {
  quietConsole: { allowNetwork: boolean }
  /** a world for one test alone, which it may kill */
  newWorld: (settings?: Record<string, string>) => Promise<World>
}

export const test = base.extend<PerTest, { world: World }>({
  // eslint-disable-next-line no-empty-pattern
  newWorld: async ({}, use) => {
    const worlds: World[] = []
    await use(async settings => {
      const world = await World.create(settings)
      worlds.push(world)
      return world
    })
    await Promise.all(worlds.map(world => world.stop()))
  },
  world: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const world = await World.create()
      await use(world)
      await world.stop()
    },
    { scope: 'worker' },
  ],
  quietConsole: [
    async ({ page, newWorld: _after }, use) => {
      const rules = { allowNetwork: false }
      const heard: string[] = []
      watchConsole(page, heard)
      await use(rules)
      expect(heard.filter(words => !(rules.allowNetwork && NETWORK_WORDS.test(words)))).toEqual([])
    },
    { auto: true },
  ],
})

export function watchConsole(page: Page, heard: string[]): void {
  page.on('console', message => {
    // Tests keep the application from being stored for later.
    if (message.text().startsWith('Service Worker registration blocked')) return
    if (['error', 'warning'].includes(message.type())) heard.push(message.text())
  })
  page.on('pageerror', error => heard.push(String(error)))
}

export { expect, type World }

/** Signs in; the very first time the account is made. */
export async function enter(page: Page, world: World): Promise<void> {
  const state = await (await page.request.get(`${world.url}/api/session`)).json()
  if (state.needsOwner) await page.request.post(`${world.url}/api/owner`, { data: OWNER })
  else await page.request.post(`${world.url}/api/session`, { data: { email: OWNER.email, password: OWNER.password } })
}

export interface NewShot {
  name?: string
  frames?: number
  fps?: number
  width?: number
  height?: number
  /** the film it belongs to; one of its own unless told */
  readonly film?: string
}

/** A film with one shot; answers with the shot's id. */
export async function newShot(page: Page, world: World, wish: NewShot = {}): Promise<string> {
  const made = wish.film ? null : await page.request.post(`${world.url}/api/films`, { data: { name: 'Exercises' } })
  const film = made ? await made.json() : { id: wish.film }
  const { name = 'A jelly pebble', frames = 24, fps = 24, width = 640, height = 360 } = wish
  const shot = await page.request.post(`${world.url}/api/films/${film.id}/shots`, {
    data: { name, frames, format: { width, height, fps, paper: '#fdfaf3' } },
  })
  return (await shot.json()).id
}

export async function openDesk(page: Page, world: World, shot: string, frame = 1): Promise<void> {
  await page.goto(`${world.url}/shot/${shot}/desk?frame=${frame}`)
  await expect(page.getByTestId('paper')).toBeVisible()
  await expect(page.getByRole('complementary', { name: 'Exposure sheet' })).toBeVisible()
}

export interface StoredDocument {
  current: string
  way: string
  layers: Record<string, { name: string; kind: string; locked: boolean; order: number }>
  marks: Record<string, { name: string; layer: string }>
  remarks: Record<
    string,
    {
      by: string
      name: string
      drawing: string | null
      text: string
      at: { x: number; y: number } | null
      sketch: object[][]
    }
  >
  looked: Record<string, Record<string, string>>
  beats: Record<string, { name: string; frame: number }>
  notes: Record<string, { text: string; from: number; to: number }>
  sounds: Record<
    string,
    {
      name: string
      media: string
      seconds: number
      from: number
      skip: number
      use: number
      mine: boolean
      muted: boolean
    }
  >
  clips: Record<
    string,
    {
      name: string
      media: string
      widthPx: number
      heightPx: number
      seconds: number
      from: number
      rate: number
      wash: number
      matrix: [number, number, number, number, number, number]
    }
  >
  swatches: Record<string, { name: string; colour: string }>
  points: Record<string, { name: string; order: number; places: { s: number; x: number; y: number; sure: number }[] }>
  words: Record<string, { text: string; from: number; to: number }>
  format: { width: number; height: number; fps: number }
  drawings: Record<
    string,
    {
      number: number
      role: string
      layer: string
      marks: Record<string, { x: number; y: number }>
      elements: Record<
        string,
        {
          samples: string
          kind: string
          matrix: number[] | null
          part: number[] | null
          width: number
          nib: { look: string; ends: string; thinning: number }
          label: string | null
        }
      >
    }
  >
  guides: Record<string, { recipe: string; numbers: Record<string, number | string | boolean | null> }>
  charts: Record<
    string,
    {
      part: string | null
      wish: { ease: string; strength: number }
      ticks: { drawing: string | null; at: { num: number; den: number } }[]
    }
  >
  takes: Record<
    string,
    {
      name: string
      length: number
      cycles: Record<string, { from: number; to: number | null; pattern: { frames: number }[] }>
      pins: Record<string, string>
      loop: { from: number; to: number } | null
      columns: Record<string, { drawing: string | null; frames: number }[]>
      paths: Record<
        string,
        {
          keys: { frame: number; x: number; y: number; turnRad: number; wish: { points: number[] } }[]
          use: string
          speed: { x: number; y: number }
        }
      >
    }
  >
}

/** The shot as the server has it. */
export async function stored(
  page: Page,
  world: World,
  shot: string,
): Promise<{ seq: number; document: StoredDocument }> {
  const told = await (await page.request.get(`${world.url}/api/shots/${shot}`)).json()
  // What tied layers show is not stored but follows.
  return { ...told, document: openedForm(told.document) }
}

/** The shot as the server has it once everything done at the desk is safe. */
export async function documentNow(page: Page, world: World, shot: string): Promise<StoredDocument> {
  await safe(page)
  return (await stored(page, world, shot)).document
}

/** What the current take shows on a layer, by drawing numbers: "1×2 3×4 -×6". */
export function sheetOf(document: StoredDocument, layer = 'layer-1', take = document.current): string {
  return (document.takes[take]?.columns[layer] ?? [])
    .map(run => `${run.drawing === null ? '-' : document.drawings[run.drawing]?.number}×${run.frames}`)
    .join(' ')
}

/** Commits operations to a shot as another desk would. */
export const commitOps = (page: Page, world: World, shot: string, ops: readonly object[]): Promise<void> =>
  postBatches(page, world, shot, ops, {})

/** The same, with the samples (base64) of the strokes they bring. */
export async function postBatches(
  page: Page,
  world: World,
  shot: string,
  ops: readonly object[],
  samples: Record<string, string>,
): Promise<void> {
  const reply = await page.request.post(`${world.url}/api/shots/${shot}/journal`, {
    data: {
      since: 0,
      batches: [{ id: randomUUID().replaceAll('-', ''), label: 'prepared', ops }],
      samples,
    },
  })
  const { refused, message } = await reply.json()
  if (!reply.ok() || refused[0]) throw new Error(message ?? JSON.stringify(refused[0]))
}

/** Blank drawings on a layer, each so many frames: "A2 b2 c2 B4" (capitals are keys), numbered by their frames. */
export async function exposed(page: Page, world: World, shot: string, sheet: string, layer = 'layer-1') {
  let frame = 0
  const ops: object[] = []
  const runs: { drawing: string; frames: number }[] = []
  for (const [, name, frames] of sheet.matchAll(/([A-Za-z])(\d+)/g)) {
    const id = `${layer}-${name}`
    const role = name === name?.toUpperCase() ? 'key' : 'inbetween'
    if (!runs.some(run => run.drawing === id)) {
      ops.push({ kind: 'drawing.add', drawing: { id, layer, number: frame + 1, role, elements: {}, marks: {} } })
    }
    runs.push({ drawing: id, frames: Number(frames) })
    frame += Number(frames)
  }
  await commitOps(page, world, shot, [...ops, { kind: 'exposure.write', take: 'take-1', layer, from: 0, runs }])
}

export const strokesIn = (document: StoredDocument): number =>
  Object.values(document.drawings).reduce((sum, drawing) => sum + Object.keys(drawing.elements).length, 0)

/** Waits until the desk says that everything is stored. */
export async function safe(page: Page): Promise<void> {
  await expect(page.getByRole('status').filter({ hasText: /^\s*safe\s*$/ })).toBeVisible()
}

export type Place = [x: number, y: number]

/** A small hook for the i-th place of ten in a row. */
export const dash = (i: number): Place[] => [
  [0.1 + (i % 10) * 0.08, 0.2 + Math.floor(i / 10) * 0.15],
  [0.13 + (i % 10) * 0.08, 0.24 + Math.floor(i / 10) * 0.15],
  [0.15 + (i % 10) * 0.08, 0.2 + Math.floor(i / 10) * 0.15],
]

/** Draws with a pen through the places (shares of the paper's canvas), pressing harder towards the middle. */
export async function pen(page: Page, places: readonly Place[], force = 0.7): Promise<void> {
  const box = await page.getByTestId('paper').boundingBox()
  if (!box) throw new Error('no paper')
  const session = await page.context().newCDPSession(page)
  const at = ([x, y]: Place) => ({ x: box.x + x * box.width, y: box.y + y * box.height })
  const send = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', place: Place, share: number) =>
    session.send('Input.dispatchMouseEvent', {
      type,
      ...at(place),
      pointerType: 'pen',
      force: force * (0.3 + 0.7 * Math.sin(Math.PI * share)),
      button: 'left',
      buttons: type === 'mouseReleased' ? 0 : 1,
      clickCount: 1,
      tiltX: 20,
      tiltY: -10,
    })
  await send('mousePressed', places[0] as Place, 0)
  await Promise.all(places.slice(1).map((place, i) => send('mouseMoved', place, (i + 1) / places.length)))
  await send('mouseReleased', places[places.length - 1] as Place, 1)
  await session.detach()
}

/** Draws with the mouse. */
export async function mouse(page: Page, places: readonly Place[]): Promise<void> {
  const box = await page.getByTestId('paper').boundingBox()
  if (!box) throw new Error('no paper')
  const at = ([x, y]: Place): Place => [box.x + x * box.width, box.y + y * box.height]
  await page.mouse.move(...at(places[0] as Place))
  await page.mouse.down()
  for (const place of places.slice(1)) await page.mouse.move(...at(place), { steps: 3 })
  await page.mouse.up()
}

/** What is drawn on the paper in sight, as a picture; the desk's answers over it are left out. */
export async function paperPicture(page: Page): Promise<Buffer> {
  await page.evaluate(() => {
    const answers = document.querySelector<HTMLElement>('.answers')
    if (answers) answers.style.visibility = 'hidden'
  })
  return page.locator('main.paper canvas').nth(2).screenshot()
}

/** A closed ring of places. */
export function ring(x: number, y: number, r: number, n = 28, stretch = 1): Place[] {
  return Array.from({ length: n + 2 }, (_, i) => {
    const a = (i / n) * 2 * Math.PI
    return [x + (r / 1.6) * stretch * Math.cos(a), y + (r / stretch) * Math.sin(a)]
  })
}

/** Somebody else at a machine of their own, let into the film of a shot as a reviewer. */
export async function asReviewer(browser: Browser, world: World, shot: string) {
  const db = new pg.Client({ connectionString: world.databaseUrl })
  await db.connect()
  const copy = `INSERT INTO accounts (email, name, password_hash) SELECT 'newt@marsh-post.example', 'Newt', password_hash FROM accounts RETURNING id`
  const { rows } = await db.query(copy)
  const account = rows[0].id as string
  const member = `INSERT INTO members (film_id, account_id, role) SELECT film_id, $1, 'reviewer' FROM shots WHERE id = $2`
  await db.query(member, [account, shot])
  await db.end()
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const guest = await context.newPage()
  const heard: string[] = []
  watchConsole(guest, heard)
  await guest.request.post(`${world.url}/api/session`, {
    data: { email: 'newt@marsh-post.example', password: OWNER.password },
  })
  return { guest, heard, context, account }
}

/** A drawer of the margin, opened if it was shut. */
export async function drawer(page: Page, label: string) {
  const region = page.getByRole('region', { name: label })
  const title = region.getByRole('heading').getByRole('button')
  if ((await title.getAttribute('aria-expanded')) === 'false') await title.click()
  return region
}

/** The light table's drawer with all its settings in sight. */
export async function lightTable(page: Page) {
  const light = await drawer(page, 'Light table')
  const more = light.getByRole('button', { name: 'more settings' })
  if (await more.isVisible()) await more.click()
  return light
}

/** Files through “bring in”, as somebody chooses them. */
export async function bringIn(
  page: Page,
  ...files: { name: string; mimeType: string; buffer: Buffer }[]
): Promise<void> {
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.keyboard.press('Shift+B')])
  await chooser.setFiles(files)
}
