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

/**
 * The painted figures of a take, each drawing where it is first seen: it and the paint that goes along with it. Roughs are no figures yet, and what has no body (mist, blinking
 * eyes) need not stand out.
 */
export function figuresOf({ layers }: ShotDocument, { pictures }: Pick<FramesOf, 'pictures'>): NamedFigure[] {
  const seen = new Set<string>()
  return pictures.flatMap((laid, picture) =>
    laid.flatMap(({ drawing }): NamedFigure[] => {
      const layer = layers[drawing.layer]
      if (!layer || !isAnimated(layer) || layer.volume === 'off' || seen.has(drawing.id)) return []
      seen.add(drawing.id)
      const isOwn = (other: string) => other === layer.id || layers[other]?.follows === layer.id
      const of = laid.flatMap((one, i) => (isOwn(one.drawing.layer) ? [i] : []))
      const isPainted = of.some(i => Object.values(laid[i]?.drawing.elements ?? {}).some(one => one.kind === 'shape'))
      return isPainted ? [{ drawing: drawing.id, picture, of }] : []
    }),
  )
}
