import { needPositive, needWhole } from '../errors.ts'
import { CUTS, type CutName } from '../document/model/model.ts'
import { wholeFrames } from '../time/frames.ts'
import { drawingsNeeded } from './counting.ts'

/** Where a film is shown: a picture size, and how wide that picture is on a phone held upright, if it is seen on one. */
export interface Destination {
  readonly id: string
  readonly words: string
  readonly width: number
  readonly height: number
}

/** Usual sizes. A shot may have any other. */
export const DESTINATIONS: readonly Destination[] = [
  { id: 'wide', words: 'wide video', width: 1920, height: 1080 },
  { id: 'wide-small', words: 'wide video, small', width: 1280, height: 720 },
  { id: 'tall', words: 'tall phone video', width: 1080, height: 1920 },
  { id: 'square', words: 'square post', width: 1080, height: 1080 },
  { id: 'portrait', words: 'portrait post', width: 1080, height: 1350 },
  { id: 'loop', words: 'small loop', width: 480, height: 480 },
  { id: 'sprite', words: 'game sprite', width: 64, height: 64 },
]

/** The inside width of a usual phone's glass, held upright. */
export const PHONE_WIDTH_MM = 68
/** The same in the pixels of a screen, which count as 1/96 inch whatever the glass. */
export const PHONE_WIDTH_SCREEN_PX = Math.round((PHONE_WIDTH_MM / 25.4) * 96)
/** The share of the picture left free on every side, where edges may be cut off. */
export const SAFE_SHARE = 0.05

/** A picture as it is seen on a phone. Lengths in millimetres on the glass. */
export interface SeenOnPhone {
  readonly widthMm: number
  readonly heightMm: number
  /** how many picture pixels lie side by side in a millimetre */
  readonly pxPerMm: number
  /** the thinnest line that is still seen there, in picture pixels: 0.15 mm at reading distance */
  readonly thinnestLinePx: number
}

/** 0.15 mm seen from 30 cm is 1.7 minutes of arc: about what the eye separates with comfort. */
const THINNEST_MM = 0.15

/** How large a picture is across the width of a phone. Throws a UsageError on a size that is not above 0. */
export function seenOnPhone(width: number, height: number): SeenOnPhone {
  needPositive(width, 'width')
  needPositive(height, 'height')
  const pxPerMm = width / PHONE_WIDTH_MM
  return {
    widthMm: PHONE_WIDTH_MM,
    heightMm: height / pxPerMm,
    pxPerMm,
    thinnestLinePx: THINNEST_MM * pxPerMm,
  }
}

/** The part of a picture inside the safe margin, in pixels. */
export function safeBox(width: number, height: number): { left: number; top: number; right: number; bottom: number } {
  const [dx, dy] = [width * SAFE_SHARE, height * SAFE_SHARE]
  return { left: dx, top: dy, right: width - dx, bottom: height - dy }
}

/**
 * The largest part of a picture that has another's proportions, around its middle, in pixels: what filling that one
 * leaves. Throws a UsageError on a size that is not above 0.
 */
export function cropTo(
  picture: { readonly width: number; readonly height: number },
  other: { readonly width: number; readonly height: number },
): { left: number; top: number; right: number; bottom: number } {
  for (const size of [picture.width, picture.height, other.width, other.height]) needPositive(size, 'size')
  const ratio = other.width / other.height
  const width = Math.min(picture.width, picture.height * ratio)
  const height = width / ratio
  const [left, top] = [(picture.width - width) / 2, (picture.height - height) / 2]
  return { left, top, right: left + width, bottom: top + height }
}

/** The part of a picture that is left when it is cut to another shape, pixels. */
export const cutBox = (picture: { readonly width: number; readonly height: number }, cut: CutName) =>
  cropTo(picture, { width: CUTS[cut][0], height: CUTS[cut][1] })

/** Whether a picture has a shape already. */
export const hasShape = (picture: { readonly width: number; readonly height: number }, cut: CutName): boolean =>
  picture.width * CUTS[cut][1] === picture.height * CUTS[cut][0]

const CUT_WORDS: Readonly<Record<CutName, string>> = { wide: '16:9', square: 'a square', portrait: '4:5', tall: '9:16' }
/** A shape a picture is cut to, as it is told. */
export const cutInWords = (cut: CutName): string => CUT_WORDS[cut]

/**
 * A ratio of whole numbers for a picture, as small as they get: 16:9; or "1.85 to 1" when they stay large. Throws a
 * UsageError on a size that is no whole number from 1.
 */
export function ratioInWords(width: number, height: number): string {
  needWhole(width, 1, 'width')
  needWhole(height, 1, 'height')
  let [a, b] = [width, height]
  while (b !== 0) [a, b] = [b, a % b]
  const [w, h] = [width / a, height / a]
  return w <= 32 && h <= 32 ? `${w}:${h}` : `${(width / height).toFixed(2)} to 1`
}

/** What drawing at a rate and an exposure comes to. */
export interface PaceOfDrawing {
  readonly fps: number
  readonly exposure: number
  readonly perSecond: number
  /** drawings for the shot: every drawing held for `exposure` frames */
  readonly forShot: number
}

/**
 * Drawings a second, and for a shot of so many seconds, at a rate and an exposure. The shot takes the nearest whole
 * frames. Throws a UsageError on a rate, an exposure or a time that is not above 0.
 */
export function paceOfDrawing(fps: number, exposure: number, seconds: number): PaceOfDrawing {
  needPositive(fps, 'fps')
  needWhole(exposure, 1, 'exposure')
  needPositive(seconds, 'seconds')
  const { frames } = wholeFrames(seconds, fps)
  return { fps, exposure, perSecond: fps / exposure, forShot: drawingsNeeded(frames, exposure) }
}

/**
 * How far along a sample movement is at a moment when drawn at a rate and an exposure: the share of its time, stepped to
 * the drawing that is on screen. All samples begin and end together whatever their rate. Throws a UsageError on a duration
 * that is not above 0.
 */
export function steppedShare(elapsedMs: number, durationMs: number, fps: number, exposure: number): number {
  needPositive(durationMs, 'duration')
  const frame = Math.floor((elapsedMs * fps) / 1000 + 1e-9)
  const drawing = Math.floor(frame / exposure)
  return Math.min(1, (drawing * exposure * 1000) / fps / durationMs)
}
