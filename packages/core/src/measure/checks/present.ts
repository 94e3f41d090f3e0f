import { isAnimated } from '../../document/model/model.ts'
import { layersInOrder } from '../../document/model/selectors.ts'
import { gapsIn, partGrid, type PartGrid, type PartRow } from '../presence.ts'
import { saysOf } from '../said.ts'
import type { Check, Finding } from './check.ts'

/** A part that is missing on more than so many drawings in a row went away on purpose. */
const LONGEST_GAP = 3
/** A colour is as often there by design: only where a single drawing lacks it. */
const LONGEST_COLOUR_GAP = 1

/** Whether every part is drawn on every drawing between two that have it. Layers whose volume means nothing (mist, blinking eyes) come and go, and are not asked. */
export const present: Check = {
  words: 'parts',
  asks: 'Is every part there on every drawing between two that have it?',
  needs: [],
  view: 'parts',
  inspect: ({ document, take }) =>
    layersInOrder(document)
      .filter(layer => isAnimated(layer) && layer.volume !== 'off')
      .flatMap(layer => {
        const grid = partGrid(document, take, layer)
        // What is said to come and go does.
        const goes = new Set(saysOf(document, 'goes').flatMap(({ layer: on, about }) => (on === layer.id ? about : [])))
        return grid.rows.filter(row => row.kind !== 'colour' || !goes.has(row.id)).flatMap(row => ofRow(grid, row))
      })
      .sort((a, b) => a.from - b.from),
}

function ofRow({ layer, drawings }: PartGrid, row: PartRow): Finding[] {
  const longest = row.kind === 'colour' ? LONGEST_COLOUR_GAP : LONGEST_GAP
  return gapsIn(row)
    .filter(({ from, to }) => to - from <= longest)
    .flatMap(({ from, to }): Finding[] => {
      const missing = drawings.slice(from, to)
      const [first] = missing
      if (!first) return []
      const numbers = missing.map(({ drawing }) => drawing.number).join(', ')
      const [before, after] = [drawings[from - 1], drawings[to]]
      return [
        {
          // A mark that is not placed is only not measured; what is not painted is seen.
          severity: row.kind === 'mark' || row.kind === 'label' ? 'note' : 'look',
          layer: layer.id,
          from: first.from,
          to: first.to,
          drawings: missing.map(({ drawing }) => drawing.id),
          marks: row.kind === 'mark' ? [row.id] : [],
          figures: { drawings: missing.length },
          at: null,
          words: `${row.name} ${row.kind === 'label' ? 'are' : 'is'} not on ${numbers}, and on ${before?.drawing.number} and ${after?.drawing.number}`,
        },
      ]
    })
}
