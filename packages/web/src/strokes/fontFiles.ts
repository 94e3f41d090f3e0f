import book from '@fontsource/literata/files/literata-latin-500-normal.woff?url'
import bookHeavy from '@fontsource/literata/files/literata-latin-800-normal.woff?url'
import bookItalic from '@fontsource/literata/files/literata-latin-500-italic.woff?url'
import plain from '@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-400-normal.woff?url'
import plainBold from '@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-700-normal.woff?url'
import opentype, { type Font } from 'opentype.js'
import type { Face } from './letters.ts'

const FILES: Record<Face, string> = {
  plain,
  'plain-bold': plainBold,
  book,
  'book-italic': bookItalic,
  'book-heavy': bookHeavy,
}
const opened = new Map<Face, Promise<Font>>()

/** The outlines of a typeface that ships with the desk. Read once; a failure is not remembered. */
export function fontOf(face: Face): Promise<Font> {
  const known = opened.get(face)
  if (known) return known
  const font = fetch(FILES[face]).then(async reply => opentype.parse(await reply.arrayBuffer()))
  opened.set(face, font)
  font.catch(() => opened.delete(face))
  return font
}
