import { inverse, map, type Matrix } from '../../geometry/matrix.ts'
import type { Point } from '../../geometry/point.ts'
import { layingsOn, matrixOn, type LayerPath } from '../../path/path.ts'
import type { ShotDocument, Take } from './model.ts'
import { find } from './table.ts'

/** What is looked at: the shot as it is seen on the desk, or as it is sent off, without what is added for looking only. */
export type Seen = 'on the desk' | 'sent off'

/** How a layer moves in a take: by its own path, or that of the layer it is tied to. Null where it lies as it was drawn. */
export function pathOf(document: ShotDocument, take: Take, layer: string): LayerPath | null {
  const root = find(document.layers, layer)?.follows ?? layer
  return find(take.paths, root) ?? null
}

/** The path of a layer as far as it counts for what is looked at. */
export const seenPath = (document: ShotDocument, take: Take, layer: string, seen: Seen): LayerPath | null => {
  const path = pathOf(document, take, layer)
  return path?.use === 'pin' && seen === 'sent off' ? null : path
}

/** The map from pixels of a layer's drawings to pixels of the picture on a frame (from 0); null where they are the same. */
export function carriedOn(
  document: ShotDocument,
  take: Take,
  layer: string,
  frame: number,
  seen: Seen = 'on the desk',
): Matrix | null {
  const path = seenPath(document, take, layer, seen)
  return path && matrixOn(path, frame)
}

/** The maps by which what a layer shows on a frame is laid down, for what is drawn between two edges (pixels of the layer); null where it is laid down once as it was drawn. */
export function laidOn(
  document: ShotDocument,
  take: Take,
  layer: string,
  frame: number,
  edges: () => { readonly left: number; readonly right: number },
  seen: Seen = 'on the desk',
): readonly Matrix[] | null {
  const path = seenPath(document, take, layer, seen)
  if (!path) return null
  // A strip alone is laid down by how far it reaches.
  const { left, right } = path.closes === null ? { left: 0, right: 0 } : edges()
  return layingsOn(path, frame, document.format.width, left, right)
}

/** A place on a drawing of a layer as a place in the picture on a frame (from 0), paper pixels. */
export function placeSeen(document: ShotDocument, take: Take, layer: string, frame: number, at: Point): Point {
  const through = carriedOn(document, take, layer, frame)
  return through ? map(through, at) : at
}

/** A place in the picture on a frame (from 0) as a place on a drawing of a layer: what `placeSeen` is undone by. */
export function placeOnLayer(document: ShotDocument, take: Take, layer: string, frame: number, at: Point): Point {
  const through = carriedOn(document, take, layer, frame)
  const back = through && inverse(through)
  return back ? map(back, at) : at
}
