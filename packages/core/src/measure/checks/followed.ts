import { exposuresIn, followedMark, stepsSeen, type FollowedStep } from '../../document/model/followed.ts'
import { isAnimated, type Layer, type ShotDocument } from '../../document/model/model.ts'
import { layersInOrder, marksOf } from '../../document/model/selectors.ts'
import { find } from '../../document/model/table.ts'
import type { LoopRange } from '../../time/loop.ts'
import { median } from '../../median.ts'
import { distance, type Point } from '../../geometry/point.ts'
import { placeOn, type Survey } from '../survey.ts'
import { tracksOfMarks } from '../tracks/ofMarks.ts'
import type { Track } from '../tracks/track.ts'
import type { Series } from './check.ts'

/** The way of something over the exposures of a layer: a mark of it, or the middles of its silhouettes. */
export interface Followed {
  readonly layer: Layer
  /** id of the mark; null: the middles of silhouettes */
  readonly mark: string | null
  /** before what is said of a drawing: "heel of ", or nothing */
  readonly of: string
  readonly steps: readonly FollowedStep[]
}

/** What can be followed on a layer: each of its marks, or the middles of its drawings where it has none. `loop` leaves out what is not in it. */
function followedOn(survey: Survey, layer: Layer, loop: LoopRange | null): Followed[] {
  const { document, take } = survey
  const runs = exposuresIn(take, layer.id, loop)
  const seen = (steps: FollowedStep[]) => stepsSeen(document, take, layer.id, steps)
  const marks = marksOf(document, layer.id).filter(mark => mark.kind === 'point')
  if (marks.length > 0) {
    return marks.map(({ id, name }) => ({
      layer,
      mark: id,
      of: `${name} of `,
      steps: seen(followedMark(document, runs, id)),
    }))
  }
  const middles = runs.map(({ drawing, start }): FollowedStep => {
    const one = find(document.drawings, drawing as string) ?? null
    return { drawing: drawing as string, start, at: placeOn(survey, one, null) }
  })
  return [{ layer, mark: null, of: '', steps: seen(middles) }]
}

/** What can be followed on all layers that are animated, in their order. */
export const followedWays = (survey: Survey, loop: LoopRange | null): Followed[] =>
  layersInOrder(survey.document)
    .filter(isAnimated)
    .flatMap(layer => followedOn(survey, layer, loop))

/** What leads each layer that is animated: its first mark, or the middles of its silhouettes. */
export const leadsOf = (survey: Survey): Followed[] => {
  const ways = followedWays(survey, null)
  return ways.filter((way, i) => ways.findIndex(other => other.layer === way.layer) === i)
}

/** A way as a track, places that are not known left out. */
export const trackOf = ({ layer, mark, steps }: Followed, name: string): Track => ({
  id: mark ?? layer.id,
  name,
  places: steps.flatMap(({ start, at }) => (at ? [{ frame: start, at }] : [])),
})

/** What moves on a layer, part by part: its marks, or where it has none the middle of what is drawn. */
export function partsOf(survey: Survey, layer: Layer): Track[] {
  const marked = tracksOfMarks(survey.document, survey.take, layer.id)
  if (marked.length > 0) return marked
  const middle = followedOn(survey, layer, null).find(way => way.mark === null)
  const track = middle && trackOf(middle, 'its middle')
  return track && track.places.length > 1 ? [track] : []
}

/** One step of a way: from the drawing before to the one that appears on its frame. */
export interface Step {
  readonly from: FollowedStep
  readonly to: FollowedStep
  /** frames the earlier one is held */
  readonly held: number
  /** px a frame: the distance over the frames the earlier one is held, but no more than are usual on this way (the median) */
  readonly pxPerFrame: number
}

/** The steps of a way whose ends are both known; what is held is one place. */
export function stepsOf({ steps }: Pick<Followed, 'steps'>): Step[] {
  const places = steps.filter((step, i) => step.at && step.drawing !== steps[i - 1]?.drawing)
  const pairs = places.slice(1).map((to, i) => [places[i] as FollowedStep, to] as const)
  const usual = median(
    pairs.map(([from, to]) => to.start - from.start),
    1,
  )
  return pairs.map(([from, to]) => {
    const held = to.start - from.start
    const px = distance(from.at as Point, to.at as Point)
    return { from, to, held, pxPerFrame: px / Math.max(1, Math.min(held, usual)) }
  })
}

/** How far everything goes a frame, on the frame on which each drawing appears. */
export const stepSeries = (survey: Survey): Series[] =>
  followedWays(survey, null).flatMap((way): Series[] => {
    const values = stepsOf(way).map(({ to, pxPerFrame }) => ({
      frame: to.start,
      drawing: to.drawing,
      value: pxPerFrame,
    }))
    const name = way.of === '' ? way.layer.name : `${way.layer.name}, ${way.of.replace(/ of $/, '')}`
    return values.length > 0
      ? [{ layer: way.layer.id, mark: way.mark, name, unit: 'px a frame', values, planned: [] }]
      : []
  })

/** The number of a drawing as it is told. */
export const numberOf = (document: ShotDocument, id: string): number => find(document.drawings, id)?.number ?? 0
