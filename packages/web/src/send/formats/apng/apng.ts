import { anySize, framesOf, type SendFormat } from '../format.ts'

export const apng: SendFormat = {
  words: 'moving PNG',
  says: 'all colours, see-through',
  make: 'Make the moving PNG',
  extension: 'png',
  type: 'image/png',
  seeThrough: true,
  turns: 'for ever',
  sound: 'none',
  size: anySize,
  figures: ({ pictures, fps }) => [
    { name: 'pictures', says: String(pictures.length) },
    { name: 'delays', says: `whole frames of 1/${fps} s` },
    { name: 'together', says: `${(framesOf(pictures) / fps).toFixed(2)} s` },
  ],
  encode: async () => (await import('./encode.ts')).encode,
}
