import { exposuresIn, followedMark, stepsSeen, type FollowedStep } from '../../document/model/followed.ts'
import { isAnimated } from '../../document/model/model.ts'
import { layersInOrder, marksOf } from '../../document/model/selectors.ts'
import { find } from '../../document/model/table.ts'
import { movedSteps } from '../steps.ts'
import { placeOn, type Survey } from '../survey.ts'
import type { Check, Finding } from './check.ts'

/** A place is read no better than this, paper pixels. */
const READ_PX = 1

/** Where something lies over the exposures of a layer: each of its marks, or the middles of its drawings where it has none. */
function followed(survey: Survey, layer: string): { mark: string | null; steps: FollowedStep[] }[] {
  const { document, take } = survey
  const runs = exposuresIn(take, layer, survey.loop)
  const seen = (steps: FollowedStep[]) => stepsSeen(document, take, layer, steps)
  const marks = marksOf(document, layer).filter(mark => mark.kind === 'point')
  if (marks.length > 0) return marks.map(({ id }) => ({ mark: id, steps: seen(followedMark(document, runs, id)) }))
  const middles = runs.map(({ drawing, start }): FollowedStep => {
    const one = find(document.drawings, drawing as string) ?? null
    return { drawing: drawing as string, start, at: placeOn(survey, one, null) }
  })
  return [{ mark: null, steps: seen(middles) }]
}

/** Whether anything goes farther a frame than the movement that was studied does; silent while no ceiling was taken. */
export const ceiling: Check = {
  words: 'longest step',
  asks: 'Does anything go farther a frame than the movement you studied?',
  needs: ['shapes', 'marks'],
  isAsked: document => document.ceiling !== null,
  inspect(survey) {
    const { document, loop } = survey
    const most = document.ceiling
    if (most === null) return []
    return layersInOrder(document)
      .filter(isAnimated)
      .flatMap(layer =>
        followed(survey, layer.id)
          .flatMap(({ mark, steps }) => {
            const name = mark === null ? '' : `${find(document.marks, mark)?.name ?? ''} of `
            return movedSteps(steps, loop).flatMap(({ from, to, frames, px, pxPerFrame }): Finding[] => {
              const [before, after] = [find(document.drawings, from), find(document.drawings, to)]
              const start = steps.find(step => step.drawing === to)
              if (!before || !after || !start || px === null || pxPerFrame === null) return []
              if (px <= most * frames + READ_PX) return []
              const told = `${Math.round(pxPerFrame * 10) / 10} px a frame, more than ${Math.round(most * 10) / 10}`
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
                  words: `${name}${after.number} goes ${told}, from ${before.number}`,
                },
              ]
            })
          })
          .sort((a, b) => a.from - b.from),
      )
  },
}
