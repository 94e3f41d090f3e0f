import { expect, test } from './world.ts'

test.describe.configure({ timeout: 120_000 })
test.use({ contextOptions: { reducedMotion: 'reduce' } })

/** Windows people sit at; the last is 1440×900 at 200 %. */
const SIZES = [
  [1024, 720],
  [1180, 820],
  [1280, 800],
  [1920, 1080],
  [800, 1100],
  [720, 450],
] as const

/** Controls that lie outside the window with no way to scroll there, under something else, cut, or too small to be met. */
function lost(): string[] {
  const scrolls = (from: Element): boolean => {
    for (let at = from.parentElement; at; at = at.parentElement) {
      const { overflowX, overflowY } = getComputedStyle(at)
      if (!/auto|scroll/.test(overflowX + overflowY)) continue
      if (at.scrollHeight > at.clientHeight + 1 || at.scrollWidth > at.clientWidth + 1) return true
    }
    return false
  }
  const found: string[] = []
  for (const control of document.querySelectorAll<HTMLElement>('button, a[href], [role=slider]')) {
    const { left, right, top, bottom, width, height } = control.getBoundingClientRect()
    if (!width || !height || getComputedStyle(control).visibility === 'hidden') continue
    const blame = (why: string) =>
      found.push(`${control.ariaLabel ?? control.textContent?.trim().replace(/\s+/g, ' ')}: ${why}`)
    if (control.matches('button') && Math.min(width, height) < 23.5) blame(`${width}×${height}`)
    if (control.matches('button') && control.scrollWidth > control.clientWidth + 2) blame('cut')
    if (scrolls(control)) continue
    if (left < -1 || top < -1 || right > innerWidth + 1 || bottom > innerHeight + 1) blame('outside')
    else {
      const met = document.elementFromPoint((left + right) / 2, (top + bottom) / 2)
      if (met && !control.contains(met) && !met.contains(control)) blame(`under ${met.className}`)
    }
  }
  return found
}

test('in windows of every size no control of a shot’s rooms is covered, cut or lost', async ({ page, newWorld }) => {
  const world = await newWorld({ DEMO: '1' })
  await page.goto(world.url)
  await page.getByRole('button', { name: 'Sit down' }).click()
  await page.getByRole('link', { name: 'Open Marching home' }).click()
  await expect(page.getByTestId('paper')).toBeVisible()
  const found: Record<string, string[]> = {}
  for (const room of ['Desk', 'Flip', 'Plan', 'Measure', 'Send off']) {
    await page.getByRole('link', { name: room, exact: true }).click()
    await expect(page).toHaveTitle(new RegExp(room))
    for (const [width, height] of SIZES) {
      await page.setViewportSize({ width, height })
      await page.waitForTimeout(300)
      const here = await page.evaluate(lost)
      if (here.length) found[`${room} ${width}×${height}`] = here
    }
  }
  expect(found).toEqual({})
})
