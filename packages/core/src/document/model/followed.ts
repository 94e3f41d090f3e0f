import type { Point } from '../../geometry/point.ts'
import type { PlacedRun } from '../../time/exposure.ts'
import type { LoopRange } from '../../time/loop.ts'
import { placeSeen } from './carried.ts'
import type { ShotDocument, Take } from './model.ts'
import { exposures } from './selectors.ts'
import { find } from './table.ts'

/** An exposure, and where what is followed lies on its drawing, paper pixels; null where that is not known. */
export interface FollowedStep {
  readonly drawing: string
  /** frame it starts on, from 0 */
  readonly start: number
  readonly at: Point | null
}

/** The exposures of a layer in the order of frames; with a loop, those that start in it. */
export const exposuresIn = (take: Take, layer: string, loop: LoopRange | null): PlacedRun[] =>
  exposures(take, layer).filter(run => !loop || (run.start >= loop.from && run.start < loop.to))

/** Where a mark lies on the drawings of some exposures, paper pixels. */
export const followedMark = (document: ShotDocument, runs: readonly PlacedRun[], mark: string): FollowedStep[] =>
  runs.map(({ drawing, start }) => {
    const place = find(find(document.drawings, drawing as string)?.marks ?? {}, mark)
    return { drawing: drawing as string, start, at: place ? { x: place.x, y: place.y } : null }
  })

/** Steps of what lies on a layer, with the places they have in the picture: the layer may move as well. */
export const stepsSeen = (
  document: ShotDocument,
  take: Take,
  layer: string,
  steps: readonly FollowedStep[],
): FollowedStep[] =>
  steps.map(step => ({ ...step, at: step.at && placeSeen(document, take, layer, step.start, step.at) }))
