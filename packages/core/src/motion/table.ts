import { bounce, type BouncePlan } from './bounce/bounce.ts'
import type { BounceNumbers } from './bounce/numbers.ts'
import type { Plan, Recipe } from './recipe.ts'

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
