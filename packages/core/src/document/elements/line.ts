import { partedBy } from '../../geometry/reshape.ts'
import { partsLeft } from '../../geometry/stroke.ts'
import type { Stroke } from '../model/model.ts'
import type { ElementKind, Piece } from './kind.ts'
import { partOf, STROKES } from './strokes.ts'

type Range = readonly [number, number]
const pieces = (line: Stroke, ranges: readonly Range[]): Piece[] =>
  ranges.map(range => ({ stroke: partOf(line, range), path: null }))

/** A line with thickness: cut, it is parts of its samples. */
export const LINE: ElementKind<'line'> = {
  ...STROKES,
  left(line, placed, track, radiusPx) {
    const left = partsLeft(placed, track, radiusPx)
    const isWhole = left.length === 1 && left[0]?.[0] === 0 && left[0][1] === placed.samples.length - 1
    return isWhole ? null : pieces(line, left)
  },
  parted(line, placed, loop) {
    const { inside, outside } = partedBy(loop, placed)
    if (inside.length === 0) return 'outside'
    return outside.length === 0 ? 'inside' : { inside: pieces(line, inside), outside: pieces(line, outside) }
  },
}
