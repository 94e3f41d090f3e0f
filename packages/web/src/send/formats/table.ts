import { apng } from './apng/apng.ts'
import type { SendFormat } from './format.ts'
import { gif } from './gif/gif.ts'
import { mp4 } from './mp4/mp4.ts'
import { pngs } from './pngs/pngs.ts'
import { webm } from './webm/webm.ts'

/** What a shot can be sent off as, in the order it is offered. */
const TABLE = { gif, mp4, webm, apng, pngs } as const

export type FormatName = keyof typeof TABLE
export const FORMATS: Readonly<Record<FormatName, SendFormat>> = TABLE
export const FORMAT_NAMES = Object.keys(TABLE) as FormatName[]
