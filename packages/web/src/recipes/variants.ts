import { recipeShot, type Guide, type GuideNumber, type ShotDocument } from '@unhurried/core/document'
import { refuseNumbers } from '@unhurried/core/motion'
import type { AnyRecipeDesk, Field } from './recipe.ts'
import { deskOf } from './table.ts'

/** A guide with a number or two set otherwise, to be seen beside it. */
export interface Variant {
  readonly words: string
  readonly numbers: Readonly<Record<string, GuideNumber>>
}

type NumberAsked = Extract<Field, { kind: 'number' }>
/** How much less and more of its main number is shown. */
const SHARES = [0.7, 1.4]

/** Its main number less and more, and the other usual exposure; what the recipe does not take is left out. */
export function variantsOf(document: ShotDocument, guide: Guide): Variant[] {
  const desk = deskOf(guide)
  const wished = [...lessAndMore(desk, guide), ...otherExposure(guide)]
  return wished.filter(({ numbers }) => !refuseNumbers(guide.recipe, numbers, recipeShot(document)))
}

function lessAndMore(desk: AnyRecipeDesk, { numbers }: Guide): Variant[] {
  const main = desk.main.find(name => name !== 'exposure' && desk.fields[name]?.kind === 'number')
  const value = main && numbers[main]
  if (!main || typeof value !== 'number') return []
  const field = desk.fields[main] as NumberAsked
  const { step, times = 1, unit } = field
  return SHARES.flatMap(share => {
    const shown = Math.round((value * times * share) / step) * step
    const other = { ...numbers, [main]: shown / times }
    return shown === value * times
      ? []
      : [{ words: `${Math.round(shown * 100) / 100}${unit === '%' || unit === '°' ? unit : ''}`, numbers: other }]
  })
}

function otherExposure({ numbers }: Guide): Variant[] {
  if (typeof numbers.exposure !== 'number') return []
  const exposure = numbers.exposure === 2 ? 1 : 2
  return [{ words: exposure === 1 ? 'on ones' : 'on twos', numbers: { ...numbers, exposure } }]
}
