import UPNG from 'upng-js'
import type { Encode } from '../format.ts'
import { exactly } from './exact.ts'

/** Painting is quick, packing all pictures together takes the rest. */
const PAINTED = 0.5

/** A moving PNG in full colour, its delays exact. */
export const encode: Encode = async film => {
  const { width, height, pictures } = film
  const painted: ArrayBuffer[] = []
  for (const picture of pictures) {
    const { data } = (await film.paint(picture)).getImageData(0, 0, width, height)
    painted.push(data.buffer.slice(0) as ArrayBuffer)
    film.tell((PAINTED * painted.length) / pictures.length)
  }
  const FULL_COLOUR = 0
  const packed = UPNG.encode(
    painted,
    width,
    height,
    FULL_COLOUR,
    pictures.map(() => 1),
  )
  film.tell(1)
  const frames = pictures.map(picture => picture.frames)
  return exactly(new Uint8Array(packed), frames, film.fps, film.turns, UPNG.crc.crc)
}
