import { FillRule, unionD } from 'clipper2-ts'
import { asSamples, paintedPieces, type Contour } from './contours.ts'
import { pathsOf, type DrawnPath, type GlyphStep } from './lettering.ts'
import { FARTHEST_PX, MOST_SAMPLES, type Sample } from './samples.ts'
import { lengthOf } from './stroke.ts'
import { thinned } from './thinned.ts'
import { distance, type Point } from './point.ts'

/** Which of what a path winds round is painted: all that it winds round, or what lies inside an odd number of its rounds. */
export type Winding = 'nonzero' | 'evenodd'

/** Places are kept to so many decimals of a pixel while paths are united. */
const DECIMALS = 3
/** Outlines may be off by so many pixels: less than stored samples are. */
const TOLERANCE_PX = 0.04
/** Points of a line lie no farther apart, as those of a drawn one do; and no line is shorter. */
const STEP_PX = 4
const SHORTEST_PX = 0.05

const isOnPaper = ({ x, y }: Point): boolean => Math.abs(x) < FARTHEST_PX && Math.abs(y) < FARTHEST_PX

/**
 * What a path of steps paints, as closed paths of samples: one for every piece, holes cut in. Rounds that cross one another, or themselves, are painted where `winding` says. Pieces
 * that are too fine to be stored are left out.
 */
export function paintedBy(steps: readonly GlyphStep[], winding: Winding): Sample[][] {
  const rounds = pathsOf(steps).flatMap(({ points }) =>
    points.length > 2 && points.every(isOnPaper) ? [thinned(points, TOLERANCE_PX)] : [],
  )
  if (rounds.length === 0) return []
  const united = unionD(
    rounds.map(round => round.map(({ x, y }) => ({ x, y }))),
    [],
    winding === 'nonzero' ? FillRule.NonZero : FillRule.EvenOdd,
    DECIMALS,
  )
  const pieces = paintedPieces(united.map((path): Contour => path.map(({ x, y }) => ({ x, y }))))
  return pieces.filter(piece => piece.length > 2 && piece.length <= MOST_SAMPLES)
}

/** The lines of a path of steps, each in one go, of an even pressure; closed ones end where they began. */
export function linesOf(steps: readonly GlyphStep[]): Sample[][] {
  return pathsOf(steps).flatMap((path): Sample[][] => {
    if (!path.points.every(isOnPaper)) return []
    const line = asSamples(stepped(path))
    return lengthOf(line) < SHORTEST_PX || line.length > MOST_SAMPLES ? [] : [line]
  })
}

/** The points of a path, with more between those that lie far apart. */
function stepped({ points, closed }: DrawnPath): Point[] {
  const [first] = points
  const round = closed && first && points.length > 1 ? [...points, first] : points
  return round.flatMap((p, i): Point[] => {
    const before = round[i - 1]
    if (!before) return [p]
    const count = Math.min(MOST_SAMPLES, Math.ceil(distance(before, p) / STEP_PX))
    if (count < 2) return [p]
    return Array.from({ length: count }, (_, k) => ({
      x: before.x + ((p.x - before.x) * (k + 1)) / count,
      y: before.y + ((p.y - before.y) * (k + 1)) / count,
    }))
  })
}
