import { LIMITS, ROLES, type Drawing, type Element, type ShotDocument } from '../model/model.ts'
import { find, get, has } from '../model/table.ts'
import { kindOf } from '../elements/table.ts'
import type { Bench } from './bench.ts'
import { refusePlaces } from './marks.ts'
import { PLAIN, type ElementChange, type Handler } from './kinds.ts'
import { refusal, type Refusal } from '../model/refusal.ts'

export const drawingAdd: Handler<'drawing.add'> = {
  facts: { ...PLAIN, movesTies: true },
  drawing: op => op.drawing.id,
  brings: op => Object.values(op.drawing.elements),
  ids: ({ drawing }) => [
    drawing.id,
    ...Object.keys(drawing.elements),
    ...Object.keys(drawing.marks),
    ...assetsOf(Object.values(drawing.elements)),
  ],
  refuse(document, { drawing }, bench) {
    if (has(document.drawings, drawing.id)) return refusal('id-taken', drawing.id)
    if (!has(document.layers, drawing.layer)) return refusal('unknown-layer', drawing.layer)
    if (bench.size(document.drawings) >= LIMITS.drawings) return refusal('too-many', 'drawings')
    const stray = Object.entries(drawing.elements).find(([id, element]) => element.id !== id)
    if (stray) return refusal('bad-value', `element ${stray[0]}`)
    return (
      refusePlaces(document, drawing.layer, drawing.marks) ??
      refuseNumber(document, drawing.layer, drawing.number, drawing.id, bench) ??
      bench.room(bench.totals(document).places, Object.keys(drawing.marks).length, 'placesPerShot') ??
      refuseElements(document, Object.values(drawing.elements), 0, bench)
    )
  },
  apply(document, { drawing }, bench) {
    bench.numbers(document, drawing.layer).set(drawing.number, drawing.id)
    count(document, drawing, 1, bench)
    return withDrawing(document, drawing, bench)
  },
  invert: (_before, { drawing }) => [{ kind: 'drawing.remove', id: drawing.id }],
}

export const drawingSet: Handler<'drawing.set'> = {
  facts: { ...PLAIN, movesTies: true },
  drawing: op => op.id,
  refuse(document, { id, patch }, bench) {
    const drawing = find(document.drawings, id)
    if (!drawing) return refusal('unknown-drawing', id)
    if (patch.role !== undefined && !ROLES.includes(patch.role)) return refusal('bad-value', 'role')
    return patch.number === undefined ? null : refuseNumber(document, drawing.layer, patch.number, id, bench)
  },
  apply(document, { id, patch }, bench) {
    const drawing = get(document.drawings, id)
    const numbers = bench.numbers(document, drawing.layer)
    numbers.delete(drawing.number)
    numbers.set(patch.number ?? drawing.number, id)
    return withDrawing(document, bench.set(drawing, patch), bench)
  },
  invert(before, { id, patch }) {
    const { number, role } = get(before.drawings, id)
    return [
      {
        kind: 'drawing.set',
        id,
        patch: { ...(patch.number !== undefined && { number }), ...(patch.role !== undefined && { role }) },
      },
    ]
  },
}

export const drawingRemove: Handler<'drawing.remove'> = {
  facts: { ...PLAIN, movesTies: true },
  drawing: op => op.id,
  refuse(document, { id }, bench) {
    if (!has(document.drawings, id)) return refusal('unknown-drawing', id)
    const { exposed, pinned, charted } = bench.inUse(document)
    if (exposed.has(id)) return refusal('still-exposed', id)
    if (pinned.has(id)) return refusal('still-pinned', id)
    return charted.has(id) ? refusal('still-charted', id) : bench.spend(1)
  },
  apply(document, { id }, bench) {
    const drawing = get(document.drawings, id)
    bench.numbers(document, drawing.layer).delete(drawing.number)
    count(document, drawing, -1, bench)
    return bench.set(document, { drawings: bench.without(document.drawings, [id]) })
  },
  invert: (before, { id }) => [{ kind: 'drawing.add', drawing: get(before.drawings, id) }],
}

export const elementsAdd: Handler<'elements.add'> = {
  facts: PLAIN,
  drawing: op => op.drawing,
  brings: op => op.elements,
  ids: ({ elements }) => [...elements.map(element => element.id), ...assetsOf(elements)],
  refuse(document, op, bench) {
    const drawing = find(document.drawings, op.drawing)
    if (!drawing) return refusal('unknown-drawing', op.drawing)
    const taken = op.elements.find(element => has(drawing.elements, element.id))
    if (taken) return refusal('id-taken', taken.id)
    return refuseElements(document, op.elements, bench.size(drawing.elements), bench)
  },
  apply(document, op, bench) {
    const drawing = get(document.drawings, op.drawing)
    bench.totals(document).elements += op.elements.length
    const elements = op.elements.reduce((all, element) => bench.put(all, element.id, element), drawing.elements)
    return withDrawing(document, bench.set(drawing, { elements }), bench)
  },
  invert: (_before, op) => [
    { kind: 'elements.remove', drawing: op.drawing, ids: op.elements.map(element => element.id) },
  ],
}

export const elementsRemove: Handler<'elements.remove'> = {
  facts: PLAIN,
  drawing: op => op.drawing,
  refuse(document, op) {
    return refuseIds(document, op.drawing, op.ids)
  },
  apply(document, op, bench) {
    const drawing = get(document.drawings, op.drawing)
    bench.totals(document).elements -= op.ids.length
    return withDrawing(document, bench.set(drawing, { elements: bench.without(drawing.elements, op.ids) }), bench)
  },
  invert(before, op) {
    const { elements } = get(before.drawings, op.drawing)
    return [{ kind: 'elements.add', drawing: op.drawing, elements: op.ids.map(id => get(elements, id)) }]
  },
}

export const elementsSet: Handler<'elements.set'> = {
  facts: PLAIN,
  drawing: op => op.drawing,
  joins: op =>
    [op.drawing, ...op.changes.map(({ id, patch }) => `${id} ${Object.keys(patch).sort().join()}`).sort()].join(),
  refuse(document, op) {
    const ids = op.changes.map(change => change.id)
    const fault = refuseIds(document, op.drawing, ids)
    if (fault) return fault
    const { elements } = get(document.drawings, op.drawing)
    for (const { id, patch } of op.changes) {
      const wrong = refuseChange(document, get(elements, id), patch)
      if (wrong) return wrong
    }
    return null
  },
  apply(document, op, bench) {
    const drawing = get(document.drawings, op.drawing)
    let { elements } = drawing
    for (const { id, patch } of op.changes)
      elements = bench.put(elements, id, { ...get(elements, id), ...patch } as Element)
    return withDrawing(document, bench.set(drawing, { elements }), bench)
  },
  invert(before, op) {
    const { elements } = get(before.drawings, op.drawing)
    const changes = op.changes.map(({ id, patch }) => {
      const was = get(elements, id)
      return { id, patch: Object.fromEntries(Object.keys(patch).map(key => [key, was[key as keyof Element]])) }
    })
    return [{ kind: 'elements.set', drawing: op.drawing, changes }]
  },
}

const assetsOf = (elements: readonly Element[]): string[] => elements.map(element => kindOf(element).asset(element).id)

function withDrawing(document: ShotDocument, drawing: Drawing, bench: Bench): ShotDocument {
  return bench.set(document, { drawings: bench.put(document.drawings, drawing.id, drawing) })
}

function count(document: ShotDocument, drawing: Drawing, sign: 1 | -1, bench: Bench): void {
  const totals = bench.totals(document)
  totals.elements += sign * Object.keys(drawing.elements).length
  totals.places += sign * Object.keys(drawing.marks).length
}

function refuseNumber(
  document: ShotDocument,
  layer: string,
  number: number,
  self: string,
  bench: Bench,
): Refusal | null {
  if (!Number.isInteger(number) || number < 1) return refusal('bad-value', 'number')
  const holder = bench.numbers(document, layer).get(number)
  return holder !== undefined && holder !== self ? refusal('number-taken', String(number)) : null
}

function refuseIds(document: ShotDocument, drawingId: string, ids: readonly string[]): Refusal | null {
  const drawing = find(document.drawings, drawingId)
  if (!drawing) return refusal('unknown-drawing', drawingId)
  if (new Set(ids).size !== ids.length) return refusal('bad-value', 'the same element twice')
  const missing = ids.find(id => !has(drawing.elements, id))
  return missing === undefined ? null : refusal('unknown-element', missing)
}

function refuseElements(
  document: ShotDocument,
  elements: readonly Element[],
  already: number,
  bench: Bench,
): Refusal | null {
  const full = bench.room(bench.totals(document).elements, elements.length, 'elementsPerShot')
  if (full) return full
  if (already + elements.length > LIMITS.elementsPerDrawing) return refusal('too-many', 'strokes in a drawing')
  if (new Set(elements.map(element => element.id)).size !== elements.length) {
    return refusal('bad-value', 'the same element twice')
  }
  for (const element of elements) {
    const fault = refuseElement(document, element)
    if (fault) return fault
  }
  return null
}

function refuseElement(document: ShotDocument, element: Element): Refusal | null {
  if (!Number.isFinite(element.z)) return refusal('bad-value', 'z')
  if (element.matrix && !element.matrix.every(Number.isFinite)) return refusal('bad-value', 'matrix')
  return kindOf(element).refuse(document, element)
}

/** What may be set of an element is for its kind to say. */
function refuseChange(document: ShotDocument, element: Element, patch: ElementChange['patch']): Refusal | null {
  const settable: readonly string[] = kindOf(element).settable
  const stray = Object.keys(patch).find(key => !settable.includes(key))
  if (stray !== undefined) return refusal('bad-value', `${stray} of a ${element.kind}`)
  return refuseElement(document, { ...element, ...patch } as Element)
}
