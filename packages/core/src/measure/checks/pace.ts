import { find } from '../../document/model/table.ts'
import type { Point } from '../../geometry/point.ts'
import { median } from '../../median.ts'
import type { Survey } from '../survey.ts'
import { thresholdOf } from '../thresholds.ts'
import type { Check, Finding } from './check.ts'
import { followedWays, numberOf, stepSeries, stepsOf, type Followed, type Step } from './followed.ts'

/** By less, px a frame, nobody sees it. */
const LEAST_PX = 3
/** What goes another way by more than this does so on purpose. */
const TURN_RAD = Math.PI / 3
/** Held this many times as long as usual, a drawing is a rest: what comes before it is one move, and what comes behind it another. */
const REST = 2

/**
 * Whether a move goes on evenly between drawings that no chart has spaced: a step against both beside it. The first and the last step of a move, those at a contact, and those where it turns, are left alone.
 */
export const pace: Check = {
  words: 'pops and stalls',
  asks: 'Does anything jump, or stand, in the middle of a move?',
  needs: ['shapes', 'marks'],
  series: stepSeries,
  inspect: survey =>
    followedWays(survey, null)
      // Without marks only what keeps its body has a middle that says where it is.
      .filter(way => way.mark !== null || way.layer.volume !== 'off')
      .flatMap(way => {
        const steps = stepsOf(way)
        const limits = { pop: thresholdOf(survey.document, 'pop'), stall: thresholdOf(survey.document, 'stall') }
        const usual = median(
          steps.map(step => step.held),
          1,
        )
        return steps.flatMap((step, i): Finding[] => {
          const [before, after] = [steps[i - 1], steps[i + 1]]
          if (!before || !after || isRest(before, usual) || isRest(step, usual) || isRest(after, usual)) return []
          if (isCharted(survey, way, step) || isContact(survey, way, step)) return []
          const said = saidOf(before, step, after, limits)
          if (!said || turns(before, step, after, limits.stall)) return []
          const [n, m] = [numberOf(survey.document, step.from.drawing), numberOf(survey.document, step.to.drawing)]
          const told = (px: number) => `${Math.round(px * 10) / 10}`
          const beside = `${told(before.pxPerFrame)} and ${told(after.pxPerFrame)} beside it`
          return [
            {
              severity: 'look',
              layer: way.layer.id,
              from: step.to.start,
              to: step.to.start + 1,
              drawings: [step.to.drawing, step.from.drawing],
              marks: way.mark === null ? [] : [way.mark],
              figures: { pxPerFrame: step.pxPerFrame, before: before.pxPerFrame, after: after.pxPerFrame },
              at: step.to.at,
              isInPicture: true,
              words: `${way.of}${m} ${said} from ${n}: ${told(step.pxPerFrame)} px a frame, ${beside}`,
            },
          ]
        })
      }),
}

const isRest = ({ held }: Step, usual: number): boolean => held > REST * usual

/** A step so many times as long as both beside it jumps; one so much shorter than both stands. */
interface Limits {
  readonly pop: number
  readonly stall: number
}

function saidOf(before: Step, step: Step, after: Step, { pop, stall }: Limits): 'jumps' | 'hardly moves' | null {
  const [least, most] = [Math.min(before.pxPerFrame, after.pxPerFrame), Math.max(before.pxPerFrame, after.pxPerFrame)]
  if (step.pxPerFrame > pop * most && step.pxPerFrame - most >= LEAST_PX) return 'jumps'
  return step.pxPerFrame < stall * least && least - step.pxPerFrame >= LEAST_PX ? 'hardly moves' : null
}

/** Whether a chart has said how far this step is: then it is held against the chart. */
function isCharted({ document }: Survey, { mark }: Followed, { from, to }: Step): boolean {
  return Object.values(document.charts).some(({ from: a, to: b, ticks, part }) => {
    if (part !== null && part !== mark) return false
    const on = new Set([a, b, ...ticks.map(tick => tick.drawing)])
    return on.has(from.drawing) && on.has(to.drawing)
  })
}

function isContact({ document }: Survey, { mark }: Followed, { from, to }: Step): boolean {
  return [from, to].some(
    ({ drawing }) => mark !== null && find(find(document.drawings, drawing)?.marks ?? {}, mark)?.planted,
  )
}

const angle = (a: Point, b: Point): number => Math.abs(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y))
const along = ({ from, to }: Step): Point => ({
  x: (to.at as Point).x - (from.at as Point).x,
  y: (to.at as Point).y - (from.at as Point).y,
})

/** Whether it turns there, measured across a step that is too short to have a direction. */
function turns(before: Step, step: Step, after: Step, stall: number): boolean {
  const isShort = step.pxPerFrame < stall * Math.min(before.pxPerFrame, after.pxPerFrame)
  if (isShort) return angle(along(before), along(after)) > TURN_RAD
  return angle(along(before), along(step)) > TURN_RAD || angle(along(step), along(after)) > TURN_RAD
}
