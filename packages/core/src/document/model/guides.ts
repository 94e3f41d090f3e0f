import type { Plan, RecipeShot } from '../../motion/recipe.ts'
import { planWith } from '../../motion/table.ts'
import type { Guide, ShotDocument } from './model.ts'

/** What a recipe is told of a shot. */
export const recipeShot = ({ format, exposure, scale }: ShotDocument): RecipeShot => ({
  width: format.width,
  height: format.height,
  fps: format.fps,
  exposure,
  scale,
})

const plans = new WeakMap<Guide, Plan<unknown>>()

/** The plan of a guide of the document, worked out once: what is asked of a recipe besides its numbers it asks only for its defaults. */
export function guidePlan(document: ShotDocument, guide: Guide): Plan<unknown> {
  const known = plans.get(guide) ?? planWith(guide.recipe, guide.numbers, recipeShot(document))
  plans.set(guide, known)
  return known
}

/** The guides of a take in the order of their frames. */
export const guidesOf = (document: ShotDocument, take: string): Guide[] =>
  Object.values(document.guides)
    .filter(guide => guide.take === take)
    .sort((a, b) => a.from - b.from || (a.id < b.id ? -1 : 1))
