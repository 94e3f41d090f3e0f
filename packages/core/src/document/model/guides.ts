import type { FramedPlace, Plan, RecipeShot } from '../../motion/recipe.ts'
import { planWith } from '../../motion/table.ts'
import type { Guide, ShotDocument } from './model.ts'
import { followedMark } from './followed.ts'
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
  const { drawings, takes, marks } = document
  const known = plans.get(guide)
  const looked = [drawings, takes, marks]
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

/** Where a mark lies on the drawings of its layer from where a guide begins. */
function wayOfMark(document: ShotDocument, { take: id, from }: Guide, markId: string): FramedPlace[] {
  const [mark, take] = [find(document.marks, markId), find(document.takes, id)]
  if (!mark || !take) return []
  return followedMark(document, exposures(take, mark.layer), markId).flatMap(({ start, at }): FramedPlace[] =>
    at && start >= from ? [{ frame: start - from, at }] : [],
  )
}

/** The guides of a take in the order of their frames. */
export const guidesOf = (document: ShotDocument, take: string): Guide[] =>
  Object.values(document.guides)
    .filter(guide => guide.take === take)
    .sort((a, b) => a.from - b.from || (a.id < b.id ? -1 : 1))
