import type { LoopRange } from '../time/loop.ts'
import { standingOn, type Standing } from './ground.ts'
import { distance, type Point } from '../geometry/point.ts'
import type { Drawing, Mark, MarkPlace, ShotDocument, Take } from '../document/model/model.ts'
import { exposuresIn } from '../document/model/followed.ts'
import { exposures, marksOf } from '../document/model/selectors.ts'
import { find } from '../document/model/table.ts'
import { thresholdOf } from './thresholds.ts'

/** Over the seam of a loop, a mark that lies farther off than this share of the picture's width is cut back, and does not slip. */
const CUT_SHARE = 0.1

/** A planted mark on a drawing, and where it was set down. */
export interface Planted {
  readonly mark: string
  readonly drawing: string
  /** frame the drawing's exposure starts on, from 0 */
  readonly frame: number
  readonly at: Point
  /** the drawing it was set down on, and where it belongs now: where it lay there, carried along by the ground since */
  readonly from: string
  readonly anchor: Point
  /** distance of the two, paper pixels */
  readonly offPx: number
}

/** Whether a planted mark lies farther from where it was set down than the shot allows, paper pixels. */
export const slips = (document: ShotDocument, planted: Planted): boolean =>
  planted.offPx > thresholdOf(document, 'slip')

interface Step {
  readonly drawing: string
  readonly frame: number
  readonly place: MarkPlace | undefined
}

/**
 * Planted marks of a layer, exposure by exposure: each is held against the place on the first drawing of its stretch, the
 * exposures in a row on which it is planted. What is lifted and set down again begins a new stretch. With `loop` (a frame
 * range) only what starts in it counts, and a stretch goes on from its last exposure to its first; a loop that cuts back
 * there, by more than `CUT_SHARE` of the picture's width, sets its marks down anew. Where the ground passes under the layer,
 * or the layer moves, what stands has to go along.
 */
export function plantedMarks(document: ShotDocument, take: Take, layer: string, loop: LoopRange | null): Planted[] {
  const runs = exposuresIn(take, layer, loop)
  const standing = standingOn(document, take, layer)
  return marksOf(document, layer).flatMap(mark => {
    const steps = runs.map((run): Step => {
      const drawing = run.drawing as string
      return { drawing, frame: run.start, place: find(find(document.drawings, drawing)?.marks ?? {}, mark.id) }
    })
    const round = loop ? loop.to - loop.from : 0
    return heldAgainst(mark.id, loop ? fromALift(steps) : steps, CUT_SHARE * document.format.width, round, standing)
  })
}

/** `round`: frames of the loop that is gone round. */
function heldAgainst(
  mark: string,
  steps: readonly Step[],
  cutPx: number,
  round: number,
  standing: Standing,
): Planted[] {
  const found: Planted[] = []
  let down: { from: string; at: Point; frame: number } | null = null
  let last = -1
  for (const { drawing, frame, place } of steps) {
    const overSeam = frame < last
    last = frame
    if (!place?.planted) {
      down = null
      continue
    }
    const at = { x: place.x, y: place.y }
    const carried = (set: { at: Point; frame: number }): Point =>
      standing(set.at, set.frame, frame, frame < set.frame ? round : 0)
    if (overSeam && down && distance(at, carried(down)) > cutPx) down = null
    down ??= { from: drawing, at, frame }
    const anchor = carried(down)
    found.push({ mark, drawing, frame, at, from: down.from, anchor, offPx: distance(at, anchor) })
  }
  return found
}

/** The same steps round the loop, begun behind a step on which the mark is not planted, if there is one. */
function fromALift(steps: readonly Step[]): readonly Step[] {
  const lift = steps.findIndex(step => !step.place?.planted)
  return lift < 0 ? steps : [...steps.slice(lift), ...steps.slice(0, lift)]
}

/**
 * Where a mark belongs on the exposure that starts on `frame` if it is planted there: where it was set down, carried along by the
 * ground, when it is planted on the exposure before, that of the drawing `before`. Null when it is not.
 */
export function groundFor(
  planted: readonly Planted[],
  mark: string,
  before: string,
  frame: number,
  standing: Standing,
): Point | null {
  const last = planted.filter(one => one.mark === mark && one.drawing === before && one.frame <= frame).at(-1)
  return last ? standing(last.anchor, last.frame, frame) : null
}

/** A mark on a drawing that is planted there, or may be next: where it was set down, and where it lies (null: not placed yet). */
export interface Ground {
  readonly mark: Mark
  readonly anchor: Point
  readonly at: Point | null
  readonly slips: boolean
}

/**
 * Where the planted marks of its layer belong on a drawing that is looked at on a frame (from 0): those planted on it, and those planted on
 * the drawing shown before that it does not have yet. Places in pixels of the layer; `planted` is what the layer has.
 */
export function groundsOn(
  document: ShotDocument,
  take: Take,
  { id, layer, marks }: Drawing,
  frame: number,
  planted: readonly Planted[],
): Ground[] {
  const shown = exposures(take, layer)
  const previous = shown.filter(run => run.start < frame && run.drawing !== id).at(-1)?.drawing ?? ''
  const start = shown.find(run => run.drawing === id && run.start + run.frames > frame)?.start
  const standing = standingOn(document, take, layer)
  return marksOf(document, layer).flatMap((mark): Ground[] => {
    const here = planted.find(
      one => one.mark === mark.id && one.drawing === id && (start === undefined || one.frame === start),
    )
    if (here) return [{ mark, anchor: here.anchor, at: here.at, slips: slips(document, here) }]
    const anchor = marks[mark.id] ? null : groundFor(planted, mark.id, previous, start ?? frame, standing)
    return anchor ? [{ mark, anchor, at: null, slips: false }] : []
  })
}
