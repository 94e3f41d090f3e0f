import type { FramedPlace, Plan, RecipeShot } from '../../motion/recipe.ts'
import { planWith } from '../../motion/table.ts'
import type { Guide, ShotDocument } from './model.ts'
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

/** The plan of a guide of the document, worked out once: anew only when it follows a mark, and that may have moved. */
export function guidePlan(document: ShotDocument, guide: Guide): Plan<unknown> {
  const from = typeof guide.numbers.follows === 'string' ? [document.drawings, document.takes] : []
  const known = plans.get(guide)
  if (known?.from.every((part, i) => part === from[i])) return known.plan
  const shot: RecipeShot = { ...recipeShot(document), wayOf: mark => wayOfMark(document, guide, mark) }
  const plan = planWith(guide.recipe, guide.numbers, shot)
  plans.set(guide, { plan, from })
  return plan
}

/** Where a mark lies on the drawings of its layer from where a guide begins. */
function wayOfMark(document: ShotDocument, { take: id, from }: Guide, markId: string): FramedPlace[] {
  const [mark, take] = [find(document.marks, markId), find(document.takes, id)]
  if (!mark || !take) return []
  return exposures(take, mark.layer).flatMap(({ drawing, start }): FramedPlace[] => {
    const place = find(find(document.drawings, drawing as string)?.marks ?? {}, markId)
    return place && start >= from ? [{ frame: start - from, at: { x: place.x, y: place.y } }] : []
  })
}

/** The guides of a take in the order of their frames. */
export const guidesOf = (document: ShotDocument, take: string): Guide[] =>
  Object.values(document.guides)
    .filter(guide => guide.take === take)
    .sort((a, b) => a.from - b.from || (a.id < b.id ? -1 : 1))
