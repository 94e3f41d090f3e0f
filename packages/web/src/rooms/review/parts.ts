import type { Box, Point } from '@unhurried/core/geometry'

/** So much of the window, at each side, is shown again in the part beside it. */
const OVERLAP = 0.08

/** The middles of pieces of a stretch, each as long as what is seen at a time, that cover all of it. */
function alongOf(from: number, to: number, view: number): number[] {
  const step = view * (1 - 2 * OVERLAP)
  const count = Math.max(1, to - from <= view ? 1 : Math.ceil((to - from - view) / step) + 1)
  if (count === 1) return [(from + to) / 2]
  const [first, last] = [from + view / 2, to - view / 2]
  return Array.from({ length: count }, (_, i) => first + ((last - first) * i) / (count - 1))
}

/**
 * The middles of the parts in which something drawn (`box`, or all of the picture where that is null) is looked at, in rows, so that all of it that
 * lies in the picture is seen through a window of a size. All in pixels of the picture.
 */
export function partsOf(
  box: Box | null,
  picture: { readonly width: number; readonly height: number },
  view: { readonly width: number; readonly height: number },
): Point[] {
  const [left, right] = [Math.max(0, box?.left ?? 0), Math.min(picture.width, box?.right ?? picture.width)]
  const [top, bottom] = [Math.max(0, box?.top ?? 0), Math.min(picture.height, box?.bottom ?? picture.height)]
  // What lies off the picture altogether is not sent off: there is nothing to see of it.
  if (left >= right || top >= bottom || view.width <= 0 || view.height <= 0) {
    return [{ x: picture.width / 2, y: picture.height / 2 }]
  }
  const rows = alongOf(top, bottom, view.height)
  return rows.flatMap(y => alongOf(left, right, view.width).map(x => ({ x, y })))
}
