import { isMediaId } from '../assets/media.ts'
import { MOST_PICTURE_PX } from '../assets/picture.ts'
import { distance, type Point } from '../geometry/point.ts'

/** One side of a model: a stored picture, and two points of it that mean the same on all sides (usually sole and crown). */
export interface ModelView {
  readonly id: string
  /** front, side, back, laughing … */
  readonly name: string
  /** SHA-256 of the stored picture (PNG), and its size in its own pixels */
  readonly media: string
  readonly widthPx: number
  readonly heightPx: number
  /** pixels of the picture */
  readonly low: Point
  readonly high: Point
}

/** A height that holds on all sides of a model: 0 at their low points, 1 at their high ones. */
export interface ModelHeight {
  readonly id: string
  readonly name: string
  readonly share: number
}

/** What a figure of a film looks like from all sides, for all its shots. */
export interface ModelSheet {
  readonly name: string
  readonly views: readonly ModelView[]
  readonly heights: readonly ModelHeight[]
}

/** Bounds of what model sheets hold. */
export const MODEL_LIMITS = {
  /** model sheets of a film, sides and heights of one of them */
  sheets: 40,
  views: 24,
  heights: 24,
  nameLength: 80,
  /** how far beyond its two points a height may lie */
  share: 4,
  /** the two points of a side are no nearer to one another, px */
  apartPx: 1,
} as const

const isName = (name: string): boolean => name.trim() !== '' && name.length <= MODEL_LIMITS.nameLength
const isSide = (px: number): boolean => Number.isInteger(px) && px >= 1 && px <= MOST_PICTURE_PX
const areOnce = (things: readonly { readonly id: string }[]): boolean =>
  new Set(things.map(({ id }) => id)).size === things.length

function viewFault({ name, media, widthPx, heightPx, low, high }: ModelView): string | null {
  if (!isName(name)) return 'a side without a name, or with too long a one'
  if (!isMediaId(media)) return `the picture of ${name}`
  if (!isSide(widthPx) || !isSide(heightPx)) return `the size of ${name}`
  const isOn = ({ x, y }: Point) => x >= 0 && y >= 0 && x <= widthPx && y <= heightPx
  return isOn(low) && isOn(high) && distance(low, high) >= MODEL_LIMITS.apartPx ? null : `the two points of ${name}`
}

/** What is wrong with a model sheet from outside, in words; null where nothing is. Total: never throws on data of its shape. */
export function modelFault({ name, views, heights }: ModelSheet): string | null {
  if (!isName(name)) return 'the name of the model sheet'
  if (views.length > MODEL_LIMITS.views) return `more than ${MODEL_LIMITS.views} sides`
  if (heights.length > MODEL_LIMITS.heights) return `more than ${MODEL_LIMITS.heights} heights`
  if (!areOnce(views) || !areOnce(heights)) return 'two things of one name'
  const badHeight = heights.find(one => !isName(one.name) || !(Math.abs(one.share) <= MODEL_LIMITS.share))
  if (badHeight) return `the height ${badHeight.name}`
  for (const view of views) {
    const fault = viewFault(view)
    if (fault) return fault
  }
  return null
}

/** The two points of a picture that nobody has put yet: the middles of its lower and upper edge, or of a box in it. */
export const freshPoints = (box: {
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}): Pick<ModelView, 'low' | 'high'> => {
  const x = (box.left + box.right) / 2
  return { low: { x, y: box.bottom }, high: { x, y: box.top } }
}
