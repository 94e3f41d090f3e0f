import type { Guide } from '@unhurried/core/document'
import type { NumbersOf, RecipeName } from '@unhurried/core/motion'
import { along } from './along/along.ts'
import { anticipate } from './anticipate/anticipate.ts'
import { blink } from './blink/blink.ts'
import { boil } from './boil/boil.ts'
import { bounce } from './bounce/bounce.ts'
import { chain } from './chain/chain.ts'
import { flame } from './flame/flame.ts'
import { hop } from './hop/hop.ts'
import { legs } from './legs/legs.ts'
import { pendulum } from './pendulum/pendulum.ts'
import { scroll } from './scroll/scroll.ts'
import { soft } from './soft/soft.ts'
import { turn } from './turn/turn.ts'
import { walk } from './walk/walk.ts'
import { wisps } from './wisps/wisps.ts'
import type { AnyRecipeDesk, RecipeDesk } from './recipe.ts'

/** Every recipe has its words and handles; a missing one does not compile. */
const DESKS: { readonly [R in RecipeName]: RecipeDesk<NumbersOf<R>> } = {
  bounce,
  hop,
  walk,
  legs,
  chain,
  pendulum,
  soft,
  anticipate,
  turn,
  blink,
  wisps,
  flame,
  boil,
  scroll,
  along,
}

/** Recipes in the order they are chosen from. */
export const SHOWN_RECIPES = Object.keys(DESKS) as RecipeName[]

/** Those of a guide. Its numbers were held against its recipe when they came. */
export const deskOf = ({ recipe }: Pick<Guide, 'recipe'>): AnyRecipeDesk => DESKS[recipe] as unknown as AnyRecipeDesk
