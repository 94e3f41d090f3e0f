import { exposures, layersInOrder } from '../../document/model/selectors.ts'
import { find } from '../../document/model/table.ts'
import { plantedMarks, slips } from '../planted.ts'
import type { Check, Finding } from './check.ts'

/** Whether marks that are planted stay where they were set down. */
export const planted: Check = {
  words: 'planted marks',
  asks: 'Does everything that is planted stay where it was set down?',
  needs: ['marks'],
  inspect: ({ document, take, loop }) =>
    layersInOrder(document).flatMap(layer => {
      const ends = new Map(exposures(take, layer.id).map(run => [run.start, run.start + run.frames]))
      const number = (id: string) => find(document.drawings, id)?.number ?? 0
      return plantedMarks(document, take, layer.id, loop)
        .filter(one => slips(document, one))
        .map(({ mark, drawing, frame, from, at, offPx }): Finding => ({
          severity: 'look',
          layer: layer.id,
          from: frame,
          to: ends.get(frame) ?? frame + 1,
          drawings: [drawing, from],
          marks: [mark],
          figures: { offPx },
          at,
          words: `${find(document.marks, mark)?.name ?? ''} slips on ${number(drawing)}: ${Math.round(offPx)} px from where ${number(from)} set it down`,
        }))
    }),
}
