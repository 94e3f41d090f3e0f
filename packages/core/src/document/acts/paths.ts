import { isResting, type LayerPath } from '../../path/path.ts'
import type { Take } from '../model/model.ts'
import { find } from '../model/table.ts'
import type { Operation } from '../operations/index.ts'

/** Lets a layer move so in a take, or lie where it was drawn (null, or a path that rests). Nothing where it does already. */
export function layPath(take: Take, layer: string, path: LayerPath | null): Operation[] {
  const next = path && (isResting(path) && path.keys.length === 1 ? null : path)
  const now = find(take.paths, layer) ?? null
  if (JSON.stringify(now) === JSON.stringify(next)) return []
  return [{ kind: 'path.set', take: take.id, layer, path: next }]
}
