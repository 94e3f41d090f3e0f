import { pngSize } from '@unhurried/core/assets'
import type { Point } from '@unhurried/core/geometry'
import type { ModelSheet } from '@unhurried/core/models'
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { CROWN, HEIGHTS, SHEET, SOLE } from './tildaSides.ts'

const SIDE_NAMES = ['front', 'side', 'back'] as const

/** The model sheet with its stored pictures, as they were painted by the script. */
export function modelSheet(): {
  readonly model: ModelSheet
  readonly pictures: readonly { id: string; bytes: Buffer }[]
} {
  const onPicture = ({ x, y }: Point): Point => ({
    x: (x - SHEET.left) * SHEET.scale,
    y: (y - SHEET.top) * SHEET.scale,
  })
  const all = SIDE_NAMES.map(name => {
    const bytes = readFileSync(new URL(`./models/${name}.png`, import.meta.url))
    const size = pngSize(bytes)
    if (!size) throw new Error(`models/${name}.png is no picture`)
    const media = createHash('sha256').update(bytes).digest('hex')
    return { bytes, view: { id: name, name, media, ...size, low: onPicture(SOLE), high: onPicture(CROWN) } }
  })
  return {
    model: { name: 'Tilda', views: all.map(one => one.view), heights: [...HEIGHTS] },
    pictures: all.map(({ bytes, view }) => ({ id: view.media, bytes })),
  }
}
