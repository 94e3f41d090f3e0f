import { gifDelays } from '@unhurried/core/time'
import { applyPalette, GIFEncoder, quantize } from 'gifenc'
import type { Encode } from '../format.ts'

/** Fewer than half opaque is nothing: GIF knows no half-way. */
const OPAQUE = 128

/** A GIF with a palette for every picture, each held for whole hundredths of a second that add up. */
export const encode: Encode = async film => {
  const { width, height, seeThrough, turns } = film
  const frames = gifDelays(
    film.pictures.map(p => p.frames),
    film.fps,
  )
  const encoder = GIFEncoder()
  for (const [i, { picture, delayCs }] of frames.entries()) {
    const shown = film.pictures[picture]
    if (!shown) continue
    const { data } = (await film.paint(shown)).getImageData(0, 0, width, height)
    const format = seeThrough ? 'rgba4444' : 'rgb565'
    const palette = quantize(data, 256, { format, oneBitAlpha: seeThrough ? OPAQUE : false })
    const index = applyPalette(data, palette, format)
    const transparentIndex = palette.findIndex(colour => colour[3] === 0)
    encoder.writeFrame(index, width, height, {
      palette,
      // The encoder counts in milliseconds and writes hundredths.
      delay: delayCs * 10,
      // 0 is for ever; else how often it is repeated after the first time, −1 for not at all.
      repeat: turns === null ? 0 : turns - 1 || -1,
      transparent: seeThrough && transparentIndex >= 0,
      transparentIndex: Math.max(0, transparentIndex),
      dispose: seeThrough ? 2 : 1,
    })
    film.tell((i + 1) / frames.length)
  }
  encoder.finish()
  return Uint8Array.from(encoder.bytes())
}
