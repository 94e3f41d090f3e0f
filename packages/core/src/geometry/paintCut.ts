import { differenceD, EndType, FillRule, inflatePathsD, intersectD, JoinType, type PathsD } from 'clipper2-ts'
import { paintedPieces, type Contour } from './contours.ts'
import { boxesMeet, boxOf, grown, type Point } from './point.ts'
import type { Sample } from './samples.ts'

/** Places are kept to so many decimals of a pixel while paint is cut: finer than stored samples are. */
const DECIMALS = 3

const asPaths = (path: readonly Point[]): PathsD => [path.map(({ x, y }) => ({ x, y }))]
const pieces = (cut: PathsD): Sample[][] =>
  paintedPieces(cut.map((path): Contour => path.map(({ x, y }) => ({ x, y }))))

/**
 * What is left of a painted shape when a round tip of `radius` px rubs along `track`: a closed path for every piece, holes
 * cut in; none when all was rubbed off, null when nothing was touched. Lines that cross themselves are painted where they
 * wind round, as they are seen.
 */
export function paintLeft(shape: readonly Sample[], track: readonly Point[], radius: number): Sample[][] | null {
  if (shape.length < 3 || track.length === 0 || !boxesMeet(grown(boxOf(track), radius), boxOf(shape))) return null
  const tip = inflatePathsD(asPaths(track), radius, JoinType.Round, EndType.Round)
  const subject = asPaths(shape)
  if (intersectD(subject, tip, FillRule.NonZero, DECIMALS).length === 0) return null
  return pieces(differenceD(subject, tip, FillRule.NonZero, DECIMALS))
}

/** A painted shape parted by a loop: the pieces inside it and those outside. */
export function paintParted(
  shape: readonly Sample[],
  loop: readonly Point[],
): { readonly inside: Sample[][]; readonly outside: Sample[][] } {
  const [subject, cutter] = [asPaths(shape), asPaths(loop)]
  return {
    inside: pieces(intersectD(subject, cutter, FillRule.NonZero, DECIMALS)),
    outside: pieces(differenceD(subject, cutter, FillRule.NonZero, DECIMALS)),
  }
}
