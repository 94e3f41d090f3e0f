import { gifDelays } from '@unhurried/core/time'
import { anySize, type SendFormat } from '../format.ts'

const MOST_TOLD = 14

export const gif: SendFormat = {
  words: 'looping GIF',
  says: '256 colours a picture',
  make: 'Make the GIF',
  extension: 'gif',
  type: 'image/gif',
  seeThrough: true,
  turns: 'for ever',
  sound: 'none',
  size: anySize,
  figures({ pictures, fps }) {
    const delays = gifDelays(
      pictures.map(p => p.frames),
      fps,
    ).map(d => d.delayCs)
    const said = delays.slice(0, MOST_TOLD).join(', ')
    return [
      { name: 'pictures', says: String(delays.length) },
      { name: 'delays, 1/100 s', says: delays.length > MOST_TOLD ? `${said} …` : said },
      { name: 'together', says: `${(delays.reduce((sum, d) => sum + d, 0) / 100).toFixed(2)} s` },
    ]
  },
  encode: async () => (await import('./encode.ts')).encode,
}
