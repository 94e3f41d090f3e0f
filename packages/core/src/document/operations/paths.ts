import { refusePath, type LayerPath } from '../../path/path.ts'
import { LIMITS, type ShotDocument, type Take } from '../model/model.ts'
import { find, get, has } from '../model/table.ts'
import { PLAIN, type Handler, type Operation } from './kinds.ts'
import { refusal, type Refusal } from '../model/refusal.ts'

/** A layer that is tied to another goes along with that one; a path of its own rests until it is untied. */
export const pathSet: Handler<'path.set'> = {
  facts: PLAIN,
  joins: op => `${op.take} ${op.layer}`,
  refuse(document, { take: id, layer, path }) {
    const take = find(document.takes, id)
    if (!take) return refusal('unknown-take', id)
    if (!has(document.layers, layer)) return refusal('unknown-layer', layer)
    if (path === null) return null
    const more = path.keys.length - (find(take.paths, layer)?.keys.length ?? 0)
    return refuseLayerPath(take, path) ?? refuseKeys(document, more)
  },
  apply(document, { take: id, layer, path }, bench) {
    const take = get(document.takes, id)
    const paths = path ? bench.put(take.paths, layer, path) : bench.without(take.paths, [layer])
    return bench.set(document, { takes: bench.put(document.takes, id, bench.set(take, { paths })) })
  },
  invert: (before, { take, layer }) => [
    { kind: 'path.set', take, layer, path: find(get(before.takes, take).paths, layer) ?? null },
  ],
}

/** Places of all paths of a take. */
const keysOf = (take: Take): number => Object.values(take.paths).reduce((sum, { keys }) => sum + keys.length, 0)

/** Says no to more places than a shot may have. */
function refuseKeys(document: ShotDocument, more: number): Refusal | null {
  const now = Object.values(document.takes).reduce((sum, take) => sum + keysOf(take), 0)
  return more > 0 && now + more > LIMITS.pathKeysPerShot ? refusal('too-many', 'places of layers in the shot') : null
}

/** Its places lie in the take, or right behind it. */
function refuseLayerPath(take: Take, path: LayerPath): Refusal | null {
  const fault = refusePath(path)
  if (fault !== null) return refusal('bad-value', `${fault} of a layer's path`)
  const last = path.keys.at(-1)?.frame ?? 0
  return last > take.length ? refusal('outside-shot', `frame ${last + 1} of a layer's path`) : null
}

/** What is wrong with the paths that a new take brings along. */
export function refusePaths(document: ShotDocument, take: Take): Refusal | null {
  for (const [layer, path] of Object.entries(take.paths)) {
    const fault = has(document.layers, layer) ? refuseLayerPath(take, path) : refusal('unknown-layer', layer)
    if (fault) return fault
  }
  return refuseKeys(document, keysOf(take))
}

/** Operations that give a layer its paths again, in every take. */
export const pathsOf = (before: ShotDocument, layer: string): Operation[] =>
  Object.values(before.takes).flatMap(({ id, paths }): Operation[] => {
    const path = find(paths, layer)
    return path ? [{ kind: 'path.set', take: id, layer, path }] : []
  })
