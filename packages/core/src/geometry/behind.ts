import { boxesMeet, boxOf, distanceToPiece, insidePolygon, lerp, type Point } from './point.ts'
import type { Range } from './reshape.ts'
import type { Sample } from './samples.ts'
import type { PlacedStroke } from './stroke.ts'

/** A line most of which runs along the edge of a part, this near (besides half its width), is the part's own. */
const ALONG_PX = 3
const OWN_SHARE = 0.6

/** How far a place lies from the edge of a closed polygon, px. */
function depth(at: Point, edge: readonly Point[]): number {
  let least = Infinity
  edge.forEach((b, i) => {
    least = Math.min(least, distanceToPiece(at, edge[(i + edge.length - 1) % edge.length] as Point, b))
  })
  return least
}

/** Halvings by which it is found where a line crosses an edge: a thousandth of the way between two samples. */
const HALVINGS = 10

/** A piece of a line whose ends go under parts, ending on the edge of each: an end that lies within is taken back to where the line went in. Pressure goes along. */
export function endedAtEdge(parts: readonly (readonly Point[])[], samples: readonly Sample[]): Sample[] {
  const isIn = (at: Point) => parts.some(part => insidePolygon(at, part))
  const ended = (end: Sample | undefined, next: Sample | undefined): Sample | undefined => {
    if (!end || !next || !isIn(end) || isIn(next)) return end
    let [out, within] = [0, 1]
    for (let k = 0; k < HALVINGS; k++) {
      const middle = (out + within) / 2
      if (isIn(lerp(next, end, middle))) within = middle
      else out = middle
    }
    return { ...lerp(next, end, within), pressure: next.pressure + (end.pressure - next.pressure) * within }
  }
  if (samples.length < 2) return [...samples]
  const first = ended(samples[0], samples[1]) as Sample
  const last = ended(samples[samples.length - 1], samples[samples.length - 2]) as Sample
  return [first, ...samples.slice(1, -1), last]
}

/**
 * What is left of a line that runs on behind a part that lies before it, `part` a closed polygon of at least three places: ranges of its samples, in order. Null where nothing
 * of it lies behind. Cut is where it comes in from outside and gets farther in than half its width and a pixel; a line wholly inside is drawn on the part, one that runs
 * along its edge is its own, and both stay.
 */
export function leftBefore(part: readonly Point[], line: PlacedStroke): Range[] | null {
  const { samples, width } = line
  if (part.length < 3 || samples.length < 2) return null
  const box = boxOf(part)
  if (!boxesMeet(box, line.box)) return null
  const isNear = ({ x, y }: Point) => x >= box.left && x <= box.right && y >= box.top && y <= box.bottom
  const inside = samples.map(s => isNear(s) && insidePolygon(s, part))
  if (!inside.includes(true) || !inside.includes(false)) return null
  const depths = samples.map(s => depth(s, part))
  const along = depths.filter(px => px <= width / 2 + ALONG_PX).length
  if (along > OWN_SHARE * samples.length) return null
  const left: Range[] = []
  let isCut = false
  let from = 0
  for (let i = 0; i < samples.length;) {
    if (!inside[i]) {
      i++
      continue
    }
    let end = i
    while (end + 1 < samples.length && inside[end + 1]) end++
    // An end that goes under the edge by one sample is as it is left.
    const isEnd = i === end && (i === 0 || i === samples.length - 1)
    if (!isEnd && Math.max(...depths.slice(i, end + 1)) > width / 2 + 1) {
      isCut = true
      // It ends under the edge of the part: with its first sample inside.
      if (i > from) left.push([from, i])
      from = end
    }
    i = end + 1
  }
  if (!isCut) return null
  if (samples.length - 1 > from) left.push([from, samples.length - 1])
  return left
}
