import type { Run } from '../../time/exposure.ts'
import { LIMITS, ROLES, type Drawing, type Element, type ShotDocument } from '../model.ts'
import { find, get, has, put, sizeOf, without } from '../table.ts'
import { refusePlaces } from './marks.ts'
import { refusal, type Handler, type Refusal } from './kinds.ts'

export const drawingAdd: Handler<'drawing.add'> = {
  refuse(document, { drawing }) {
    if (has(document.drawings, drawing.id)) return refusal('id-taken', drawing.id)
    if (!has(document.layers, drawing.layer)) return refusal('unknown-layer', drawing.layer)
    if (sizeOf(document.drawings) >= LIMITS.drawings) return refusal('too-many', 'drawings')
    const stray = Object.entries(drawing.elements).find(([id, element]) => element.id !== id)
    if (stray) return refusal('bad-value', `element ${stray[0]}`)
    return (
      refusePlaces(document, drawing.layer, drawing.marks) ??
      refuseNumber(document, drawing.layer, drawing.number, drawing.id) ??
      refuseElements(document, Object.values(drawing.elements), 0)
    )
  },
  apply: (document, { drawing }) => withDrawing(document, drawing),
  invert: (_before, { drawing }) => [{ kind: 'drawing.remove', id: drawing.id }],
}

export const drawingSet: Handler<'drawing.set'> = {
  refuse(document, { id, patch }) {
    const drawing = find(document.drawings, id)
    if (!drawing) return refusal('unknown-drawing', id)
    if (patch.role !== undefined && !ROLES.includes(patch.role)) return refusal('bad-value', 'role')
    return patch.number === undefined ? null : refuseNumber(document, drawing.layer, patch.number, id)
  },
  apply: (document, { id, patch }) => withDrawing(document, { ...get(document.drawings, id), ...patch }),
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
  refuse(document, { id }) {
    const sheet = find(document.drawings, id)
    if (!sheet) return refusal('unknown-drawing', id)
    // The sheets of a tied layer are exposed by what it follows, and leave nothing but an empty place.
    const isTied = find(document.layers, sheet.layer)?.follows
    for (const take of Object.values(document.takes)) {
      const shows = (runs: readonly Run[]) => runs.some(run => run.drawing === id)
      if (!isTied && Object.values(take.columns).some(shows)) return refusal('still-exposed', id)
      if (Object.values(take.cycles).some(cycle => shows(cycle.pattern))) return refusal('still-exposed', id)
      if (has(take.pins, id)) return refusal('still-pinned', id)
    }
    const charted = Object.values(document.charts).some(
      chart => chart.from === id || chart.to === id || chart.ticks.some(tick => tick.drawing === id),
    )
    return charted ? refusal('still-charted', id) : null
  },
  apply: (document, { id }) => ({ ...document, drawings: without(document.drawings, [id]) }),
  invert: (before, { id }) => [{ kind: 'drawing.add', drawing: get(before.drawings, id) }],
}

export const elementsAdd: Handler<'elements.add'> = {
  refuse(document, op) {
    const drawing = find(document.drawings, op.drawing)
    if (!drawing) return refusal('unknown-drawing', op.drawing)
    const taken = op.elements.find(element => has(drawing.elements, element.id))
    if (taken) return refusal('id-taken', taken.id)
    return refuseElements(document, op.elements, sizeOf(drawing.elements))
  },
  apply(document, op) {
    const drawing = get(document.drawings, op.drawing)
    const elements = { ...drawing.elements }
    for (const element of op.elements) elements[element.id] = element
    return withDrawing(document, { ...drawing, elements })
  },
  invert: (_before, op) => [
    { kind: 'elements.remove', drawing: op.drawing, ids: op.elements.map(element => element.id) },
  ],
}

export const elementsRemove: Handler<'elements.remove'> = {
  refuse(document, op) {
    return refuseIds(document, op.drawing, op.ids)
  },
  apply(document, op) {
    const drawing = get(document.drawings, op.drawing)
    return withDrawing(document, { ...drawing, elements: without(drawing.elements, op.ids) })
  },
  invert(before, op) {
    const { elements } = get(before.drawings, op.drawing)
    return [{ kind: 'elements.add', drawing: op.drawing, elements: op.ids.map(id => get(elements, id)) }]
  },
}

export const elementsSet: Handler<'elements.set'> = {
  refuse(document, op) {
    const ids = op.changes.map(change => change.id)
    const fault = refuseIds(document, op.drawing, ids)
    if (fault) return fault
    const { elements } = get(document.drawings, op.drawing)
    for (const { id, patch } of op.changes) {
      const wrong = refuseElement(document, { ...get(elements, id), ...patch })
      if (wrong) return wrong
    }
    return null
  },
  apply(document, op) {
    const drawing = get(document.drawings, op.drawing)
    const elements = { ...drawing.elements }
    for (const { id, patch } of op.changes) elements[id] = { ...get(drawing.elements, id), ...patch }
    return withDrawing(document, { ...drawing, elements })
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

function withDrawing(document: ShotDocument, drawing: Drawing): ShotDocument {
  return { ...document, drawings: put(document.drawings, drawing.id, drawing) }
}

function refuseNumber(document: ShotDocument, layer: string, number: number, self: string): Refusal | null {
  if (!Number.isInteger(number) || number < 1) return refusal('bad-value', 'number')
  const taken = Object.values(document.drawings).some(d => d.layer === layer && d.number === number && d.id !== self)
  return taken ? refusal('number-taken', String(number)) : null
}

function refuseIds(document: ShotDocument, drawingId: string, ids: readonly string[]): Refusal | null {
  const drawing = find(document.drawings, drawingId)
  if (!drawing) return refusal('unknown-drawing', drawingId)
  if (new Set(ids).size !== ids.length) return refusal('bad-value', 'the same element twice')
  const missing = ids.find(id => !has(drawing.elements, id))
  return missing === undefined ? null : refusal('unknown-element', missing)
}

function refuseElements(document: ShotDocument, elements: readonly Element[], already: number): Refusal | null {
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
  if (!has(document.swatches, element.swatch)) return refusal('unknown-swatch', element.swatch)
  if (!(element.width > 0 && element.width <= LIMITS.lineWidthPx)) return refusal('bad-value', 'width')
  if (!Number.isFinite(element.z)) return refusal('bad-value', 'z')
  if (!(element.nib.thinning >= 0 && element.nib.thinning <= 1)) return refusal('bad-value', 'nib')
  if (element.matrix && !element.matrix.every(Number.isFinite)) return refusal('bad-value', 'matrix')
  if (element.part && !(element.part[0] >= 0 && element.part[1] >= element.part[0])) return refusal('bad-value', 'part')
  return null
}
