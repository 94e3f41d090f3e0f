import type { Page } from 'playwright/test'
import { expect, type World } from './world.ts'

const RATE = 22_050
/** A recording of so many seconds with a plucked tone at some moments, 16 bits, one channel. */
export function wav(seconds: number, hits: readonly number[], hz = 330): Buffer {
  const count = Math.round(seconds * RATE)
  const bytes = Buffer.alloc(44 + 2 * count)
  bytes.write('RIFF', 0)
  bytes.writeUInt32LE(36 + 2 * count, 4)
  bytes.write('WAVEfmt ', 8)
  bytes.writeUInt32LE(16, 16)
  bytes.writeUInt16LE(1, 20)
  bytes.writeUInt16LE(1, 22)
  bytes.writeUInt32LE(RATE, 24)
  bytes.writeUInt32LE(2 * RATE, 28)
  bytes.writeUInt16LE(2, 32)
  bytes.writeUInt16LE(16, 34)
  bytes.write('data', 36)
  bytes.writeUInt32LE(2 * count, 40)
  for (const at of hits) {
    for (let i = Math.round(at * RATE); i < Math.min(count, (at + 0.4) * RATE); i++) {
      const t = i / RATE - at
      const value = 0.6 * Math.exp(-10 * t) * Math.min(1, t / 0.004) * Math.sin(2 * Math.PI * hz * t)
      bytes.writeInt16LE(Math.round(32_000 * value), 44 + 2 * i)
    }
  }
  return bytes
}
export const HITS = [0.5, 1, 1.6, 2.25]
export const steps = { name: 'steps in the reeds.wav', mimeType: 'audio/wav', buffer: wav(3, HITS) }
export const sound = (page: Page) => page.getByRole('region', { name: 'Sound' })

export async function plan(page: Page, world: World, shot: string): Promise<void> {
  await page.goto(`${world.url}/shot/${shot}/plan`)
  await expect(sound(page)).toBeVisible()
}
export async function bring(page: Page, ...files: { name: string; mimeType: string; buffer: Buffer }[]): Promise<void> {
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    sound(page).getByRole('button', { name: 'bring in a recording' }).click(),
  ])
  await chooser.setFiles(files)
}
