import type { Point } from '../geometry/point.ts'
import {
  SAYINGS,
  type Drawing,
  type Saying,
  type SayingKind,
  type ShotDocument,
  type Take,
} from '../document/model/model.ts'
import { placeSeen } from '../document/model/carried.ts'
import { exposedDrawing } from '../document/model/selectors.ts'
import { find, has, type Table } from '../document/model/table.ts'
import { framesTold } from '../time/framesTold.ts'

/** Whether all that something is said of is still there. */
export const holds = (document: ShotDocument, { kind, layer, about }: Saying): boolean =>
  has(document.layers, layer) && about.every(id => has(document[SAYINGS[kind].of], id))

/** What is said of one kind, in the order of time; what names something that is gone says nothing. */
export const saysOf = (document: ShotDocument, kind: SayingKind): Saying[] =>
  Object.values(document.sayings)
    .filter(saying => saying.kind === kind && holds(document, saying))
    .sort((a, b) => a.from - b.from || a.id.localeCompare(b.id))

/** Something said, in words: “tail follows nose, frames 5–20”. */
export function sayingInWords(
  document: ShotDocument,
  { kind, layer, about, from, to }: Saying,
  length: number,
): string {
  const things: Table<{ readonly name: string }> = document[SAYINGS[kind].of]
  const named = (id: string | undefined): string =>
    id === undefined
      ? (find(document.layers, layer)?.name ?? 'a layer that is gone')
      : (find(things, id)?.name ?? 'what is gone')
  const [one, other] = [named(about[0]), named(about[1])]
  const what = {
    still: `${one} is still`,
    follows: `${one} follows ${other}`,
    touches: `${one} touches ${other}`,
    goes: `${one} comes and goes`,
    size: `${one} stays as far from ${other}`,
    large: `${one} stays as large`,
    reads: `the pose of ${one} is to be read`,
  }[kind]
  return from === 0 && to >= length ? what : `${what}, ${framesTold(from, to)}`
}

/** A mark on a frame: its drawing, where it lies on it (`own`), and where it is seen in the picture. Null where it is not there. */
export function markOn(
  document: ShotDocument,
  take: Take,
  mark: string,
  frame: number,
): { readonly drawing: Drawing; readonly own: Point; readonly at: Point } | null {
  const layer = find(document.marks, mark)?.layer
  const drawing = layer === undefined ? null : exposedDrawing(document, take, layer, frame)
  const place = drawing && find(drawing.marks, mark)
  if (!drawing || !place || layer === undefined) return null
  const own = { x: place.x, y: place.y }
  return { drawing, own, at: placeSeen(document, take, layer, frame, own) }
}
