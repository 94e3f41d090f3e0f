import { drawingAt, placed } from '../../time/exposure.ts'
import type { ShotDocument, Take } from '../model/model.ts'
import { columnOf } from '../model/selectors.ts'
import { find } from '../model/table.ts'

/** What an act did to the sheet of the current take: which numbers, and by how many frames. */
export interface SheetChange {
  /** frames by which the take became longer (less than 0: shorter), and what it has now */
  readonly lengthBy: number
  readonly length: number
  /** numbers held longer (or shorter) altogether, by how many frames */
  readonly held: readonly { readonly by: number; readonly numbers: readonly number[] }[]
  /** drawings held as long as before that begin later (or earlier) */
  readonly moved: readonly { readonly by: number; readonly numbers: readonly number[] }[]
  /** numbers that are shown no more, and those shown now that were not */
  readonly gone: readonly number[]
  readonly come: readonly number[]
  /** whether any frame of any layer shows something else */
  readonly changed: boolean
}

interface Timing {
  readonly start: number
  readonly held: number
}

/** When each drawing of a take is first shown, and for how many frames altogether. */
function timings(take: Take, layers: readonly string[]): Map<string, Timing> {
  const known = new Map<string, Timing>()
  for (const layer of layers) {
    for (const { drawing, frames, start } of placed(columnOf(take, layer))) {
      if (drawing === null) continue
      const before = known.get(drawing)
      known.set(drawing, { start: before?.start ?? start, held: (before?.held ?? 0) + frames })
    }
  }
  return known
}

/** Compares the current take before and after an act. Layers that follow others are left out: they are timed with them. */
export function sheetChange(before: ShotDocument, after: ShotDocument): SheetChange {
  const take = after.takes[after.current] as Take
  const was = find(before.takes, after.current) ?? take
  const layers = Object.values(after.layers).flatMap(layer => (layer.follows === null ? [layer.id] : []))
  const [then, now] = [timings(was, layers), timings(take, layers)]
  const numberOf = (id: string) => (find(after.drawings, id) ?? find(before.drawings, id))?.number ?? 0
  const held = new Map<number, number[]>()
  const moved = new Map<number, number[]>()
  const note = (table: Map<number, number[]>, by: number, id: string) =>
    table.set(by, [...(table.get(by) ?? []), numberOf(id)])
  for (const [id, { start, held: frames }] of now) {
    const old = then.get(id)
    if (!old) continue
    if (old.held !== frames) note(held, frames - old.held, id)
    else if (old.start !== start) note(moved, start - old.start, id)
  }
  const gone = [...then.keys()].filter(id => !now.has(id)).map(numberOf)
  const come = [...now.keys()].filter(id => !then.has(id)).map(numberOf)
  const listed = (table: Map<number, number[]>) => [...table].map(([by, numbers]) => ({ by, numbers }))
  return {
    lengthBy: take.length - was.length,
    length: take.length,
    held: listed(held),
    moved: listed(moved),
    gone,
    come,
    changed: take.length !== was.length || layers.some(layer => !showsTheSame(was, take, layer)),
  }
}

function showsTheSame(was: Take, now: Take, layer: string): boolean {
  const [a, b] = [columnOf(was, layer), columnOf(now, layer)]
  return a === b || (a.length === b.length && placed(a).every(run => drawingAt(b, run.start) === run.drawing))
}
