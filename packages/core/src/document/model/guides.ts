import { followedPoint, guidePoint, type GuidePoint } from '../../motion/allowed.ts'
import type { FramedPlace, Plan, RecipeShot, Way } from '../../motion/recipe.ts'
import { expectedOf, planWith } from '../../motion/table.ts'
import { lengthOf } from '../../time/exposure.ts'
import type { LayerPath } from '../../path/path.ts'
import type { ClipPoint, Guide, ShotDocument, Take } from './model.ts'
import { pathOf, placeOnLayer, placeSeen } from './carried.ts'
import { followedMark, stepsSeen } from './followed.ts'
import { wayOfSeen } from './seen.ts'
import { cycleAt, exposures, timedBy } from './selectors.ts'
import { find } from './table.ts'

/** What a recipe is told of a shot. */
export const recipeShot = ({ format, exposure, scale }: ShotDocument): RecipeShot => ({
  width: format.width,
  height: format.height,
  fps: format.fps,
  exposure,
  scale,
})

/** What a plan was worked out from besides its guide, where that matters. */
interface Known {
  readonly plan: Plan<unknown>
  readonly from: readonly unknown[]
}
const plans = new WeakMap<Guide, Known>()

/** The plan of a guide of the document, worked out once: anew only when it follows something, and that may have moved. */
export function guidePlan(document: ShotDocument, guide: Guide): Plan<unknown> {
  const { drawings, takes, marks, layers, guides, points, clips } = document
  const known = plans.get(guide)
  const looked = [drawings, takes, marks, layers, guides, points, clips]
  if (known?.from.every((part, i) => part === looked[i])) return known.plan
  let isMoved = false
  const wayOf = (followed: string) => {
    isMoved = true
    const point = guidePoint(followed)
    if (point) return wayOfPoint(document, guide, point)
    const seen = find(points, followed)
    return seen ? wayThroughClip(document, guide, seen) : wayOfMark(document, guide, followed)
  }
  const plan = planWith(guide.recipe, guide.numbers, { ...recipeShot(document), wayOf })
  plans.set(guide, { plan, from: isMoved ? looked : [] })
  return plan
}

const NOWHERE: Way = { places: [], period: null }

/** Where a mark is seen from where a guide begins, as places on the layer of the guide. In a linked cycle it goes round. */
function wayOfMark(document: ShotDocument, { take: id, from, layer }: Guide, markId: string): Way {
  const [mark, take] = [find(document.marks, markId), find(document.takes, id)]
  if (!mark || !take) return NOWHERE
  const steps = followedMark(document, exposures(take, mark.layer), markId)
  const places = stepsSeen(document, take, mark.layer, steps).flatMap(({ start, at }): FramedPlace[] =>
    at && start >= from ? [{ frame: start - from, at: placeOnLayer(document, take, layer, start, at) }] : [],
  )
  const cycle = lieAlike(document, take, layer, mark.layer) ? cycleAt(take, timedBy(document, mark.layer), from) : null
  return cycle ? oneTurn(places, lengthOf(cycle.pattern)) : { places, period: null }
}

/** Where a point that is followed through a clip is seen from where a guide begins, as places on the layer of the guide. */
function wayThroughClip(document: ShotDocument, { take: id, from, layer }: Guide, point: ClipPoint): Way {
  const take = find(document.takes, id)
  if (!take) return NOWHERE
  const places = wayOfSeen(document, point, from, take.length).map(({ frame, at }) => ({
    frame: frame - from,
    at: placeOnLayer(document, take, layer, frame, at),
  }))
  return { places, period: null }
}

/** Where a point of another guide of the same take is from where a guide begins, as places on its layer. */
function wayOfPoint(document: ShotDocument, { take: id, from, layer }: Guide, { guide, point }: GuidePoint): Way {
  const [other, take] = [find(document.guides, guide), find(document.takes, id)]
  if (!other || !take || other.take !== id) return NOWHERE
  const plan = guidePlan(document, other)
  const goesRound = plan.loops && lieAlike(document, take, layer, other.layer)
  const turns = plan.loops ? Math.ceil((goesRound ? from + 2 * plan.frames : take.length) / plan.frames) : 1
  const places = Array.from({ length: turns }, (_, turn) => other.from + turn * plan.frames).flatMap(begins =>
    placesIn(plan, other, point).flatMap(({ frame, at }): FramedPlace[] => {
      const on = begins + frame
      if (goesRound || layer === other.layer) return [{ frame: on - from, at }]
      const seen = placeSeen(document, take, other.layer, on, at)
      return [{ frame: on - from, at: placeOnLayer(document, take, layer, on, seen) }]
    }),
  )
  return goesRound ? oneTurn(places, plan.frames) : { places, period: null }
}

/** Where a plan has a point, on the frames of its drawings. */
function placesIn(plan: Plan<unknown>, { recipe }: Guide, point: string): FramedPlace[] {
  let frame = 0
  return plan.exposures.flatMap(({ drawing, frames }): FramedPlace[] => {
    const at = find(expectedOf(recipe, plan, drawing).marks, point)
    frame += frames
    return at ? [{ frame: frame - frames, at: { x: at.x, y: at.y } }] : []
  })
}

/** Whether a place on one layer is the same place on another all the time. */
const lieAlike = (document: ShotDocument, take: Take, a: string, b: string): boolean =>
  pathOf(document, take, a) === pathOf(document, take, b)

/** One turn of a way that goes round. */
const oneTurn = (places: readonly FramedPlace[], period: number): Way => ({
  places: places.filter(({ frame }) => frame >= 0 && frame < period),
  period,
})

/**
 * Numbers of a guide as a copy of it has them: where what it follows was copied as well, it follows the copy. By ids of the
 * guides, and of the marks, that were copied.
 */
export const followingInstead = (
  numbers: Guide['numbers'],
  guides: ReadonlyMap<string, string>,
  marks: ReadonlyMap<string, string> = new Map(),
): Guide['numbers'] =>
  Object.fromEntries(
    Object.entries(numbers).map(([name, value]) => {
      const point = guidePoint(value)
      if (point) return [name, followedPoint({ ...point, guide: guides.get(point.guide) ?? point.guide })]
      return [name, (typeof value === 'string' && marks.get(value)) || value]
    }),
  )

/** The points of the other guides of its take that a guide can follow: those that do not follow it themselves. */
export const pointsToFollow = (
  document: ShotDocument,
  guide: Guide,
): { readonly guide: Guide; readonly points: readonly string[] }[] =>
  guidesOf(document, guide.take)
    .filter(other => other.id !== guide.id && !follows(document, other, guide.id))
    .map(other => ({ guide: other, points: guidePlan(document, other).marks }))
    .filter(({ points }) => points.length > 0)

/** Whether a guide follows another one, itself or by others in between. It may be the same: then it goes round in a ring. */
export function follows(document: ShotDocument, guide: Guide, id: string): boolean {
  const seen = new Set<string>()
  const next = [guide]
  for (let one = next.pop(); one; one = next.pop()) {
    for (const value of Object.values(one.numbers)) {
      const followed = guidePoint(value)?.guide
      if (followed === undefined || seen.has(followed)) continue
      if (followed === id) return true
      seen.add(followed)
      const other = find(document.guides, followed)
      if (other) next.push(other)
    }
  }
  return false
}

/** The guides of a take in the order of their frames. */
export const guidesOf = (document: ShotDocument, take: string): Guide[] =>
  Object.values(document.guides)
    .filter(guide => guide.take === take)
    .sort((a, b) => a.from - b.from || (a.id < b.id ? -1 : 1))

/** How the layer of a guide moves in a take; where it does not yet, as the plan would have it. */
export function guidePath(document: ShotDocument, take: Take, guide: Guide): LayerPath | null {
  const path = pathOf(document, take, guide.layer)
  return path ?? plannedPath(guidePlan(document, guide), guide.from)
}

/** The way that a plan has for a layer, from a frame on; null where it has none. */
export const plannedPath = ({ path }: Plan<unknown>, from: number): LayerPath | null =>
  path ? { ...path, keys: path.keys.map(key => ({ ...key, frame: key.frame + from })) } : null
