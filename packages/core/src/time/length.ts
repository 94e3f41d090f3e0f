import { wholeFrames, type WholeFrames } from './frames.ts'

/** A length as it was typed, understood; or why it was not. */
export type LengthReading =
  | ({ ok: true; unit: 'frames' | 'seconds' | 'timecode' } & WholeFrames)
  | { ok: false; code: 'empty' | 'not-a-length' | 'too-short' | 'too-long' | 'fraction-of-a-frame' | 'past-sixty' }

/** The longest shot the desk takes: 2 hours at 60 fps would be 432,000 frames; a shot is far shorter than a film. */
export const LONGEST_SHOT_FRAMES = 20_000

const FRAMES = /^(\d+(?:\.\d+)?)\s*(?:f|fr|frames?)?$/
const SECONDS = /^(\d+(?:[.,]\d+)?|[.,]\d+)\s*(?:s|sec|seconds?)$/
const MILLISECONDS = /^(\d+(?:\.\d+)?)\s*(?:ms|milliseconds?)$/
const TIMECODE = /^(?:(?:(\d+):)?(\d+):)?(\d+):(\d{1,2})$/

/**
 * Reads a length typed by hand at `fps`: "36" or "36 f" are frames, "1.5 s" seconds, "200 ms" milliseconds, "1:12" is one second and twelve
 * frames, "1:02:12" adds minutes and "0:01:02:12" hours, as timecode is shown. Where minutes stand before them, seconds go up to 59. A fraction
 * of a frame is refused, seconds are rounded to whole frames and say so.
 */
export function readLength(typed: string, fps: number): LengthReading {
  const text = typed.trim().toLowerCase()
  if (text === '') return { ok: false, code: 'empty' }
  const frames = FRAMES.exec(text)
  if (frames) {
    const n = Number(frames[1])
    return Number.isInteger(n) || n === Infinity
      ? ofFrames(n, fps, 'frames')
      : { ok: false, code: 'fraction-of-a-frame' }
  }
  const seconds = SECONDS.exec(text)
  if (seconds) return ofSeconds(Number(seconds[1]?.replace(',', '.')), fps)
  const thousandths = MILLISECONDS.exec(text)
  if (thousandths) return ofSeconds(Number(thousandths[1]) / 1000, fps)
  const code = TIMECODE.exec(text)
  if (code && Number(code[4]) < fps) {
    const [hours, minutes, seconds] = [code[1], code[2], code[3]].map(part => Number(part ?? 0)) as [
      number,
      number,
      number,
    ]
    if ((code[2] && seconds > 59) || (code[1] && minutes > 59)) return { ok: false, code: 'past-sixty' }
    return ofFrames(((hours * 60 + minutes) * 60 + seconds) * fps + Number(code[4]), fps, 'timecode')
  }
  return { ok: false, code: 'not-a-length' }
}

function ofFrames(n: number, fps: number, unit: 'frames' | 'timecode'): LengthReading {
  if (n < 1) return { ok: false, code: 'too-short' }
  if (n > LONGEST_SHOT_FRAMES) return { ok: false, code: 'too-long' }
  return { ok: true, unit, frames: n, wished: n, exact: true, seconds: n / fps }
}

function ofSeconds(seconds: number, fps: number): LengthReading {
  if (!(seconds > 0)) return { ok: false, code: 'too-short' }
  if (seconds > LONGEST_SHOT_FRAMES) return { ok: false, code: 'too-long' }
  const whole = wholeFrames(seconds, fps)
  return whole.frames > LONGEST_SHOT_FRAMES ? { ok: false, code: 'too-long' } : { ok: true, unit: 'seconds', ...whole }
}
