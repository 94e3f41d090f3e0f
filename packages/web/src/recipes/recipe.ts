import type { GuideNumber } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import type { NumbersRefusal, RecipeShot } from '@unhurried/core/motion'

/** How a number of a recipe is asked for. */
export type Field =
  | {
      readonly kind: 'number'
      readonly words: string
      readonly unit: string
      readonly step: number
      /** what is shown is so many times what is kept: 100 for shares shown as per cent */
      readonly times?: number
      /** decimals it is shown with; four unless told */
      readonly places?: number
      /** what stands for null, when it may be left open */
      readonly open?: string
      /** gravity: can be that on earth, where the shot has a scale */
      readonly gravity?: true
    }
  | { readonly kind: 'switch'; readonly words: string }
  /** a mark of the shot, or a point of another guide, or none */
  | {
      readonly kind: 'followed'
      readonly words: string
      /** when it is asked for at once, among the main ones */ readonly when: (
        numbers: Readonly<Record<string, unknown>>,
      ) => boolean
    }
  | { readonly kind: 'choice'; readonly words: string; readonly options: readonly (readonly [string, string])[] }

const number = (words: string, unit: string, step: number): Field => ({ kind: 'number', words, unit, step })
/** A length in paper pixels. */
export const px = (words: string, step = 1): Field => number(words, 'px', step)
/** A time in frames. */
export const frames = (words: string, step = 1): Field => number(words, 'frames', step)
/** How many of something. */
export const count = (words: string): Field => number(words, '', 1)
/** A bare number. */
export const bare = (words: string, step: number, unit = ''): Field => number(words, unit, step)
/** A share, asked for in per cent. */
export const share = (words: string): Field => ({ kind: 'number', words, unit: '%', step: 5, times: 100, places: 1 })
/** An angle, asked for in degrees. */
export const degrees = (words: string): Field => ({
  kind: 'number',
  words,
  unit: '°',
  step: 5,
  times: 180 / Math.PI,
  places: 1,
})
/** One of some; each as it is kept, and in words. */
export const choice = (words: string, options: Readonly<Record<string, string>>): Field => ({
  kind: 'choice',
  words,
  options: Object.entries(options),
})
/** Yes or no. */
export const onOff = (words: string): Field => ({ kind: 'switch', words })
/** Something that is followed; asked for at once when `when` says so. */
export const followedField = (words: string, when: (numbers: Readonly<Record<string, unknown>>) => boolean): Field => ({
  kind: 'followed',
  words,
  when,
})
/** Gravity, px a frame, a frame. */
export const GRAVITY: Field = { kind: 'number', words: 'gravity', unit: 'px/f²', step: 0.1, gravity: true }
/** How many frames each drawing is shown. */
export const EACH_DRAWING = frames('each drawing')

/** The nearest whole number; never −0, which is stored as another one. */
export const rounded = (value: number): number => Math.round(value) + 0

/** A handle for a place that is a pair of numbers. */
export const placeHandle = <N extends { readonly x: number; readonly y: number }>(words: string): Handle<N> => ({
  words,
  goes: 'everywhere',
  at: ({ x, y }) => ({ x, y }),
  dragged: (_, to) => ({ x: rounded(to.x), y: rounded(to.y) }) as Partial<N>,
})
/** A handle for a place on the ground. */
export const groundHandle = <N extends { readonly x: number; readonly ground: number }>(words: string): Handle<N> => ({
  words,
  goes: 'everywhere',
  at: ({ x, ground }) => ({ x, y: ground }),
  dragged: (_, to) => ({ x: rounded(to.x), ground: rounded(to.y) }) as Partial<N>,
})

/** A place of a recipe that is dragged over the paper, in paper pixels. */
export interface Handle<N> {
  readonly words: string
  /** along which ways it goes */
  readonly goes: 'everywhere' | 'up and down' | 'to the sides'
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
  /** fields and handles that mean nothing as its other numbers are: they are not asked for */
  readonly idle?: (numbers: N) => readonly string[]
  /** ways to set many of its numbers at once, by name */
  readonly ways?: Readonly<Record<string, (numbers: N, shot: RecipeShot) => N>>
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
