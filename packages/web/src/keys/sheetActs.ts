import {
  copyClip,
  edited,
  exposedDrawing,
  exposeSelection,
  find,
  firstFrameOf,
  holdDrawing,
  inTurn,
  keepOnly,
  layersInOrder,
  moveKey,
  pasteClip,
  retime,
  samplesUsed,
  slide,
  takeOut,
  timedBy,
  trim,
  type Edited,
  type Marked,
  type Operation,
  type Retiming,
} from '@unhurried/core/document'
import { cycleEnd, lengthOf, slice, type Cycle } from '@unhurried/core/time'
import { keepClip, readClip } from '../local/database.ts'
import { useDesk } from '../stores/desk.ts'
import { newId } from '../stores/ids.ts'
import { useShot } from '../stores/shot.ts'

/** What can be done with frames marked on the sheet, or else with those of the drawing one stands on. */
export function useSheetActs() {
  const shot = useShot()
  const desk = useDesk()
  let anchor = { frame: 0, layer: '' }

  /** Layers from left to right, as the sheet shows them: the topmost first. */
  const columns = () => (shot.document ? layersInOrder(shot.document).reverse() : [])

  const timed = (layer: string) => (shot.document ? timedBy(shot.document, layer) : layer)

  /** The marked frames, or those of the present drawing; on the layers whose timing is seen there. */
  function marked(): Marked | null {
    const { run, selection } = desk
    if (selection) return { ...selection, layers: [...new Set(selection.layers.map(timed))] }
    return run ? { layers: [desk.timedLayer], from: Math.max(0, run.start), to: run.start + run.frames } : null
  }

  /** The marked frames on layers that are not locked; tells when all are. */
  function editable(): Marked | null {
    const m = marked()
    if (!m || !shot.document) return null
    const layers = m.layers.filter(id => shot.document && find(shot.document.layers, id)?.locked === false)
    if (layers.length) return { ...m, layers }
    shot.notice = 'This layer is locked. Unlock it to change it.'
    return null
  }

  /** Does an edit of the marked frames; afterwards the marking covers nothing that is not there. */
  function act(label: string, edit: (m: Marked) => Edited): boolean {
    const m = editable()
    if (!m || !shot.take) return false
    const done = shot.carryOut(label, edit(m))
    const length = shot.take?.length ?? 1
    if (desk.selection && desk.selection.to > length) {
      desk.selection = desk.selection.from < length ? { ...desk.selection, to: length } : null
    }
    return done
  }

  const eachLayer = (m: Marked, edit: (layer: string) => Parameters<typeof inTurn>[2][number]): Edited =>
    shot.document && shot.take ? inTurn(shot.document, shot.take.id, m.layers.map(edit)) : edited([])

  function exposeOn(n: number): void {
    // Drawings begun from now on get as many.
    desk.exposure = n
    act(`on ${n}s`, m =>
      eachLayer(m, layer => (doc, take) => exposeSelection(doc, take, layer, m.from, m.to, n, desk.following)),
    )
  }

  function hold(by: number): void {
    const run = desk.run
    if (run && editable()) holdFor(desk.timedLayer, desk.frame, run.frames + by, run.frames)
  }

  function holdFor(layer: string, frame: number, frames: number, was: number): void {
    const { document, take } = shot
    if (!document || !take) return
    const label = frames > was ? 'hold longer' : 'hold shorter'
    shot.carryOut(label, holdDrawing(document, take, timed(layer), frame, frames, desk.following))
  }

  const LABELS: Record<Retiming['kind'], string> = {
    reverse: 'reverse',
    'there-and-back': 'there and back',
    repeat: 'repeat',
    stretch: 'stretch',
  }
  function retimeMarked(what: Retiming): void {
    const { document, take } = shot
    if (document && take) act(LABELS[what.kind], m => retime(document, take, m, what, desk.following))
  }

  function slideBy(by: number): void {
    const { document, take } = shot
    if (!document || !take) return
    const m = marked()
    if (!act('slide', at => slide(document, take, at, by)) || !m || !desk.selection) return
    const real = Math.max(-m.from, Math.min(take.length - m.to, by))
    desk.selection = { ...m, from: m.from + real, to: m.to + real }
    desk.frame = Math.max(0, Math.min(take.length - 1, desk.frame + real))
  }

  function trimAt(side: 'start' | 'end'): void {
    const { document, take } = shot
    if (document && take && editable()) {
      shot.carryOut(
        side === 'end' ? 'let it end here' : 'let it begin here',
        trim(document, take, desk.timedLayer, desk.frame, side, desk.following),
      )
    }
  }

  function takeOutMarked(): void {
    const { document, take } = shot
    if (document && take) act('take out of the layer', m => takeOut(document, take, m, desk.following))
  }

  function insertFrames(count?: number): void {
    const { take } = shot
    const s = desk.selection
    if (!take) return
    const at = s?.from ?? desk.frame + 1
    shot.commit('insert frames', [
      { kind: 'frames.insert', take: take.id, at, count: count ?? (s ? s.to - s.from : 1), fill: {} },
    ])
  }

  function removeFrames(): void {
    const { take } = shot
    const s = desk.selection
    const [at, count] = s ? [s.from, s.to - s.from] : [desk.frame, 1]
    if (!take) return
    if (count >= take.length) {
      shot.notice = 'A shot keeps at least one frame.'
      return
    }
    shot.commit('take frames out', [{ kind: 'frames.remove', take: take.id, at, count }])
    desk.selection = null
  }

  function keepMarked(): void {
    const m = marked()
    if (!m || !shot.take) return
    if (shot.commit(`keep only ${m.from + 1}–${m.to}`, keepOnly(shot.take, m.from, m.to))) return
    desk.selection = null
    desk.goTo(0)
  }

  /** Moves the key one stands on (or another) so that it starts on a frame; its inbetweens follow. */
  function moveKeyTo(drawing: string, frame: number): boolean {
    const { document, take } = shot
    const sheet = shot.drawing(drawing)
    if (!document || !take || !sheet || frame < 0) return false
    const step = moveKey(document, take, drawing, frame, desk.following)
    if (!shot.carryOut(`move ${sheet.number} to ${frame + 1}`, step)) return false
    desk.goTo(frame)
    return true
  }

  function nudgeKey(by: -1 | 1): void {
    const { document, take } = shot
    const drawing = document && take && exposedDrawing(document, take, desk.timedLayer, desk.frame)
    if (desk.selection) return slideBy(by)
    const start = drawing && shot.take ? firstFrameOf(shot.take, drawing) : null
    if (drawing?.role === 'key' && start !== null && editable()) moveKeyTo(drawing.id, start + by)
    else slideBy(by)
  }

  /** Links the marked frames of one layer as a cycle that starts there and runs for so many turns, or to the end. */
  function link(turns: number | 'end', offset = 0): void {
    const m = editable()
    const { document, take } = shot
    if (!m || !document || !take) return
    const layer = m.layers.includes(desk.timedLayer) ? desk.timedLayer : (m.layers[0] as string)
    const column = take.columns[layer] ?? []
    const pattern = slice(column, m.from, m.to)
    const period = lengthOf(pattern)
    const to = turns === 'end' ? null : m.from + period * turns
    const cycle: Cycle = { id: newId(), layer, from: m.from, to, offset: offset % period, pattern }
    const ops: Operation[] = []
    if (to !== null && to > take.length) {
      ops.push({ kind: 'frames.insert', take: take.id, at: take.length, count: to - take.length, fill: {} })
    }
    ops.push({ kind: 'cycle.add', take: take.id, cycle })
    if (!shot.commit('link as a cycle', ops)) desk.selection = null
  }

  /** Changes the cycle one stands on. A stretch that reaches past the shot makes it longer. */
  function setCycle(label: string, patch: Partial<Pick<Cycle, 'from' | 'to' | 'offset'>>): void {
    const { take } = shot
    const { cycle } = desk
    if (!take || !cycle) return
    const end = cycleEnd({ to: patch.to === undefined ? cycle.to : patch.to }, take.length)
    const ops: Operation[] = []
    if (end > take.length) {
      ops.push({ kind: 'frames.insert', take: take.id, at: take.length, count: end - take.length, fill: {} })
    }
    shot.commit(label, [...ops, { kind: 'cycle.set', take: take.id, id: cycle.id, patch }])
  }

  function unlink(): void {
    const { take } = shot
    const { cycle } = desk
    if (take && cycle) shot.commit('unlink', [{ kind: 'cycle.remove', take: take.id, id: cycle.id }])
  }

  async function copy(): Promise<boolean> {
    const { document, take } = shot
    const m = marked()
    if (!document || !take || !m) return false
    const clip = copyClip(document, take, shot.id, m)
    const ids = samplesUsed(clip.drawings.map(drawing => ({ kind: 'drawing.add', drawing })))
    const samples = new Map(
      ids.flatMap(id => {
        const bytes = shot.strokeBytes(id)
        return bytes ? [[id, bytes] as const] : []
      }),
    )
    await keepClip({ clip, samples })
    return true
  }

  async function cut(): Promise<void> {
    if (editable() && (await copy())) takeOutMarked()
  }

  async function paste(how: 'share' | 'copy'): Promise<void> {
    const held = await readClip()
    const { document, take } = shot
    if (!document || !take) return
    if (!held) {
      shot.notice = 'Nothing has been copied yet: mark frames on the sheet and copy them first.'
      return
    }
    if (!desk.mayEdit) {
      shot.notice = 'This layer is locked. Unlock it to change it.'
      return
    }
    const at = desk.selection?.from ?? desk.frame
    const step = pasteClip(document, take, shot.id, held.clip, desk.layerId, at, how, desk.following, newId)
    const label = how === 'share' ? 'paste the same drawings' : 'paste copies'
    // Only samples this shot does not have yet are brought along.
    const samples = new Map([...held.samples].filter(([id]) => shot.strokeBytes(id) === undefined))
    if (shot.carryOut(label, step, { samples })) desk.goTo(at)
  }

  /** Marks frames and layers from where marking began to the next one. */
  function extend(byFrames: number, byLayers: number): void {
    if (!desk.selection) anchor = { frame: desk.frame, layer: desk.layerId }
    const order = columns().map(layer => layer.id)
    const at = order.indexOf(desk.layerId)
    const next = order[Math.max(0, Math.min(order.length - 1, at + byLayers))]
    const kept = anchor
    if (next) desk.layerId = next
    desk.goTo(desk.frame + byFrames)
    anchor = kept
    markBetween(anchor, { frame: desk.frame, layer: desk.layerId })
  }

  /** Marks the frames and layers between two places of the sheet. */
  function markBetween(a: { frame: number; layer: string }, b: { frame: number; layer: string }): void {
    const order = columns().map(layer => layer.id)
    const [i, j] = [order.indexOf(a.layer), order.indexOf(b.layer)].sort((x, y) => x - y) as [number, number]
    desk.selection = {
      layers: order.slice(Math.max(0, i), j + 1),
      from: Math.min(a.frame, b.frame),
      to: Math.max(a.frame, b.frame) + 1,
    }
  }

  function markAll(): void {
    if (!shot.take) return
    desk.selection = { layers: columns().map(layer => layer.id), from: 0, to: shot.take.length }
  }

  return {
    columns,
    marked,
    editable,
    exposeOn,
    hold,
    holdFor,
    retimeMarked,
    slideBy,
    trimAt,
    takeOutMarked,
    insertFrames,
    removeFrames,
    keepMarked,
    moveKeyTo,
    nudgeKey,
    link,
    setCycle,
    unlink,
    copy,
    cut,
    paste,
    extend,
    markBetween,
    markAll,
  }
}

export type SheetActs = ReturnType<typeof useSheetActs>
