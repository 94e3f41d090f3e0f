import type { NumberBounds, NumbersRefusal } from './recipe.ts'

/** What a number of a recipe may be. */
export type Allowed =
  | ({
      readonly kind: 'number'
      /** what stands for null, when it may be left open */ readonly open?: string
    } & NumberBounds)
  | { readonly kind: 'choice'; readonly of: readonly string[] }
  | { readonly kind: 'switch' }
  /** the id of a mark, or a point of another guide, or null for none */
  | { readonly kind: 'followed' }

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
/** The id of a mark of the shot, a point of another guide, or none. */
export const FOLLOWED: Allowed = { kind: 'followed' }

/** A point of a guide that another one follows. */
export interface GuidePoint {
  /** the id of the guide */
  readonly guide: string
  /** its name among the marks of the plan */
  readonly point: string
}
const GUIDE_POINT = /^([\w-]{1,40}):([\w ]{1,40})$/

/** A point of a guide as the number of one that follows it. */
export const followedPoint = ({ guide, point }: GuidePoint): string => `${guide}:${point}`

/** The point of a guide that a number follows; null where it names none. */
export function guidePoint(value: unknown): GuidePoint | null {
  const [, guide, point] = (typeof value === 'string' && GUIDE_POINT.exec(value)) || []
  return guide !== undefined && point !== undefined ? { guide, point } : null
}
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
    } else if (may.kind === 'followed') {
      const isMark = typeof value === 'string' && /^[\w-]{1,40}$/.test(value)
      if (value !== null && !isMark && !guidePoint(value))
        return { field, why: 'must be a mark, a point of a guide, or none' }
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
