import type { GuideNumber } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import type { NumbersRefusal } from '@unhurried/core/motion'

/** How a number of a recipe is asked for. */
export type Field =
  | {
      readonly kind: 'number'
      readonly words: string
      readonly unit: string
      readonly step: number
      /** what is shown is so many times what is kept: 100 for shares shown as per cent */
      readonly times?: number
      /** what stands for null, when it may be left open */
      readonly open?: string
    }
  | { readonly kind: 'choice'; readonly words: string; readonly options: readonly (readonly [string, string])[] }

/** A place of a recipe that is dragged over the paper, in paper pixels. */
export interface Handle<N> {
  readonly words: string
  /** along which ways it goes */
  readonly goes: 'everywhere' | 'up and down'
  at(numbers: N): Point
  /** the numbers that change when it is dragged to a place */
  dragged(numbers: N, to: Point): Partial<N>
}

/** What an animator reads of a recipe, and takes it by. */
export interface RecipeDesk<N extends object> {
  readonly words: string
  /** what it works out, in a line */
  readonly says: string
  /** the numbers that matter most; the rest is folded. Places that have a handle need no field */
  readonly main: readonly (keyof N & string)[]
  readonly fields: Readonly<Partial<Record<keyof N & string, Field>>>
  readonly handles: Readonly<Record<string, Handle<N>>>
  /** the planned mark where the middle of what is drawn belongs */
  readonly middle?: string
}

/** The same, for those who do not know which recipe it is. */
export type AnyRecipeDesk = RecipeDesk<Record<string, GuideNumber>>

/** Why a number is not taken, in the words and the unit it is asked for in. */
export function refusedNumber(recipe: AnyRecipeDesk, { field, why, bounds }: NumbersRefusal<object>): string {
  const asked = recipe.fields[field]
  const words = asked?.words ?? field
  if (!bounds || asked?.kind !== 'number') return `${words} ${why}`
  const [least, most] = [bounds.least, bounds.most].map(value => Math.round(value * (asked.times ?? 1) * 1e4) / 1e4)
  return `${words}: ${bounds.whole ? 'whole numbers' : 'numbers'} from ${least} to ${most}${asked.unit === '%' ? ' %' : ''}`
}
