import { refuseNumbers } from '../../motion/table.ts'
import { lengthOf, slice, type Run } from '../../time/exposure.ts'
import { LONGEST_SHOT_FRAMES } from '../../time/length.ts'
import { settleAll, stretchChange, type LayerChange } from './changes.ts'
import { touchesCycle } from './layerForm.ts'
import type { Proposal } from './proposal.ts'
import { swatchOf } from '../elements/table.ts'
import { followingInstead, guidesOf, recipeShot } from '../model/guides.ts'
import {
  LIMITS,
  type Drawing,
  type Guide,
  type Mark,
  type ShotDocument,
  type Swatch,
  type Take,
} from '../model/model.ts'
import type { Operation } from '../operations/index.ts'
import { sheetsUnderCopy } from './paintSheets.ts'
import type { Marked } from './retime.ts'
import { followingOf, type Manner } from './room.ts'
import { columnOf, freeNumber, layersInOrder, marksOf } from '../model/selectors.ts'
import { copiedElements } from './sheetEdits.ts'
import { find, get, has, sizeOf } from '../model/table.ts'

/** A stretch of the sheet taken along: what is exposed, and everything that makes the drawings whole elsewhere. */
export interface Clip {
  /** the shot it comes from */
  readonly shot: string
  readonly frames: number
  /** topmost layer first */
  readonly columns: readonly { readonly layer: string; readonly runs: readonly Run[] }[]
  readonly drawings: readonly Drawing[]
  readonly swatches: readonly Swatch[]
  readonly marks: readonly Mark[]
  /** guides of its layers that begin in it, their frames counted from its start */
  readonly guides: readonly Guide[]
}

/** Copies the marked frames. Stored samples are named, not contained. */
export function copyClip(document: ShotDocument, take: Take, shot: string, marked: Marked): Clip {
  const columns = layersInOrder(document)
    .reverse()
    .filter(layer => marked.layers.includes(layer.id))
    .map(layer => ({ layer: layer.id, runs: slice(columnOf(take, layer.id), marked.from, marked.to) }))
  const ids = new Set(columns.flatMap(column => column.runs.flatMap(run => run.drawing ?? [])))
  const drawings = [...ids].map(id => get(document.drawings, id))
  const swatchIds = new Set(
    drawings.flatMap(d => Object.values(d.elements).flatMap(element => swatchOf(element) ?? [])),
  )
  const markIds = new Set(drawings.flatMap(d => Object.keys(d.marks)))
  return {
    shot,
    frames: marked.to - marked.from,
    columns,
    drawings,
    swatches: [...swatchIds].map(id => get(document.swatches, id)),
    marks: [...markIds].map(id => get(document.marks, id)),
    guides: guidesOf(document, take.id)
      .filter(({ layer, from }) => marked.layers.includes(layer) && from >= marked.from && from < marked.to)
      .map(guide => ({ ...guide, from: guide.from - marked.from })),
  }
}

/**
 * Pastes a clip from `frame` on, its topmost column on `layer` and the others below it (columns without a layer are left
 * out). 'share' shows the same drawings again where the clip comes from this very layer; everything else becomes copies
 * with the numbers they had where these are free, and guides come along. 'stay' writes over what is there, 'ripple' moves it.
 */
export function pasteClip(
  document: ShotDocument,
  take: Take,
  shot: string,
  clip: Clip,
  layer: string,
  frame: number,
  how: 'share' | 'copy',
  manner: Manner,
  newId: () => string,
): Proposal {
  const order = layersInOrder(document).reverse()
  const top = order.findIndex(l => l.id === layer)
  const swatches = foreignSwatches(document, clip)
  const first: Operation[] = [...swatches]
  const guides: Guide[] = []
  const guideIds = new Map(clip.guides.map(guide => [guide.id, newId()]))
  const changes = clip.columns.flatMap((column, i): LayerChange[] => {
    const target = order[top + i]
    if (!target) return []
    const same = how === 'share' && clip.shot === shot && column.layer === target.id
    const made = same ? { ops: [], runs: column.runs } : copies(document, clip, column.runs, target.id, frame, newId)
    first.push(...made.ops)
    if ('known' in made)
      guides.push(...guidesAlong(clip, column.layer, { take: take.id, layer: target.id, from: frame }, made, guideIds))
    return [pasted(take, target.id, frame, made.runs, manner)]
  })
  // What a shot holds no more of, or would not take, stays behind.
  const room = LIMITS.guides - sizeOf(document.guides)
  const taken = guides.filter(guide => refuseNumbers(guide.recipe, guide.numbers, recipeShot(document)) === null)
  first.push(...taken.slice(0, room).map((guide): Operation => ({ kind: 'guide.add', guide })))
  return settleAll(document, take, changes, manner, { first })
}

/** Guides of a layer of the clip on another one: with what was laid by them where all of it was copied, and the marks that stand for theirs. */
function guidesAlong(
  clip: Clip,
  layer: string,
  where: Pick<Guide, 'take' | 'layer' | 'from'>,
  { known, marks }: Pick<Copies, 'known' | 'marks'>,
  ids: ReadonlyMap<string, string>,
): Guide[] {
  return clip.guides
    .filter(guide => guide.layer === layer)
    .map(guide => {
      const drawings = guide.laid.drawings.flatMap(id => known.get(id) ?? [])
      const isWhole = drawings.length === guide.laid.drawings.length
      return {
        ...guide,
        ...where,
        id: ids.get(guide.id) as string,
        from: Math.min(LONGEST_SHOT_FRAMES - 1, where.from + guide.from),
        numbers: followingInstead(guide.numbers, ids, marks),
        laid: { drawings: isWhole ? drawings : [], beats: [] },
      }
    })
}

/** What is put in before a frame; or, where what follows stays, from that frame on in place of what is there. */
function pasted(take: Take, layer: string, frame: number, runs: readonly Run[], manner: Manner): LayerChange {
  if (followingOf(manner) === 'stay') {
    const to = Math.min(take.length, frame + lengthOf(runs))
    if (!touchesCycle(take, layer, frame, to)) return { layer, from: frame, to, stretch: runs, cycle: null }
    return to < frame + lengthOf(runs)
      ? { ok: false, code: 'crosses-cycle' }
      : stretchChange(take, layer, frame, to, () => runs, manner)
  }
  const inside = touchesCycle(take, layer, frame, frame + 1) && touchesCycle(take, layer, frame - 1, frame)
  return inside ? { ok: false, code: 'crosses-cycle' } : { layer, from: frame, to: frame, stretch: runs, cycle: null }
}

/** Copies of drawings: what makes them, the runs that show them, and which drawings and marks they stand for, by id. */
interface Copies {
  readonly ops: Operation[]
  readonly runs: Run[]
  readonly known: ReadonlyMap<string, string>
  readonly marks: ReadonlyMap<string, string>
}

/** Copies of the drawings of runs under new ids and free numbers, and the runs that show them. */
function copies(
  document: ShotDocument,
  clip: Clip,
  runs: readonly Run[],
  layer: string,
  frame: number,
  newId: () => string,
): Copies {
  const marks = marksFor(document, clip, layer, newId)
  const known = new Map<string, string>()
  const taken: number[] = []
  const ops: Operation[] = [...marks.ops]
  let at = frame
  const out = runs.map(run => {
    const source = run.drawing === null ? null : clip.drawings.find(d => d.id === run.drawing)
    let id = source ? known.get(source.id) : null
    if (source && id === undefined) {
      id = newId()
      known.set(source.id, id)
      const number = keptNumber(document, layer, source.number, at, taken)
      taken.push(number)
      const places = Object.entries(source.marks).flatMap(([mark, place]) => {
        const here = marks.ids.get(mark)
        return here === undefined ? [] : [[here, place] as const]
      })
      const drawing: Drawing = {
        id,
        layer,
        number,
        role: source.role,
        elements: copiedElements(source, newId),
        marks: Object.fromEntries(places),
      }
      // Paint under the source comes along where its layer is the one pasted on.
      const here = find(document.drawings, source.id)
      const copied = (sheet: Drawing) => copiedElements(sheet, newId)
      ops.push({ kind: 'drawing.add', drawing })
      if (here) ops.push(...sheetsUnderCopy(document, here, drawing, copied, newId))
    }
    at += run.frames
    return { drawing: id ?? null, frames: run.frames }
  })
  return { ops, runs: out, known, marks: marks.ids }
}

/** The number a copy gets: the one it had where that is free on the layer, else that of the frame it starts on. */
function keptNumber(document: ShotDocument, layer: string, number: number, frame: number, taken: readonly number[]) {
  const used = Object.values(document.drawings).some(d => d.layer === layer && d.number === number)
  return used || taken.includes(number) ? freeNumber(document, layer, frame, taken) : number
}

/** Marks of the same name on the layer stand for the clip's; missing ones are added. */
function marksFor(document: ShotDocument, clip: Clip, layer: string, newId: () => string) {
  const ids = new Map<string, string>()
  const ops: Operation[] = []
  const here = marksOf(document, layer)
  for (const mark of clip.marks) {
    const known = here.find(m => m.name === mark.name)
    if (known) {
      ids.set(mark.id, known.id)
      continue
    }
    const id = newId()
    ids.set(mark.id, id)
    ops.push({ kind: 'mark.add', mark: { ...mark, id, layer, order: here.length + ids.size } })
  }
  return { ids, ops }
}

/** Swatches that the clip's strokes need and the shot lacks. */
function foreignSwatches(document: ShotDocument, clip: Clip): Operation[] {
  return clip.swatches
    .filter(swatch => !has(document.swatches, swatch.id))
    .map((swatch): Operation => ({ kind: 'swatch.add', swatch }))
}
