import { LIMITS, type Swatch } from '../model.ts'
import { find, get, has } from '../table.ts'
import { refusal, valuesBefore, type Handler, type Refusal } from './kinds.ts'

export const COLOUR = /^#[0-9a-f]{6}$/

export const swatchAdd: Handler<'swatch.add'> = {
  refuse(document, { swatch }, bench) {
    if (has(document.swatches, swatch.id)) return refusal('id-taken', swatch.id)
    return bench.size(document.swatches) >= LIMITS.swatches ? refusal('too-many', 'swatches') : refuseSwatch(swatch)
  },
  apply: (document, { swatch }, bench) =>
    bench.set(document, { swatches: bench.put(document.swatches, swatch.id, swatch) }),
  invert: (_before, { swatch }) => [{ kind: 'swatch.remove', id: swatch.id }],
}

export const swatchSet: Handler<'swatch.set'> = {
  refuse(document, { id, patch }) {
    const swatch = find(document.swatches, id)
    return swatch ? refuseSwatch({ ...swatch, ...patch }) : refusal('unknown-swatch', id)
  },
  apply: (document, { id, patch }, bench) =>
    bench.set(document, { swatches: bench.put(document.swatches, id, { ...get(document.swatches, id), ...patch }) }),
  invert: (before, { id, patch }) => [{ kind: 'swatch.set', id, patch: valuesBefore(get(before.swatches, id), patch) }],
}

export const swatchRemove: Handler<'swatch.remove'> = {
  refuse(document, { id }, bench) {
    if (!has(document.swatches, id)) return refusal('unknown-swatch', id)
    const much = bench.spend(bench.totals(document).elements + bench.size(document.drawings))
    if (much) return much
    for (const drawing of Object.values(document.drawings)) {
      if (Object.values(drawing.elements).some(element => element.swatch === id)) return refusal('still-used', id)
    }
    return null
  },
  apply: (document, { id }, bench) => bench.set(document, { swatches: bench.without(document.swatches, [id]) }),
  invert: (before, { id }) => [{ kind: 'swatch.add', swatch: get(before.swatches, id) }],
}

function refuseSwatch({ name, colour }: Swatch): Refusal | null {
  return name !== '' && COLOUR.test(colour) ? null : refusal('bad-value', 'swatch')
}
