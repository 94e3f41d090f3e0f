import { copyTake } from '../document/acts/takes.ts'
import type { Layer, ShotDocument, Take } from '../document/model/model.ts'
import { columnOf, cyclesOf, takesInOrder } from '../document/model/selectors.ts'
import type { Operation } from '../document/operations/index.ts'
import { drawingAt, plain, slice, type Run } from '../time/exposure.ts'
import { leadsOf, trackOf } from './checks/followed.ts'
import type { Survey } from './survey.ts'
import { onsetOf } from './tracks/onset.ts'
import { arriveTogether } from './tracks/together.ts'

/** Layers that arrive as one, and by how many frames each could come later. */
export interface LayersTogether {
  readonly frame: number
  readonly layers: readonly { readonly layer: Layer; readonly later: number }[]
  /** of how many layers that move */
  readonly of: number
}

/** Whether most layers arrive on the same frame, by what leads each of them: its first mark, or its middle. `hasArrived` says of a frame whether what stops there rests. */
export function layersTogether(survey: Survey, hasArrived: (stops: number) => boolean): LayersTogether | null {
  const leads = leadsOf(survey).filter(way => way.layer.volume !== 'off')
  const onsets = leads
    .map(way => onsetOf({ ...trackOf(way, way.layer.name), id: way.layer.id }))
    .filter(({ stops }) => stops === null || hasArrived(stops))
  const found = arriveTogether(onsets)
  if (!found) return null
  const layers = found.parts.flatMap((id, i) => {
    const layer = leads.find(lead => lead.layer.id === id)?.layer
    return layer ? [{ layer, later: found.later[i] ?? 0 }] : []
  })
  return { frame: found.frame, layers, of: found.of }
}

/** A column so many frames later: what is shown first is held for them, and what would pass the end is cut off; what goes round is turned on. */
function later(take: Take, layer: string, by: number): Run[] {
  const runs = columnOf(take, layer)
  if (!take.loop) return plain([{ drawing: drawingAt(runs, 0), frames: by }, ...slice(runs, 0, take.length - by)])
  const { from, to } = take.loop
  const cut = to - (by % Math.max(1, to - from))
  const [before, turned, rest, behind] = [
    slice(runs, 0, from),
    slice(runs, cut, to),
    slice(runs, from, cut),
    slice(runs, to, take.length),
  ]
  return plain([...before, ...turned, ...rest, ...behind])
}

/** A take of its own in which layers come later, each by its frames; the one it is made of stays as it is. Layers of linked cycles, and those that would be gone, are left alone. */
export function staggeredTake(
  document: ShotDocument,
  take: Take,
  layers: readonly { readonly layer: Pick<Layer, 'id'>; readonly later: number }[],
  newId: () => string,
): Operation[] {
  const id = newId()
  const names = new Set(takesInOrder(document).map(other => other.name))
  let name = `${take.name}, staggered`.slice(0, 80)
  for (let n = 2; names.has(name); n++) name = `${take.name.slice(0, 60)}, staggered ${n}`
  const writes = layers.flatMap(({ layer, later: by }): Operation[] => {
    if (by <= 0 || by >= take.length || cyclesOf(take, layer.id).length > 0) return []
    return [{ kind: 'exposure.write', take: id, layer: layer.id, from: 0, runs: later(take, layer.id, by) }]
  })
  return writes.length > 0 ? [...copyTake(document, take.id, id, name, newId), ...writes] : []
}
