import type { Font } from 'opentype.js'
import { z } from 'zod'
import {
  boxOf,
  centreOf,
  contoursOf,
  outlinedLetters,
  paintedPieces,
  type GlyphStep,
  type Sample,
} from '@unhurried/core/geometry'

/** The typefaces that letters can be set in: those the desk itself is written in. */
export const FACES = ['plain', 'plain-bold', 'book', 'book-italic', 'book-heavy'] as const
export type Face = (typeof FACES)[number]
export const FACE_WORDS: Record<Face, string> = {
  plain: 'plain',
  'plain-bold': 'plain, bold',
  book: 'bookish',
  'book-italic': 'bookish, slanted',
  'book-heavy': 'bookish, heavy',
}

export interface LetterSettings {
  readonly text: string
  readonly face: Face
  /** height of the letters' body in paper pixels */
  readonly sizePx: number
  /** space added between letters, as a share of the size */
  readonly spacing: number
  /** lines round the letters with the pen in the hand, instead of paint */
  readonly outlined: boolean
}

export const FRESH_LETTERS: LetterSettings = {
  text: 'The Marsh Post',
  face: 'book',
  sizePx: 96,
  spacing: 0,
  outlined: false,
}
export const LETTERS = { most: 200, least: 8, largest: 1000, loosest: 0.5 }
const LINE_HEIGHT = 1.25

/** What is to be written, and how; what cannot be read of what was kept is fresh. */
export const Letters = z.object({
  text: z
    .string()
    .transform(text => text.slice(0, LETTERS.most))
    .catch(FRESH_LETTERS.text),
  face: z.enum(FACES).catch(FRESH_LETTERS.face),
  sizePx: z.number().min(LETTERS.least).max(LETTERS.largest).catch(FRESH_LETTERS.sizePx),
  spacing: z.number().min(0).max(LETTERS.loosest).catch(0),
  outlined: z.boolean().catch(false),
})

/** Letters as strokes, around the middle of what is written; and the letters the typeface does not have. */
export interface ShapedLetters {
  readonly paths: readonly (readonly Sample[])[]
  readonly missing: readonly string[]
}

/** Sets a text: lines below each other, each letter's pieces in the order of writing. */
export function shapeLetters(font: Font, { text, sizePx, spacing, outlined }: LetterSettings): ShapedLetters {
  const missing = [...new Set(text.replace(/\s/g, ''))].filter(letter => font.charToGlyphIndex(letter) === 0)
  const steps = text.split('\n').flatMap((line, i) => {
    const options = { kerning: true, letterSpacing: spacing }
    return font.getPath(line, 0, i * sizePx * LINE_HEIGHT, sizePx, options).commands as GlyphStep[]
  })
  const contours = contoursOf(steps)
  const paths = outlined ? outlinedLetters(contours) : paintedPieces(contours)
  if (paths.length === 0) return { paths, missing }
  const middle = centreOf(boxOf(paths.flat()))
  return { paths: paths.map(path => path.map(s => ({ ...s, x: s.x - middle.x, y: s.y - middle.y }))), missing }
}
