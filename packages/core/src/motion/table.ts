import { along, type AlongPlan } from './along/along.ts'
import type { AlongNumbers } from './along/numbers.ts'
import { bounce, type BouncePlan } from './bounce/bounce.ts'
import type { BounceNumbers } from './bounce/numbers.ts'
import { chain, type ChainPlan } from './chain/chain.ts'
import type { ChainNumbers } from './chain/numbers.ts'
import { pendulum, type PendulumPlan } from './pendulum/pendulum.ts'
import type { PendulumNumbers } from './pendulum/numbers.ts'
import { blink, type BlinkPlan } from './blink/blink.ts'
import type { BlinkNumbers } from './blink/numbers.ts'
import { wisps, type WispPlan } from './wisps/wisps.ts'
import type { WispNumbers } from './wisps/numbers.ts'
import { flame, type FlamePlan } from './flame/flame.ts'
import type { FlameNumbers } from './flame/numbers.ts'
import { boil, type BoilPlan } from './boil/boil.ts'
import type { BoilNumbers } from './boil/numbers.ts'
import { anticipate, type AnticipatePlan } from './anticipate/anticipate.ts'
import type { AnticipateNumbers } from './anticipate/numbers.ts'
import { hop, type HopPlan } from './hop/hop.ts'
import type { HopNumbers } from './hop/numbers.ts'
import { scroll, type ScrollPlan } from './scroll/scroll.ts'
import type { ScrollNumbers } from './scroll/numbers.ts'
import { soft, type SoftPlan } from './soft/soft.ts'
import type { SoftNumbers } from './soft/numbers.ts'
import { turn, type TurnPlan } from './turn/turn.ts'
import type { TurnNumbers } from './turn/numbers.ts'
import { walk, type WalkPlan } from './walk/walk.ts'
import type { WalkNumbers } from './walk/numbers.ts'
import { legs, type LegsPlan } from './legs/legs.ts'
import type { LegsNumbers } from './legs/numbers.ts'
import type { ConstructionSink, Expected, Measures, NumbersRefusal, Plan, Recipe, RecipeShot } from './recipe.ts'

/** The numbers and the plan of every recipe. */
interface Kinds {
  readonly bounce: { readonly numbers: BounceNumbers; readonly plan: BouncePlan }
  readonly chain: { readonly numbers: ChainNumbers; readonly plan: ChainPlan }
  readonly pendulum: { readonly numbers: PendulumNumbers; readonly plan: PendulumPlan }
  readonly blink: { readonly numbers: BlinkNumbers; readonly plan: BlinkPlan }
  readonly wisps: { readonly numbers: WispNumbers; readonly plan: WispPlan }
  readonly flame: { readonly numbers: FlameNumbers; readonly plan: FlamePlan }
  readonly boil: { readonly numbers: BoilNumbers; readonly plan: BoilPlan }
  readonly anticipate: { readonly numbers: AnticipateNumbers; readonly plan: AnticipatePlan }
  readonly hop: { readonly numbers: HopNumbers; readonly plan: HopPlan }
  readonly soft: { readonly numbers: SoftNumbers; readonly plan: SoftPlan }
  readonly turn: { readonly numbers: TurnNumbers; readonly plan: TurnPlan }
  readonly walk: { readonly numbers: WalkNumbers; readonly plan: WalkPlan }
  readonly scroll: { readonly numbers: ScrollNumbers; readonly plan: ScrollPlan }
  readonly legs: { readonly numbers: LegsNumbers; readonly plan: LegsPlan }
  readonly along: { readonly numbers: AlongNumbers; readonly plan: AlongPlan }
}

export type RecipeName = keyof Kinds
export type NumbersOf<R extends RecipeName> = Kinds[R]['numbers']
export type PlanOf<R extends RecipeName> = Kinds[R]['plan']

/** Every kind of movement has its recipe; a missing one does not compile. */
export const RECIPES: {
  readonly [R in RecipeName]: PlanOf<R> extends Plan<NumbersOf<R>> ? Recipe<NumbersOf<R>, PlanOf<R>> : never
} = { bounce, chain, pendulum, blink, wisps, flame, boil, anticipate, hop, soft, turn, walk, legs, scroll, along }

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

/**
 * Numbers of a recipe on a paper that was enlarged by `factor` about (0, 0) and then moved by `dx`, `dy` pixels: the same
 * movement, drawn over the same drawings. Numbers that are none of the recipe's are left as they are.
 */
export function movedNumbers<T>(
  recipe: RecipeName,
  numbers: Readonly<Record<string, T>>,
  factor: number,
  dx: number,
  dy: number,
): Record<string, T> {
  const { across, down, lengths } = RECIPES[recipe].measures as unknown as Measures<Record<string, T>>
  const put = (names: readonly string[], by: number) =>
    names.flatMap(name => {
      const value = numbers[name]
      return typeof value === 'number' ? [[name, factor * value + by] as const] : []
    })
  return { ...numbers, ...Object.fromEntries([...put(across, dx), ...put(down, dy), ...put(lengths, 0)]) } as Record<
    string,
    T
  >
}

/** The parts of a recipe's construction that are shown for all drawings. */
export const throughOf = (recipe: RecipeName): readonly string[] => RECIPES[recipe].through

/** Writes the construction of a frame of a plan; `plan` must be one of this recipe. Throws a UsageError on a frame outside it. */
export const figureOf = (recipe: RecipeName, plan: Plan<unknown>, frame: number, sink: ConstructionSink): void =>
  (RECIPES[recipe] as unknown as Recipe<object, Plan<object>>).figure(plan as Plan<object>, frame, sink)

/** What the drawing at a place of a plan should measure; `plan` must be one of this recipe. Throws a UsageError on a place that is none. */
export const expectedOf = (recipe: RecipeName, plan: Plan<unknown>, drawing: number): Expected =>
  (RECIPES[recipe] as unknown as Recipe<object, Plan<object>>).expect(plan as Plan<object>, drawing)
