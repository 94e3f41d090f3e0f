import { distance, type Point } from '../../geometry/point.ts'
import { map } from '../../geometry/matrix.ts'
import { momentUnder } from '../../clip/laid.ts'
import { median } from '../../median.ts'
import type { ClipPoint, FilmClip, SeenPlace, ShotDocument } from './model.ts'
import { find } from './table.ts'

/** Pictures of a clip begin within a thousandth of a second of when they are said to. */
const HAIR_S = 0.002

/** Where a followed point was seen on the picture that is there at a moment of its clip, seconds; null before the first, after a gap, and where it was lost. */
export function seenAt({ places }: ClipPoint, s: number): SeenPlace | null {
  let [low, high] = [0, places.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((places[middle] as SeenPlace).s <= s + HAIR_S) low = middle + 1
    else high = middle
  }
  const place = places[low - 1]
  if (!place) return null
  // What was seen last holds for as long as a picture usually does, and not for ever.
  return s - place.s <= Math.max(2 * usualStep(places), 0.1) ? place : null
}

function usualStep(places: readonly SeenPlace[]): number {
  const [first, last] = [places[0], places[places.length - 1]]
  return first && last && places.length > 1 ? (last.s - first.s) / (places.length - 1) : 0
}

/** Where a followed point lies on the paper on a frame (from 0) under which its clip lies; null where it is not seen. */
export function seenOn(document: ShotDocument, point: ClipPoint, frame: number): Point | null {
  const clip = find(document.clips, point.clip)
  const s = clip ? momentUnder(clip, document.format.fps, frame) : null
  const place = s === null ? null : seenAt(point, s)
  return clip && place ? map(clip.matrix, place) : null
}

/** A point that is seen on a frame, paper pixels. */
export interface SeenOn {
  readonly frame: number
  readonly at: Point
}

/** Where a followed point lies on the paper on every frame, from one (from 0) up to, but not with, another, on which it is seen. */
export function wayOfSeen(document: ShotDocument, point: ClipPoint, from: number, to: number): SeenOn[] {
  return Array.from({ length: Math.max(0, to - from) }, (_, i) => from + i).flatMap(frame => {
    const at = seenOn(document, point, frame)
    return at ? [{ frame, at }] : []
  })
}

/** Less than this is the trembling of what is followed, paper pixels. */
const STILL_PX = 0.35

/**
 * How far a followed point usually goes a frame while it moves, paper pixels: of all its changes of place, each by the frames it took, the middle one. Null where it does
 * not move.
 */
export function usualStepOf(document: ShotDocument, point: ClipPoint): number | null {
  const clip = find(document.clips, point.clip)
  if (!clip) return null
  const { fps } = document.format
  const way = wayOfSeen(document, point, clip.from, clip.from + Math.ceil(((clip.outS - clip.inS) / clip.rate) * fps))
  const steps: number[] = []
  let last = way[0]
  for (const seen of way) {
    if (!last || distance(last.at, seen.at) < STILL_PX) continue
    steps.push(distance(last.at, seen.at) / (seen.frame - last.frame))
    last = seen
  }
  return steps.length === 0 ? null : median(steps)
}

/** The followed points of a clip, in their order. */
export const pointsOf = (document: ShotDocument, clip: string): ClipPoint[] =>
  Object.values(document.points)
    .filter(point => point.clip === clip)
    .sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1))

/** How far a followed point goes with each picture, paper pixels; the first of it has none before it. */
export const stepsOfSeen = ({ matrix }: FilmClip, { places }: ClipPoint): number[] =>
  places.map(place => map(matrix, place)).flatMap((at, i, all) => (i === 0 ? [] : [distance(all[i - 1] as Point, at)]))
