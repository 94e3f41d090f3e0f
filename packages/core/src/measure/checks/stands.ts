import { currentTake, exposures, layersInOrder } from '../../document/model/selectors.ts'
import { isAnimated, type Guide, type Layer, type ShotDocument } from '../../document/model/model.ts'
import { find } from '../../document/model/table.ts'
import { seenInWords, seenOf, type WispPlan } from '../../motion/wisps/wisps.ts'
import { guidePlan } from '../../document/model/guides.ts'
import type { Point } from '../../geometry/point.ts'
import { seemingShifts } from '../seeming.ts'
import { shownOn, type Shown, type Survey } from '../survey.ts'
import type { Check, Finding, Series } from './check.ts'

/** How many drawings a cycle that was laid from a guide has now: some may be gone. */
function drawingsLaid({ document }: Survey, { laid, layer }: Guide): number {
  const shown = new Set(exposures(currentTake(document), layer).map(run => run.drawing))
  return laid.drawings.filter(id => find(document.drawings, id) && shown.has(id)).length
}

/** Of fewer drawings it is not told how they seem to go. */
const FEWEST = 4

/** Layers of effects, whose shapes may be taken for one another; and of guides that say how they are to go. */
const effects = ({ document, take }: Pick<Survey, 'document' | 'take'>): { layer: Layer; shown: Shown[] }[] =>
  layersInOrder(document)
    .filter(isAnimated)
    .filter(({ id, volume }) => volume === 'off' || wispsOn(document).some(guide => guide.layer === id))
    .map(layer => ({ layer, shown: shownOn({ document, take }, layer.id) }))
    .filter(({ shown }) => shown.length >= FEWEST)
const wispsOn = ({ guides }: ShotDocument): Guide[] => Object.values(guides).filter(({ recipe }) => recipe === 'wisps')

/** Whether shapes that are all alike seem to do what they are planned to: as many wisps as pass, over as many drawings as there are. */
export const stands: Check = {
  words: 'stands still',
  asks: 'Do shapes that are all alike seem to go the way they are drawn?',
  needs: [],
  isAsked: ({ document }) =>
    wispsOn(document).length > 0 || effects({ document, take: currentTake(document) }).length > 0,
  *prepare(survey) {
    for (const { shown } of effects(survey)) yield* seemingShifts(survey, shown)
  },
  // Without a plan there is no verdict: how they seem to go is only shown.
  series: survey =>
    effects(survey).flatMap(({ layer, shown }): Series[] => {
      const all = [...seemingShifts(survey, shown)]
      const series = (what: string, of: (shift: Point) => number): Series => ({
        layer: layer.id,
        mark: null,
        name: `${layer.name}, seems to ${what}`,
        unit: 'px a drawing',
        values: all.map(({ one, shift }) => ({ frame: one.from, drawing: one.drawing.id, value: of(shift) })),
        planned: [],
        isOnlyTold: true,
      })
      return all.length > 0 ? [series('rise', shift => 0 - shift.y), series('go right', shift => shift.x)] : []
    }),
  inspect: survey =>
    wispsOn(survey.document)
      .filter(guide => guide.take === survey.take.id)
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
