import { evenSize, type SendFormat } from '../format.ts'
import { videoFigures } from '../figures.ts'

export const webm: SendFormat = {
  words: 'WebM video',
  says: 'can be see-through',
  make: 'Make the WebM',
  extension: 'webm',
  type: 'video/webm',
  seeThrough: true,
  turns: 'times',
  sound: 'inside',
  size: evenSize,
  figures: videoFigures,
  encode: async () => (await import('./encode.ts')).encode,
}
