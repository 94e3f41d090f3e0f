import { seenPath } from '../../document/model/carried.ts'
import { exposuresIn } from '../../document/model/followed.ts'
import { isAnimated } from '../../document/model/model.ts'
import { layersInOrder } from '../../document/model/selectors.ts'
import { median } from '../../median.ts'
import { differenceOf, type Coverage } from '../../raster/coverage.ts'
import type { LoopRange } from '../../time/loop.ts'
import { movedSteps } from '../steps.ts'
import type { Survey } from '../survey.ts'
import { thresholdOf } from '../thresholds.ts'
import type { Check, Finding } from './check.ts'
import { followedWays, numberOf, stepSeries } from './followed.ts'

/** A step over the seam that is longer by less, px a frame, nobody sees. */
const LEAST_PX = 3
/** A way with fewer steps has no usual one. */
const FEWEST = 4

/** Whether a loop goes round without a jump, and shows no drawing twice where it closes. */
export const seam: Check = {
  words: 'loop',
  asks: 'Does the loop go round without a jump where it closes?',
  needs: ['shapes'],
  series: survey => stepSeries(survey),
  isAsked: ({ document }) => Object.values(document.takes).some(take => take.loop !== null),
  inspect(survey) {
    const { document, take } = survey
    const { loop } = take
    if (!loop) return []
    const twice = layersInOrder(document)
      .filter(isAnimated)
      .flatMap((layer): Finding[] => {
        const runs = exposuresIn(take, layer.id, loop)
        const [first, last] = [runs[0], runs[runs.length - 1]]
        const drawing = last?.drawing
        if (!first || !last || runs.length < 3 || first.drawing !== drawing || first.start !== loop.from) return []
        if (last.start + last.frames < loop.to) return []
        const n = numberOf(document, drawing as string)
        const frames = first.frames + last.frames
        return [
          {
            severity: 'note',
            layer: layer.id,
            from: last.start,
            to: loop.to,
            drawings: [drawing as string],
            marks: [],
            figures: { frames },
            at: null,
            words: `${n} ends the loop and begins it: it is seen for ${frames} frames, where it closes`,
          },
        ]
      })
    const jumps = followedWays(survey, loop).flatMap(({ layer, mark, of, steps }): Finding[] => {
      const moved = movedSteps(steps, loop)
      const closing = moved[moved.length - 1]
      const others = moved.slice(0, -1).flatMap(step => (step.pxPerFrame ? [step.pxPerFrame] : []))
      const px = closing?.pxPerFrame
      if (!closing || px === null || px === undefined || others.length < FEWEST - 1) return []
      // Only where it closes, and not where the last drawings of a part of it follow one another.
      if (closing.to !== steps[0]?.drawing) return []
      const usual = median(others, 0)
      if (px <= thresholdOf(document, 'seam') * usual || px - usual < LEAST_PX) return []
      const [n, m] = [numberOf(document, closing.from), numberOf(document, closing.to)]
      return [
        {
          severity: 'look',
          layer: layer.id,
          from: loop.to - 1,
          to: loop.to,
          drawings: [closing.from, closing.to],
          marks: mark === null ? [] : [mark],
          figures: { pxPerFrame: px, usual },
          at: steps[steps.length - 1]?.at ?? null,
          isInPicture: true,
          words: `${of}${n} jumps to ${m} where the loop closes: ${round(px)} px a frame, ${round(usual)} otherwise`,
        },
      ]
    })
    return [...jumps, ...twice, ...nearly(survey, loop)]
  },
}

const round = (px: number): number => Math.round(px * 10) / 10

/** First and last are nearly the same when they differ by less than this share of what neighbours usually do. */
const NEARLY = 0.25

/** Loops whose last drawing is nearly its first: it is seen twice where it closes. Not where they rest there: then the steps beside it are as short. */
function nearly(survey: Survey, loop: LoopRange): Finding[] {
  const { document, take, shapes } = survey
  return layersInOrder(document)
    .filter(layer => isAnimated(layer) && layer.volume !== 'off' && !seenPath(document, take, layer.id, 'sent off'))
    .flatMap((layer): Finding[] => {
      const runs = exposuresIn(take, layer.id, loop)
      const [first, last] = [runs[0], runs.at(-1)]
      if (!first || !last || runs.length < FEWEST || first.drawing === last.drawing) return []
      const fills = first.start === loop.from && last.start + last.frames >= loop.to
      const bodies = runs.map(run => shapes.get(run.drawing as string)?.coverage)
      if (!fills || bodies.some(body => !body)) return []
      const differ = (i: number, k: number) => differenceOf(bodies[i] as Coverage, bodies[k] as Coverage)
      const steps = runs.slice(1).map((_, i) => differ(i, i + 1))
      const usual = median(steps)
      const [before, after] = [steps.at(-1) as number, steps[0] as number]
      const closing = differ(runs.length - 1, 0)
      if (closing >= NEARLY * usual || Math.min(before, after) < NEARLY * usual) return []
      const [n, m] = [numberOf(document, last.drawing as string), numberOf(document, first.drawing as string)]
      return [
        {
          severity: 'note',
          layer: layer.id,
          ...{ from: last.start, to: loop.to, drawings: [last.drawing as string, first.drawing as string] },
          ...{ marks: [], at: null },
          figures: { closing, usual },
          words: `${n} is nearly ${m}: where the loop closes it is seen twice, and a drawing less would go round evenly`,
        },
      ]
    })
}
