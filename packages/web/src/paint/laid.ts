import { after, type Matrix } from '@unhurried/core/geometry'
import type { Brush } from './nibs.ts'

/**
 * Paints what a layer shows where it lies: once as it was drawn (null), or once for each of the maps from its own pixels to those
 * of the picture. `base` maps the picture to the canvas. The brush keeps the last of the transforms.
 */
export function layDown(brush: Brush, base: Matrix, maps: readonly Matrix[] | null, paint: () => void): void {
  for (const one of maps ?? [null]) {
    brush.setTransform(...(one ? after(one, base) : base))
    paint()
  }
}
