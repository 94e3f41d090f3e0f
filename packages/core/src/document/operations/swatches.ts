import { swatchOf } from '../elements/table.ts'
import { family } from './family.ts'
import { PLAIN } from './kinds.ts'
import { refusal } from '../model/refusal.ts'

export const COLOUR = /^#[0-9a-f]{6}$/

export const swatches = family('swatch', {
  facts: { ...PLAIN, referred: true },
  refuse: (_document, { name, colour, order }) =>
    name !== '' && COLOUR.test(colour) && Number.isFinite(order) ? null : refusal('bad-value', 'swatch'),
  kept(document, id, bench) {
    const much = bench.spend(bench.totals(document).elements + bench.size(document.drawings))
    if (much) return much
    for (const drawing of Object.values(document.drawings)) {
      if (Object.values(drawing.elements).some(element => swatchOf(element) === id)) return refusal('still-used', id)
    }
    return null
  },
})
