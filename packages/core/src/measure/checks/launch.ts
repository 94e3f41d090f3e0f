import { distance, type Point } from '../../geometry/point.ts'
import { median } from '../../median.ts'
import { counted } from '../../time/counted.ts'
import type { Survey } from '../survey.ts'
import type { Check, Finding } from './check.ts'
import { leadsOf, stepSeries, stepsOf, type Followed, type Step } from './followed.ts'

/** A move of more than this share of the figure, in less than this time, needs something before or after it. */
const FIGURE_SHARE = 0.15
const FAST_S = 1 / 3
/** Back behind where it began, or past where it ends, by this share of the move: that is seen. */
const SEEN_SHARE = 0.02
/** Slower than this, px a frame, nothing goes on. */
const LEAST_SPEED = 0.5
/** Held this many times as long as usual, a drawing is a rest. */
const REST = 2

/** The moves of a way: what happens from one rest to the next, without the still steps. */
function movesOf(way: Followed): Step[][] {
  const steps = stepsOf(way)
  const usual = median(
    steps.map(step => step.held),
    1,
  )
  const moves: Step[][] = []
  for (const step of steps) {
    const current = moves[moves.length - 1]
    if (!current || step.held > REST * usual) moves.push([step])
    else current.push(step)
  }
  return moves.map(withoutStill)
}

/** A move without the steps before and behind it in which nothing goes on. */
function withoutStill(steps: readonly Step[]): Step[] {
  const goes = steps.map(step => step.pxPerFrame >= LEAST_SPEED)
  return goes.includes(true) ? steps.slice(goes.indexOf(true), goes.lastIndexOf(true) + 1) : []
}

/** How far the places of a move lie along its main direction, 0 where it begins and 1 where it ends. */
function sharesOf(steps: readonly Step[]): { readonly px: number; readonly shares: readonly number[] } {
  const places = [steps[0]?.from.at as Point, ...steps.map(step => step.to.at as Point)]
  const [a, b] = [places[0] as Point, places[places.length - 1] as Point]
  const px = distance(a, b)
  const along = ({ x, y }: Point) => ((x - a.x) * (b.x - a.x) + (y - a.y) * (b.y - a.y)) / Math.max(1e-9, px * px)
  return { px, shares: places.map(along) }
}

/** Whether a fast move is announced, or goes past its end: a figure that only jumps from pose to pose has no force. Asked of what leads each layer. */
export const launch: Check = {
  words: 'before and after',
  asks: 'Does a fast move begin against its way, or go past its end?',
  needs: ['shapes'],
  series: stepSeries,
  inspect: survey =>
    leadsOf(survey)
      .filter(way => way.layer.volume !== 'off')
      .flatMap(way => movesOf(way).flatMap(steps => ofMove(survey, way, steps))),
}

/** What falls is not announced: it goes down, and is fastest where it lands. */
function isFall(steps: readonly Step[]): boolean {
  const [first, last] = [steps[0] as Step, steps[steps.length - 1] as Step]
  const [a, b] = [first.from.at as Point, last.to.at as Point]
  const isDown = b.y - a.y > Math.abs(b.x - a.x)
  return isDown && steps.every((step, i) => step.pxPerFrame >= (steps[i - 1]?.pxPerFrame ?? 0))
}

function ofMove({ document, shapes }: Survey, way: Followed, steps: readonly Step[]): Finding[] {
  const [first, last] = [steps[0], steps[steps.length - 1]]
  const body = first && shapes.get(first.from.drawing)
  if (!first || !last || !body || steps.length < 2) return []
  const frames = last.to.start - first.to.start + 1
  const { px, shares } = sharesOf(steps)
  if (px <= FIGURE_SHARE * 2 * body.halfAxes[0] || frames >= FAST_S * document.format.fps) return []
  if (shares.some(share => share < -SEEN_SHARE || share > 1 + SEEN_SHARE) || isFall(steps)) return []
  return [
    {
      severity: 'note',
      layer: way.layer.id,
      ...{ from: first.to.start, to: last.to.start + 1, drawings: [first.to.drawing, last.to.drawing] },
      marks: way.mark === null ? [] : [way.mark],
      figures: { px, frames },
      at: first.from.at,
      isInPicture: true,
      words: `${way.of === '' ? '' : `${way.of.replace(/ of $/, '')} `}moves ${Math.round(px)} px in ${counted(frames, 'frame')}: nothing goes the other way before it, and nothing goes past its end`,
    },
  ]
}
