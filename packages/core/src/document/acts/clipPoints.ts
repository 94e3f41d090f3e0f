import { RECIPES } from '../../motion/table.ts'
import { placeOnLayer } from '../model/carried.ts'
import { recipeShot } from '../model/guides.ts'
import { LIMITS, type ClipPoint, type FilmClip, type Guide, type SeenPlace, type ShotDocument } from '../model/model.ts'
import { pointsOf, wayOfSeen } from '../model/seen.ts'
import { find } from '../model/table.ts'
import { BY_HAND } from '../operations/clips.ts'
import type { Operation } from '../operations/index.ts'
import { AS_IT_COMES } from './guides.ts'

/** A new point, seen at one place that the hand said. */
export function addPoint(
  document: ShotDocument,
  clip: FilmClip,
  { id, name }: { readonly id: string; readonly name: string },
  place: Omit<SeenPlace, 'sure'>,
): Operation[] {
  const order = Math.max(-1, ...pointsOf(document, clip.id).map(other => other.order)) + 1
  return [{ kind: 'point.add', point: { id, clip: clip.id, name, order, places: [{ ...place, sure: BY_HAND }] } }]
}

/** Which moments of a clip are followed anew once the hand has put a point somewhere: back to the place it put before, and on to the next one. */
export function followedAnew({ places }: ClipPoint, s: number): { readonly after: number; readonly before: number } {
  const byHand = places.filter(place => place.sure === BY_HAND && place.s !== s).map(place => place.s)
  const earlier = byHand.filter(at => at < s)
  return { after: earlier.length ? s : -Infinity, before: Math.min(Infinity, ...byHand.filter(at => at > s)) }
}

const quantised = ({ s, x, y, sure }: SeenPlace): SeenPlace => ({
  s: Math.round(s * 1e5) / 1e5,
  x: Math.round(x * 100) / 100 + 0,
  y: Math.round(y * 100) / 100 + 0,
  sure: Math.round(Math.max(0, sure) * 1000) / 1000,
})

/**
 * A point with places it was seen at, by moment; those that were known between two moments (both left out) are gone, all others stay. Of more than a point may
 * have, the earliest stay.
 */
export function withPlaces(
  point: ClipPoint,
  seen: readonly SeenPlace[],
  { after, before }: { readonly after: number; readonly before: number },
): Operation[] {
  const kept = point.places.filter(place => place.s <= after || place.s >= before)
  const fresh = seen.map(quantised)
  const taken = new Set(fresh.map(place => place.s))
  const places = [...kept.filter(place => !taken.has(place.s)), ...fresh]
    .sort((a, b) => a.s - b.s)
    .slice(0, LIMITS.placesPerPoint)
  return [{ kind: 'point.set', id: point.id, patch: { places } }]
}

/**
 * The way of a point as a guide for a layer of a take, begun where it is seen first from a frame on and laid over it there. Nothing where it is seen on no frame of
 * the take.
 */
export function guideAlong(
  document: ShotDocument,
  point: ClipPoint,
  where: Pick<Guide, 'take' | 'layer' | 'from'>,
  id: string,
): Operation[] {
  const take = find(document.takes, where.take)
  if (!take) return []
  const [first] = [where.from, 0].flatMap(from => wayOfSeen(document, point, from, take.length).slice(0, 1))
  if (!first) return []
  const at = placeOnLayer(document, take, where.layer, first.frame, first.at)
  const recipe = 'along'
  const numbers = {
    ...RECIPES[recipe].defaults(recipeShot(document)),
    follows: point.id,
    x: Math.round(at.x) + 0,
    y: Math.round(at.y) + 0,
  }
  return [{ kind: 'guide.add', guide: { id, recipe, numbers, ...where, from: first.frame, ...AS_IT_COMES } }]
}

/** Takes a clip away, with the points that are followed through it. */
export const removeClip = (document: ShotDocument, clip: string): Operation[] => [
  ...pointsOf(document, clip).map((point): Operation => ({ kind: 'point.remove', id: point.id })),
  { kind: 'clip.remove', id: clip },
]
