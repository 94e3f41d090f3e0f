import { isAnimated, type ShotDocument, type Take } from '@unhurried/core/document'
import type { StrokeBook } from '../paint/strokes.ts'
import type { NamedFigure } from '../protocols/delivered.ts'
import { laidAt, type LaidDrawing } from './pictures.ts'

/** The frames of a take as they are sent off. */
export interface FramesOf {
  /** different pictures, in the order in which they first appear */
  readonly pictures: readonly (readonly LaidDrawing[])[]
  /** the number of its picture for every frame */
  readonly frames: readonly number[]
}

/** Every frame of a take as it is sent off: which drawings lie where. Frames that show the same in the same places share a picture. */
export function framesOf(document: ShotDocument, take: Take, book: Pick<StrokeBook, 'boxOf'>): FramesOf {
  const pictures: LaidDrawing[][] = []
  const numbers = new Map<string, number>()
  const frames = Array.from({ length: take.length }, (_, frame) => {
    const laid = laidAt(document, take, frame, book)
    const key = laid
      .map(({ drawing, maps }) => `${drawing.id} ${maps?.map(map => map.join(' ')).join() ?? ''}`)
      .join('|')
    const number = numbers.get(key) ?? pictures.length
    if (number === pictures.length) {
      numbers.set(key, number)
      pictures.push(laid)
    }
    return number
  })
  return { pictures, frames }
}

/** Figures are looked at so often altogether, each so often at most. */
const SIGHTS = 150
const MOST_SIGHTS = 4

/**
 * The painted figures of a take: each drawing and the paint that goes along with it, where it is first seen, and where it is before another ground, or elsewhere, once more. `changes`:
 * what lies under the drawings is another from frame to frame. Roughs are no figures yet, and what has no body (mist, blinking eyes) need not stand out.
 */
export function figuresOf({ layers }: ShotDocument, { pictures, frames }: FramesOf, changes: boolean): NamedFigure[] {
  /** by drawing, and by what lies there up to it: on which frame it is first seen so */
  const seen = new Map<string, Map<string, NamedFigure>>()
  const figures = pictures.map(laid => figuresIn(layers, laid))
  for (const [frame, picture] of frames.entries()) {
    for (const { drawing, of, key } of figures[picture] ?? []) {
      const sights = seen.get(drawing) ?? new Map<string, NamedFigure>()
      const own = changes ? `${frame}` : key
      if (!sights.has(own)) sights.set(own, { drawing, frame, of })
      seen.set(drawing, sights)
    }
  }
  const each = Math.min(MOST_SIGHTS, Math.max(1, Math.floor(SIGHTS / Math.max(1, seen.size))))
  return [...seen.values()].flatMap(sights => spread([...sights.values()], each))
}

/** The figures among what lies in a picture; `key` tells what lies there up to them from all else. */
function figuresIn(layers: ShotDocument['layers'], laid: readonly LaidDrawing[]) {
  return laid.flatMap(({ drawing }) => {
    const layer = layers[drawing.layer]
    if (!layer || !isAnimated(layer) || layer.volume === 'off') return []
    const isOwn = (other: string) => other === layer.id || layers[other]?.follows === layer.id
    const of = laid.flatMap((one, i) => (isOwn(one.drawing.layer) ? [i] : []))
    if (!of.some(i => Object.values(laid[i]?.drawing.elements ?? {}).some(one => one.kind === 'shape'))) return []
    const all = laid.slice(0, (of.at(-1) ?? 0) + 1)
    return [{ drawing: drawing.id, of, key: all.map(one => `${one.drawing.id} ${one.maps?.join(' ')}`).join() }]
  })
}

/** So many of some, the first and the last among them, evenly apart. */
const spread = <T>(all: readonly T[], count: number): T[] =>
  all.filter((_, i) => {
    const [before, here] = [i - 1, i].map(k => Math.floor((k * (count - 1)) / Math.max(1, all.length - 1)))
    return i === 0 || all.length <= count || (count > 1 && here !== before)
  })
