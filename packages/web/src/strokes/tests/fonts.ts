import { createRequire } from 'node:module'
import opentype, { type Font } from 'opentype.js'

/** A typeface that ships with the desk, read from its package. */
export function bookFont(): Font {
  const { resolve } = createRequire(import.meta.url)
  return opentype.loadSync(resolve('@fontsource/literata/files/literata-latin-500-normal.woff'))
}
