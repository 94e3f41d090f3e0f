import type { FramedPlace, Plan, RecipeShot } from '../../motion/recipe.ts'
import { planWith } from '../../motion/table.ts'
import type { LayerPath } from '../../path/path.ts'
import type { Guide, ShotDocument, Take } from './model.ts'
import { pathOf, placeOnLayer } from './carried.ts'
import { followedMark, stepsSeen } from './followed.ts'
import { exposures } from './selectors.ts'
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

/** The plan of a guide of the document, worked out once: anew only when it followed a mark, and that may have moved. */
export function guidePlan(document: ShotDocument, guide: Guide): Plan<unknown> {
  const { drawings, takes, marks, layers } = document
  const known = plans.get(guide)
  const looked = [drawings, takes, marks, layers]
  if (known?.from.every((part, i) => part === looked[i])) return known.plan
  let follows = false
  const wayOf = (mark: string) => {
    follows = true
    return wayOfMark(document, guide, mark)
  }
  const plan = planWith(guide.recipe, guide.numbers, { ...recipeShot(document), wayOf })
  plans.set(guide, { plan, from: follows ? looked : [] })
  return plan
}

/** Where a mark is seen from where a guide begins, as places on the layer of the guide. */
function wayOfMark(document: ShotDocument, { take: id, from, layer }: Guide, markId: string): FramedPlace[] {
  const [mark, take] = [find(document.marks, markId), find(document.takes, id)]
  if (!mark || !take) return []
  const steps = followedMark(document, exposures(take, mark.layer), markId)
  return stepsSeen(document, take, mark.layer, steps).flatMap(({ start, at }): FramedPlace[] =>
    at && start >= from ? [{ frame: start - from, at: placeOnLayer(document, take, layer, start, at) }] : [],
  )
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
