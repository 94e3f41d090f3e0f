import type { NumberBounds, NumbersRefusal } from './recipe.ts'

/** What a number of a recipe may be. */
export type Allowed =
  | ({
      readonly kind: 'number'
      /** what stands for null, when it may be left open */ readonly open?: string
    } & NumberBounds)
  | { readonly kind: 'choice'; readonly of: readonly string[] }
  | { readonly kind: 'switch' }
  /** the id of a mark, or null for none */
  | { readonly kind: 'mark' }

/** What every number of a recipe may be; a missing one does not compile. */
export type AllowedNumbers<N> = { readonly [F in keyof N]: Allowed }

/** A number between two bounds, both allowed. */
export const real = (least: number, most: number): Allowed => ({ kind: 'number', least, most, whole: false })
/** A whole number between two bounds, both allowed; with words for null, it may be left open. */
export const whole = (least: number, most: number, open?: string): Allowed => ({
  kind: 'number',
  least,
  most,
  whole: true,
  ...(open !== undefined && { open }),
})
/** One of some names. */
export const oneOf = (...of: readonly string[]): Allowed => ({ kind: 'choice', of })
/** Yes or no. */
export const ON_OFF: Allowed = { kind: 'switch' }
/** The id of a mark of the shot, or none. */
export const MARK_ID: Allowed = { kind: 'mark' }
/** A place on the paper or some way beside it, in pixels. */
export const PLACE = real(-20_000, 20_000)
/** Frames a drawing is shown. */
export const EXPOSURE = whole(1, 24)
/** Radians of a degree. */
export const DEGREE = Math.PI / 180
/** A seed of chance. */
export const SEED = whole(0, 9999)

/** The first of some numbers that is not what it may be; null when all are. Total, whatever it is given. */
export function refuseOutside<N extends object>(numbers: N, allowed: AllowedNumbers<N>): NumbersRefusal<N> | null {
  for (const field of Object.keys(allowed) as (keyof N & string)[]) {
    const may = allowed[field]
    const value: unknown = numbers[field]
    if (may.kind === 'switch') {
      if (typeof value !== 'boolean') return { field, why: 'must be on or off' }
    } else if (may.kind === 'mark') {
      if (value !== null && !(typeof value === 'string' && /^[\w-]{1,40}$/.test(value)))
        return { field, why: 'must be a mark, or none' }
    } else if (may.kind === 'choice') {
      if (typeof value !== 'string' || !may.of.includes(value)) return { field, why: `must be ${listed(may.of)}` }
    } else if (!(may.open !== undefined && value === null)) {
      const { least, most } = may
      const fits =
        typeof value === 'number' && value >= least && value <= most && (!may.whole || Number.isInteger(value))
      if (fits) continue
      const why = `must be ${may.whole ? 'a whole number' : 'a number'} from ${least} to ${most}`
      if (may.open !== undefined) return { field, why: `${why}, or ${may.open}` }
      return { field, why, bounds: { least, most, whole: may.whole } }
    }
  }
  return null
}

const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} or ${names[names.length - 1]}`
