import { needPositive } from '../errors.ts'

/** One picture of a GIF: which of the given pictures, and its delay in hundredths of a second. */
export interface GifFrame {
  readonly picture: number
  readonly delayCs: number
}

/** Viewers slow down delays under two hundredths, so none are made. */
export const SHORTEST_GIF_DELAY_CS = 2

/**
 * Delays for pictures that last `frames[i]` frames at `fps`, in the hundredths of a second that GIF counts. Every change
 * falls on the hundredth nearest to its true moment, so delays alternate (12 fps: 8, 9, 8 …), no error adds up, and the
 * total is the film's length to the nearest hundredth. Of two pictures that come too close to be shown for two hundredths
 * each, the shorter is left out and its time given to the other: a hold always stays. Throws when fps or a length is not above zero.
 */
export function gifDelays(frames: readonly number[], fps: number): GifFrame[] {
  needPositive(fps, 'fps')
  const out: { picture: number; start: number; frames: number }[] = []
  let elapsed = 0
  frames.forEach((n, picture) => {
    needPositive(n, 'frames of a picture')
    const start = Math.round((elapsed * 100) / fps)
    const last = out[out.length - 1]
    if (!last || start - last.start >= SHORTEST_GIF_DELAY_CS) out.push({ picture, start, frames: n })
    else if (n > last.frames) out[out.length - 1] = { picture, start: last.start, frames: n }
    elapsed += n
  })
  const end = Math.max(SHORTEST_GIF_DELAY_CS, Math.round((elapsed * 100) / fps))
  const last = out[out.length - 1]
  if (out.length > 1 && last && end - last.start < SHORTEST_GIF_DELAY_CS) out.pop()
  return out.map(({ picture, start }, i) => ({ picture, delayCs: (out[i + 1]?.start ?? end) - start }))
}
