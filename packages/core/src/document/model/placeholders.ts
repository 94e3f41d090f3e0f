import { find } from './table.ts'
import { isDelivered, type ShotDocument, type Take } from './model.ts'
import { exposures } from './selectors.ts'
import type { LoopRange } from '../../time/loop.ts'

/** How many pictures only stand for something on what is sent off of some frames (from 0; the end is not among them). Each counts once. */
export function placeholdersIn(document: ShotDocument, take: Take, { from, to }: LoopRange): number {
  const shown = Object.values(document.layers)
    .filter(isDelivered)
    .flatMap(layer => exposures(take, layer.id))
    .filter(run => run.start < to && run.start + run.frames > from)
    .map(run => run.drawing as string)
  return [...new Set(shown)]
    .flatMap(id => Object.values(find(document.drawings, id)?.elements ?? {}))
    .filter(element => element.kind === 'picture' && element.placeholder).length
}
