import { find } from '../../document/model/table.ts'
import { movedSteps } from '../steps.ts'
import type { Check, Finding } from './check.ts'
import { followedWays, numberOf, stepSeries } from './followed.ts'
import type { Survey } from '../survey.ts'

/** A place is read no better than this, paper pixels. */
const READ_PX = 1

/** Whether anything goes farther a frame than the movement that was studied does; silent while no ceiling was taken. */
export const ceiling: Check = {
  words: 'longest step',
  asks: 'Does anything go farther a frame than the movement you studied?',
  needs: ['shapes', 'marks'],
  isAsked: ({ document }) => document.ceiling !== null,
  series: stepSeries,
  limits: ({ document }) => (document.ceiling === null ? [] : [document.ceiling]),
  inspect(survey) {
    const { document, loop } = survey
    const most = document.ceiling
    if (most === null) return []
    return followedWays(survey, loop)
      .flatMap(({ layer, mark, of, steps }) => {
        // A cycle takes the same step again and again.
        const told = new Set<string>()
        return movedSteps(steps, loop).flatMap(({ from, to, frames, px, pxPerFrame }): Finding[] => {
          if (told.has(`${from} ${to}`)) return []
          const [before, after] = [find(document.drawings, from), find(document.drawings, to)]
          const start = steps.find(step => step.drawing === to)
          if (!before || !after || !start || px === null || pxPerFrame === null) return []
          if (px <= most * frames + READ_PX) return []
          told.add(`${from} ${to}`)
          const goes = `${Math.round(pxPerFrame * 10) / 10} px a frame, more than ${Math.round(most * 10) / 10}`
          return [
            {
              severity: 'look',
              layer: layer.id,
              from: start.start,
              to: start.start + 1,
              drawings: [to, from],
              marks: mark === null ? [] : [mark],
              figures: { pxPerFrame, ceiling: most },
              at: start.at,
              isInPicture: true,
              words: `${of}${numberOf(document, to)} goes ${goes}, from ${before.number}`,
            },
          ]
        })
      })
      .sort((a, b) => order(survey, a.layer) - order(survey, b.layer) || a.from - b.from)
  },
}

const order = ({ document }: Survey, layer: string | null): number => find(document.layers, layer ?? '')?.order ?? 0
