import { currentTake, exposures } from '../../document/model/selectors.ts'
import type { Guide } from '../../document/model/model.ts'
import { find } from '../../document/model/table.ts'
import { seenInWords, seenOf, type WispPlan } from '../../motion/wisps/wisps.ts'
import { guidePlan } from '../../document/model/guides.ts'
import type { Survey } from '../survey.ts'
import type { Check, Finding } from './check.ts'

/** How many drawings a cycle that was laid from a guide has now: some may be gone. */
function drawingsLaid({ document }: Survey, { laid, layer }: Guide): number {
  const shown = new Set(exposures(currentTake(document), layer).map(run => run.drawing))
  return laid.drawings.filter(id => find(document.drawings, id) && shown.has(id)).length
}

/** Whether shapes that are all alike seem to do what they are planned to: as many wisps as pass, over as many drawings as there are. */
export const stands: Check = {
  words: 'stands still',
  asks: 'Do shapes that are all alike seem to go the way they are drawn?',
  needs: [],
  isAsked: ({ document }) => Object.values(document.guides).some(guide => guide.recipe === 'wisps'),
  inspect: survey =>
    Object.values(survey.document.guides)
      .filter(guide => guide.recipe === 'wisps' && guide.take === survey.take.id)
      .flatMap((guide): Finding[] => {
        const { passes, numbers } = guidePlan(survey.document, guide) as WispPlan
        const count = drawingsLaid(survey, guide) || numbers.drawings
        const words = seenInWords(seenOf(passes, count))
        if (words === null) return []
        return [
          {
            severity: 'look',
            layer: guide.layer,
            ...{ from: guide.from, to: guide.from + 1, drawings: [], marks: [] },
            figures: { passes, drawings: count },
            at: { x: numbers.x, y: numbers.y },
            words: `${passes} pass in ${count} drawings: ${words}`,
          },
        ]
      }),
}
