import { median } from '../../median.ts'
import { distance, type Point } from '../../geometry/point.ts'

/** Where a part is on a frame (from 0), paper pixels. */
export interface TrackPlace {
  readonly frame: number
  readonly at: Point
}

/** The way of one part: a mark of one's own drawings, or a point that is followed through a clip. Places in the order of frames. */
export interface Track {
  readonly id: string
  readonly name: string
  readonly places: readonly TrackPlace[]
}

/** How a part goes to a place from the one before it. */
export interface TrackStep {
  /** the frame on which the later place is seen first */
  readonly frame: number
  /** px a frame: the way over the frames the earlier place was held, or over those usual for the move where it was held longer */
  readonly pxPerFrame: number
  readonly from: Point
  readonly to: Point
}

/** A part that is off by less, px, is where it was: what follows pictures is not surer than that. */
const STILL_PX = 0.35

/** The places of a part that are other ones than before: what is held is one place, from the frame on it is seen. */
export function heldPlaces({ places }: Track): (TrackPlace & { readonly held: number })[] {
  const held: (TrackPlace & { held: number })[] = []
  for (const place of places) {
    const last = held[held.length - 1]
    if (last && distance(last.at, place.at) < STILL_PX) last.held = place.frame - last.frame + 1
    else {
      if (last) last.held = place.frame - last.frame
      held.push({ ...place, held: 1 })
    }
  }
  return held
}

/**
 * How a part goes from place to place, px a frame: the distance over the frames the earlier place is held, but no more than are usual (the median): a hold of 12
 * before 30 px on twos is 15 px a frame and not 2.5.
 */
export function trackSteps(track: Track): TrackStep[] {
  const places = heldPlaces(track)
  const usual = median(
    places.slice(0, -1).map(place => place.held),
    1,
  )
  return places.slice(1).map((to, i) => {
    const from = places[i] as (typeof places)[number]
    const frames = Math.max(1, Math.min(from.held, usual))
    return { frame: to.frame, pxPerFrame: distance(from.at, to.at) / frames, from: from.at, to: to.at }
  })
}
