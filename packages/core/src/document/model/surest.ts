import { distance, type Point } from '../../geometry/point.ts'
import { exposuresIn, followedMark, type FollowedStep } from './followed.ts'
import type { ShotDocument, Take } from './model.ts'
import { exposures, marksOf } from './selectors.ts'

/** How sure a drawing is: whatever trails is stretched most where what leads is fastest, and so known best there. */
export interface Sure {
  /** the mark that leads, by its name */
  readonly leads: string
  /** how fast it goes there, px a frame */
  readonly speed: number
  /** drawings from the one where it is fastest; round a loop the shorter way */
  readonly apart: number
}

/** Fewer places say nothing about how fast a mark goes. */
const LEAST_PLACES = 3

/**
 * How sure the drawings of a layer are, by the mark that goes farthest over them: from the drawing on which it is fastest outwards,
 * round the loop of the take where the layer is shown in it. Speeds are between the neighbours of a drawing, px a frame. Empty where no mark
 * has places on three drawings.
 */
export function surestOf(document: ShotDocument, take: Take, layer: string): Map<string, Sure> {
  const inLoop = take.loop ? exposuresIn(take, layer, take.loop) : []
  const loop = inLoop.length > 2 ? take.loop : null
  const runs = loop ? inLoop : exposures(take, layer)
  const ways = marksOf(document, layer)
    .filter(mark => mark.kind === 'point')
    .map(({ id, name }) => {
      const steps = followedMark(document, runs, id)
      const placed = steps.flatMap(step => step.at ?? [])
      const goes = placed.slice(1).reduce((sum, at, i) => sum + distance(placed[i] as Point, at), 0)
      return { name, steps, places: placed.length, goes }
    })
    .filter(way => way.places >= LEAST_PLACES && way.goes > 0)
  const leader = ways.reduce<(typeof ways)[number] | null>(
    (most, way) => (most && most.goes >= way.goes ? most : way),
    null,
  )
  if (!leader) return new Map()
  const round = loop ? loop.to - loop.from : 0
  const speeds = leader.steps.map((_, i) => speedAt(leader.steps, i, round))
  const fastest = speeds.reduce((best, speed, i) => (speed > (speeds[best] as number) ? i : best), 0)
  const count = speeds.length
  const sure = new Map<string, Sure>()
  leader.steps.forEach(({ drawing }, i) => {
    const straight = Math.abs(i - fastest)
    const apart = loop ? Math.min(straight, count - straight) : straight
    const known = sure.get(drawing)
    if (!known || known.apart > apart) sure.set(drawing, { leads: leader.name, speed: speeds[i] as number, apart })
  })
  return sure
}

/** How fast a mark goes on a step: from the one before to the one after, or from or to itself at an end. */
function speedAt(steps: readonly FollowedStep[], i: number, round: number): number {
  const count = steps.length
  const pick = (k: number): { at: Point | null; start: number } | null => {
    if (k >= 0 && k < count) return steps[k] as FollowedStep
    if (round === 0) return null
    const step = steps[(k + count) % count] as FollowedStep
    return { at: step.at, start: step.start + (k < 0 ? -round : round) }
  }
  const here = steps[i] as FollowedStep
  const [a, b] = [pick(i - 1) ?? here, pick(i + 1) ?? here]
  return a.at && b.at && b.start > a.start ? distance(a.at, b.at) / (b.start - a.start) : 0
}
