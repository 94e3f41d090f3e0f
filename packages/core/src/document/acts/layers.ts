import { newLayer } from '../model/fresh.ts'
import type { Layer, ShotDocument } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'
import { layersInOrder } from '../model/selectors.ts'

/** A new layer over all others. */
export function addLayer(document: ShotDocument, id: string, name: string): Operation[] {
  const top = layersInOrder(document).at(-1)
  return [{ kind: 'layer.add', layer: newLayer(id, name, (top?.order ?? 0) + 1) }]
}

/** A layer for paint right under a line layer, shown in its time. */
export function addPaint(document: ShotDocument, line: Layer, id: string, name: string): Operation[] {
  const layers = layersInOrder(document)
  const under = layers[layers.findIndex(layer => layer.id === line.id) - 1]
  const order = under && under.order < line.order ? (line.order + under.order) / 2 : line.order - 0.5
  return [{ kind: 'layer.add', layer: newLayer(id, name, order, { follows: line.id }) }]
}

/** Changes what is known of a layer. */
export const changeLayer = (id: string, patch: Partial<Omit<Layer, 'id'>>): Operation[] => [
  { kind: 'layer.set', id, patch },
]

/** A layer changes places with the one above (1) or below (-1) it; nothing where there is none. */
export function moveLayer(document: ShotDocument, id: string, by: -1 | 1): Operation[] {
  const layers = layersInOrder(document)
  const at = layers.findIndex(layer => layer.id === id)
  const [one, other] = [layers[at], layers[at + by]]
  if (!one || !other) return []
  // Layers of the same order lie by id; then everything beyond makes room.
  if (one.order === other.order) return changeLayer(id, { order: other.order + by * 0.5 })
  return [...changeLayer(one.id, { order: other.order }), ...changeLayer(other.id, { order: one.order })]
}

/** Takes a layer away; refused while anything is on it. */
export const removeLayer = (id: string): Operation[] => [{ kind: 'layer.remove', id }]
