import { evenSize, type SendFormat } from '../format.ts'
import { videoFigures } from '../figures.ts'

export const mp4: SendFormat = {
  words: 'MP4 video',
  says: 'plays nearly everywhere',
  make: 'Make the MP4',
  extension: 'mp4',
  type: 'video/mp4',
  seeThrough: false,
  turns: 'times',
  sound: 'inside',
  size: evenSize,
  figures: videoFigures,
  encode: async () => (await import('./encode.ts')).encode,
}
