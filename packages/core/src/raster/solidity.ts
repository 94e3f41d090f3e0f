import { polygonArea, polygonHull } from 'd3-polygon'
import type { Mask } from './silhouette.ts'

/**
 * How much of its convex hull a silhouette fills, 0–1: a ball all of it, a star half. `area`: the pixels inside. 1 where there is nothing. Rows count by their outermost
 * pixels, corner to corner, so that a square fills its own hull.
 */
export function solidityOf({ width, height, inside }: Mask, area: number): number {
  const corners: [number, number][] = []
  for (let y = 0; y < height; y++) {
    const row = y * width
    const first = inside.indexOf(1, row)
    if (first < 0) break
    if (first >= row + width) {
      y = Math.floor(first / width) - 1
      continue
    }
    const last = inside.lastIndexOf(1, row + width - 1)
    for (const side of [y, y + 1]) corners.push([first - row, side], [last - row + 1, side])
  }
  const hull = polygonHull(corners)
  return hull ? area / Math.abs(polygonArea(hull)) : 1
}
