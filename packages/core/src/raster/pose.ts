import type { Moments } from './moments.ts'
import type { Mask } from './silhouette.ts'

/** A silhouette on a small grid about its middle, as large as its area: 1 where it is. */
export type Pose = Uint8Array

/** Cells across and down, and how many of them a square as large as the silhouette has on a side. */
const CELLS = 48
const ACROSS = 16

/** The pose of a silhouette: whether the middle of each cell lies inside. Undefined where there is none. */
export function poseOf({ width, height, inside }: Mask, { area, centroid }: Moments): Pose | undefined {
  if (!centroid || area <= 0) return undefined
  const cell = Math.sqrt(area) / ACROSS
  const pose = new Uint8Array(CELLS * CELLS)
  for (let row = 0; row < CELLS; row++) {
    const y = Math.floor(centroid.y + (row + 0.5 - CELLS / 2) * cell)
    if (y < 0 || y >= height) continue
    for (let column = 0; column < CELLS; column++) {
      const x = Math.floor(centroid.x + (column + 0.5 - CELLS / 2) * cell)
      if (x >= 0 && x < width) pose[row * CELLS + column] = inside[y * width + x] as number
    }
  }
  return pose
}

/** How alike two poses are, 0–1: what both cover of what either does (P. Jaccard, 1901). */
export function posesAlike(a: Pose, b: Pose): number {
  let [both, either] = [0, 0]
  for (let i = 0; i < a.length; i++) {
    const [p, q] = [a[i] ? 1 : 0, b[i] ? 1 : 0]
    both += p & q
    either += p | q
  }
  return either === 0 ? 1 : both / either
}
