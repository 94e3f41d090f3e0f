import { paintLeft, paintParted } from '../../geometry/paintCut.ts'
import type { Sample } from '../../geometry/samples.ts'
import type { Stroke } from '../model/model.ts'
import type { ElementKind, Piece } from './kind.ts'
import { pathOf, STROKES } from './strokes.ts'

const pieces = (shape: Stroke, paths: readonly (readonly Sample[])[]): Piece[] =>
  paths.map(path => ({ stroke: pathOf(shape), path }))

/** A painted shape: cut, it is paths of their own. */
export const SHAPE: ElementKind<'shape'> = {
  ...STROKES,
  left(shape, placed, track, radiusPx) {
    const left = paintLeft(placed.samples, track, radiusPx)
    return left && pieces(shape, left)
  },
  parted(shape, placed, loop) {
    const { inside, outside } = paintParted(placed.samples, loop)
    if (inside.length === 0) return 'outside'
    return outside.length === 0 ? 'inside' : { inside: pieces(shape, inside), outside: pieces(shape, outside) }
  },
}
