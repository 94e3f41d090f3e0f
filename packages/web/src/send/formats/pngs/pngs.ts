import { anySize, framesOf, type SendFormat } from '../format.ts'

export const pngs: SendFormat = {
  words: 'numbered PNGs',
  says: 'a file for every frame',
  make: 'Make the PNGs',
  extension: 'zip',
  type: 'application/zip',
  seeThrough: true,
  turns: 'none',
  sound: 'beside',
  size: anySize,
  figures: ({ pictures }) => [{ name: 'files', says: `${framesOf(pictures)}, 0001.png …` }],
  encode: async () => (await import('./encode.ts')).encode,
}
