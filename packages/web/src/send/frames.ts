import type { ShotDocument, Take } from '@unhurried/core/document'
import type { StrokeBook } from '../paint/strokes.ts'
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
