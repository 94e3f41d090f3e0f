// `npm run shots`: makes the pictures in docs/screenshots anew from the demo film.
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { startCluster, temporaryFolder } from './postgres.mjs'
import { CHROMIUM, ensureBuilt, ensureDebianPackages, ensureNpmPackages, ROOT } from './prepare.mjs'
import { say, tell } from './say.mjs'
import { startServer } from './serve.mjs'

const FOLDER = join(ROOT, 'docs/screenshots')

async function takePictures(url) {
  const { chromium } = await import('playwright')
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: ['--no-sandbox', '--disable-gpu'] })
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const picture = async (name, wait = 900) => {
    await page.waitForTimeout(wait)
    await page.screenshot({ path: join(FOLDER, `${name}.png`) })
    say(`docs/screenshots/${name}.png`)
  }
  const desk = async (shot, frame) => {
    await page.goto(`${url}/shelf`)
    const address = await page.getByRole('link', { name: `Open ${shot}` }).getAttribute('href')
    await page.goto(`${url}${address?.split('?')[0]}?frame=${frame}`)
    await page.waitForTimeout(2500)
  }
  await page.goto(url)
  await page.getByRole('button', { name: 'Sit down' }).click()
  // Every card of the film is painted by then.
  await page.getByText('all drawn').nth(3).waitFor()
  await picture('shelf', 2600)
  await desk('Hop between lily pads', 11)
  await picture('desk')
  await page.keyboard.press('j')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('ArrowRight')
  await picture('sheet')
  await page.keyboard.press('j')
  await page.keyboard.press('j')
  await page.getByRole('link', { name: 'Plan' }).click()
  await picture('plan', 1500)
  await page.getByRole('link', { name: 'Flip' }).click()
  await page.getByRole('checkbox', { name: 'floats at the top' }).check()
  await page.getByRole('checkbox', { name: 'snappy' }).check()
  await page.keyboard.press('1')
  await picture('flip')
  await measured(page, desk, picture)
  await desk('Hop between lily pads', 17)
  await page.getByRole('link', { name: 'Review' }).click()
  await picture('review', 2500)
  await desk('A dropped acorn', 1)
  await page.keyboard.press('e')
  await picture('desk-inbetween')
  await desk('Lantern', 16)
  await page.getByRole('button', { name: 'for the left hand' }).click()
  await page.getByRole('button', { name: 'Night desk' }).click()
  await desk('Hop between lily pads', 11)
  await picture('night-left-hand')
  await page.getByRole('button', { name: 'for the right hand' }).click()
  await page.getByRole('button', { name: 'Night desk' }).click()
  await desk('Hop between lily pads', 9)
  await page.getByRole('link', { name: 'Send off' }).click()
  await picture('send-off', 1700)
  const guides = page.locator('aside.margin button.title', { hasText: 'guides' })
  await desk('The stamp', 5)
  const beside = page.locator('aside.margin button.title', { hasText: 'beside the paper' })
  await beside.click()
  await page.getByRole('button', { name: 'Tilda beside the paper' }).first().click()
  await page.locator('li button.name', { hasText: 'Tilda' }).click()
  await picture('beside', 1500)
  await page.getByRole('button', { name: 'Put Tilda away' }).click()
  await beside.click()
  await desk('The stamp', 5)
  await page.getByRole('link', { name: 'Plan' }).click()
  await page.getByText('where it sets in').waitFor()
  await page.getByRole('region', { name: 'Sound' }).scrollIntoViewIfNeeded()
  await picture('sound', 1500)
  await desk('Reed waltz', 9)
  await page.getByRole('button', { name: 'reeds traced' }).click()
  await page.locator('aside.margin button.title', { hasText: /^\s*clip/ }).click()
  await page.getByRole('button', { name: 'read its timing' }).click()
  await page.getByText(/drawings in 72 frames/).waitFor()
  await picture('clip', 1200)
  await page.locator('aside.margin button.title', { hasText: /^\s*clip/ }).click()
  await sheets(page, desk, picture)
  await desk('Marching home', 5)
  await guides.click()
  await page.getByRole('button', { name: 'another movement' }).click()
  await picture('guides', 1500)
  await guides.click()
  await upright(browser, url)
  await browser.close()
}

/** What is found in a hop that has a fault for each check: as a plot, as bars, as a grid, and on the paper. */
async function measured(page, desk, picture) {
  await desk('A troubled hop', 13)
  await page
    .getByRole('complementary', { name: 'Exposure sheet' })
    .getByRole('button', { name: /^Tilda/ })
    .first()
    .click()
  const findings = page.locator('aside.margin button.title', { hasText: 'findings' })
  if ((await findings.getAttribute('aria-expanded')) === 'false') await findings.click()
  await page.keyboard.press('Shift+M')
  await picture('findings', 1500)
  await page.keyboard.press('Shift+M')
  await page.getByRole('link', { name: 'Measure' }).click()
  const check = name => page.getByRole('navigation', { name: 'Checks' }).getByRole('button', { name })
  // The frames are looked at first: what is still to be told stands beside the checks.
  await page.waitForFunction(() => !/looked at/.test(document.querySelector('nav.checks')?.textContent ?? 'looked at'))
  for (const [name, file] of [
    [/^lines/, 'measure'],
    [/^all at once/, 'measure-onsets'],
    [/^parts/, 'measure-parts'],
  ]) {
    await check(name).click()
    await page.keyboard.press('e')
    await picture(file, 1500)
  }
}

/** Sheets taken by the stand-in for a camera, one laid on the one before. */
async function sheets(page, desk, picture) {
  await desk('Heron lifts a foot', 1)
  await page.evaluate(() => (navigator.mediaDevices.getUserMedia = () => Promise.reject(new Error('none'))))
  await page.keyboard.press('Shift+J')
  await page.getByRole('button', { name: 'take by camera' }).click()
  for (let sheet = 1; sheet <= 4; sheet++) {
    await page.getByRole('button', { name: `take sheet ${sheet}` }).click()
    await page.getByRole('button', { name: `take sheet ${sheet + 1}` }).waitFor()
  }
  await page.getByRole('button', { name: '3 · on one another' }).click()
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'The drawing after', exact: true }).click()
  await page.getByText(/marks brought together/).waitFor()
  await picture('sheets', 1500)
  await page.keyboard.press('Escape')
}

/** The desk as it stands on a tablet, with keys on the screen. */
async function upright(browser, url) {
  const page = await browser.newPage({ viewport: { width: 800, height: 1100 }, hasTouch: true })
  await page.goto(url)
  await page.getByRole('button', { name: 'Sit down' }).click()
  const card = page.getByRole('link', { name: 'Open Hop between lily pads' })
  await page.goto(`${url}${(await card.getAttribute('href'))?.split('?')[0]}?frame=11`)
  await page.getByRole('button', { name: 'Unfold the margin' }).click()
  await page.getByRole('button', { name: 'keys on screen' }).click()
  await page.getByRole('button', { name: 'Fold the margin' }).click()
  await page.waitForTimeout(2000)
  await page.screenshot({ path: join(FOLDER, 'upright.png') })
  say('docs/screenshots/upright.png')
}

await tell(async () => {
  ensureDebianPackages({ browser: true })
  ensureNpmPackages()
  ensureBuilt()
  mkdirSync(FOLDER, { recursive: true })
  const cluster = await startCluster({ folder: temporaryFolder(), throwAway: true })
  let server = null
  try {
    cluster.createDatabase('shots')
    server = await startServer({ DATABASE_URL: cluster.url('shots'), PORT: '0', DEMO: '1' })
    await takePictures(`http://127.0.0.1:${server.port}`)
  } finally {
    await server?.stop()
    cluster.stop()
    cluster.remove()
  }
})
