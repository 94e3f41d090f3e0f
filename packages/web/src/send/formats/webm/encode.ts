import { WebMOutputFormat } from 'mediabunny'
import type { Encode } from '../format.ts'
import { videoEncoder } from '../video.ts'
import { encodeClear } from './clear.ts'

const encodeOnPaper = videoEncoder(() => new WebMOutputFormat(), 'vp9')

/** VP9 in WebM; see-through where that is asked. */
export const encode: Encode = film => (film.seeThrough ? encodeClear(film) : encodeOnPaper(film))
