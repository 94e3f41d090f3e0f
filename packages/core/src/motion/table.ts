import { bounce, type BouncePlan } from './bounce/bounce.ts'
import type { BounceNumbers } from './bounce/numbers.ts'
import type { ConstructionSink, Expected, NumbersRefusal, Plan, Recipe, RecipeShot } from './recipe.ts'

/** The numbers and the plan of every recipe. */
interface Kinds {
  readonly bounce: { readonly numbers: BounceNumbers; readonly plan: BouncePlan }
}

export type RecipeName = keyof Kinds
export type NumbersOf<R extends RecipeName> = Kinds[R]['numbers']
export type PlanOf<R extends RecipeName> = Kinds[R]['plan']

/** Every kind of movement has its recipe; a missing one does not compile. */
export const RECIPES: {
  readonly [R in RecipeName]: PlanOf<R> extends Plan<NumbersOf<R>> ? Recipe<NumbersOf<R>, PlanOf<R>> : never
} = { bounce }

export const RECIPE_NAMES = Object.keys(RECIPES) as RecipeName[]

/** The plan of a recipe, for those who do not know which it is; only after its `refuse` said null. */
export const planWith = (recipe: RecipeName, numbers: object, shot: RecipeShot): Plan<unknown> =>
  (RECIPES[recipe] as unknown as Recipe<object, Plan<object>>).plan(numbers, shot)

/** What is wrong with numbers that may come from anywhere: a field too many or too few, or one out of bounds; or null. */
export function refuseNumbers(recipe: RecipeName, numbers: object, shot: RecipeShot): NumbersRefusal<object> | null {
  const known = Object.keys(RECIPES[recipe].defaults(shot))
  const stray = Object.keys(numbers).find(field => !known.includes(field))
  if (stray !== undefined) return { field: stray as never, why: 'is no number of this recipe' }
  const missing = known.find(field => !Object.hasOwn(numbers, field))
  if (missing !== undefined) return { field: missing as never, why: 'is missing' }
  return (RECIPES[recipe] as unknown as Recipe<object, Plan<object>>).refuse(numbers, shot)
}

/** The parts of a recipe's construction that are shown for all drawings. */
export const throughOf = (recipe: RecipeName): readonly string[] => RECIPES[recipe].through

/** Writes the construction of a frame of a plan; `plan` must be one of this recipe. Throws a UsageError on a frame outside it. */
export const figureOf = (recipe: RecipeName, plan: Plan<unknown>, frame: number, sink: ConstructionSink): void =>
  (RECIPES[recipe] as unknown as Recipe<object, Plan<object>>).figure(plan as Plan<object>, frame, sink)

/** What the drawing at a place of a plan should measure; `plan` must be one of this recipe. Throws a UsageError on a place that is none. */
export const expectedOf = (recipe: RecipeName, plan: Plan<unknown>, drawing: number): Expected =>
  (RECIPES[recipe] as unknown as Recipe<object, Plan<object>>).expect(plan as Plan<object>, drawing)
