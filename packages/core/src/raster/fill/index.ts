import type { Point } from '../../geometry/point.ts'
import { distances } from './distance.ts'
import { leakFrom, type Leak } from './leak.ts'
import type { LinePicture } from './lines.ts'
import { outlinesOf } from './outline.ts'
import { indexOf, regionsOf } from './regions.ts'

export { linePicture, type LinePicture } from './lines.ts'
export type { Leak } from './leak.ts'

/** What a press would paint. */
export interface Region {
  /** outlines in paper pixels, those of holes among them: what lies inside an odd number of them is painted */
  readonly outlines: readonly (readonly Point[])[]
  readonly leak: Leak | null
}

/**
 * Ready to fill regions of a drawing, its gaps of up to `gapPx` paper pixels closed. The answer for a place in paper
 * pixels: the region it lies in, under its lines to their middle. Null off the paper.
 */
export function filler(picture: LinePicture, gapPx: number): (at: Point) => Region | null {
  const regions = regionsOf(picture, Math.max(0, gapPx * picture.scale))
  const { width, height, scale } = picture
  let far: Uint16Array | null = null
  const leak = (region: number, at: Point): Leak | null => {
    if (!regions.atEdge.has(region)) return null
    far ??= distances(picture, regions.stride)
    return leakFrom(regions, far, at)
  }
  let last: { readonly region: number; readonly outlines: readonly (readonly Point[])[] } | null = null
  return at => {
    const [x, y] = [Math.floor(at.x * scale), Math.floor(at.y * scale)]
    if (!(x >= 0 && y >= 0 && x < width && y < height)) return null
    const region = regions.labels[indexOf(regions.stride, x, y)] as number
    if (region === 0) return null
    // The hand hovers over one region for a while.
    if (last?.region !== region) last = { region, outlines: outlinesOf(regions, region) }
    return { outlines: last.outlines, leak: leak(region, at) }
  }
}
