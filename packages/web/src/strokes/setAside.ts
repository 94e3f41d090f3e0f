import { elementsBrought, type Drawing } from '@unhurried/core/document'
import { grown, isEmptyBox, type Box } from '@unhurried/core/geometry'
import { SET_ASIDE_KIND, type SetAsideFile } from '@unhurried/contract'
import { fromBase64, toBase64 } from '../local/base64.ts'
import type { Parked } from '../local/database.ts'
import type { StrokeBook } from '../paint/strokes.ts'

/** The strokes of something set aside as a drawing, to be looked at; null when it brings none. */
export function drawingOf({ batch }: Parked): Drawing | null {
  const strokes = elementsBrought(batch.ops)
  if (strokes.length === 0) return null
  const elements = Object.fromEntries(strokes.map(element => [element.id, element]))
  return { id: batch.id, layer: '', number: 0, role: 'inbetween', elements, marks: {} }
}

/** Around strokes so much of the paper is shown: half as much again on every side, and never less than this in px. */
const AROUND_SHARE = 0.5
const LEAST_AROUND_PX = 70

/** The part of the paper to show: the strokes and what lies around them; of strokes nobody can see, all of it. */
export function sightOf(drawing: Drawing, book: StrokeBook, paper: { width: number; height: number }): Box {
  const whole: Box = { left: 0, top: 0, right: paper.width, bottom: paper.height }
  const drawn = book.boxOf(drawing)
  if (isEmptyBox(drawn)) return whole
  return grown(
    drawn,
    Math.max(LEAST_AROUND_PX, AROUND_SHARE * Math.max(drawn.right - drawn.left, drawn.bottom - drawn.top)),
  )
}

/** Something set aside as the text of a file. */
export function fileOf({ batch, code, what, at, samples }: Parked, schema: number): string {
  const file: SetAsideFile = {
    kind: SET_ASIDE_KIND,
    schema,
    label: batch.label,
    code,
    what: what.slice(0, 500),
    at: new Date(at).toISOString(),
    ops: batch.ops as unknown as SetAsideFile['ops'],
    samples: Object.fromEntries([...samples].map(([id, bytes]) => [id, toBase64(bytes)])),
  }
  return JSON.stringify(file)
}

export const samplesOf = (file: SetAsideFile): Map<string, Uint8Array> =>
  new Map(Object.entries(file.samples).map(([id, text]) => [id, fromBase64(text)]))
