import type { Guide } from '@unhurried/core/document'
import type { NumbersOf, RecipeName } from '@unhurried/core/motion'
import { bounce } from './bounce/bounce.ts'
import type { AnyRecipeDesk, RecipeDesk } from './recipe.ts'

/** Every recipe has its words and handles; a missing one does not compile. */
const DESKS: { readonly [R in RecipeName]: RecipeDesk<NumbersOf<R>> } = { bounce }

/** Those of a guide. Its numbers were held against its recipe when they came. */
export const deskOf = ({ recipe }: Pick<Guide, 'recipe'>): AnyRecipeDesk => DESKS[recipe] as unknown as AnyRecipeDesk
