import {
  copyClip,
  copyCycle,
  proposed,
  exposedDrawing,
  exposeSelection,
  find,
  firstFrameOf,
  framesOut,
  holdDrawing,
  holdToNext,
  holdUpTo,
  keepOnly,
  lastDrawnFrame,
  linkCycle,
  moveCycle,
  moveKey,
  pasteClip,
  retime,
  roomOf,
  assetIds,
  shareDrawing,
  slide,
  slideCycle,
  takeOut,
  timedBy,
  trim,
  type Proposal,
  type Manner,
  type Marked,
  type Moving,
  type Operation,
  type Retiming,
  type ShotDocument,
  type Take,
} from '@unhurried/core/document'
import { lengthOf, slice, type Cycle } from '@unhurried/core/time'
import { keepClip, readClip } from '../../../local/database.ts'
import { useAsking } from '../../../stores/asking.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useSight } from '../../../stores/sight.ts'
import { newId } from '../../../local/ids.ts'
import { useShot } from '../../../stores/shot.ts'
import { TIMED_ELSEWHERE } from '../../../words/refusals.ts'

/** What can be done with frames marked on the sheet, or else with those of the drawing one stands on. */
export function useSheetActs() {
  const shot = useShot()
  const desk = useDesk()
  const sight = useSight()
  const asking = useAsking()
  let anchor = { frame: 0, layer: '' }

  /** Layers from left to right, as the sheet shows them: the topmost first. */
  const columns = () => sight.columns

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

  /** Does an edit of the marked frames, or asks how; afterwards the marking covers nothing that is not there. */
  function act(label: string, edit: (m: Marked, manner: Manner) => Proposal, marks?: Marked): boolean {
    const m = marks ?? editable()
    if (!m) return false
    return asking.act({
      label,
      attempt: manner => edit(m, manner),
      done() {
        const length = shot.take?.length ?? 1
        if (desk.selection && desk.selection.to > length) {
          desk.selection = desk.selection.from < length ? { ...desk.selection, to: length } : null
        }
      },
    })
  }

  /** An edit of the shot that is open, and of its current take. */
  function edit(work: (document: ShotDocument, take: Take) => Proposal): Proposal {
    return shot.document && shot.take ? work(shot.document, shot.take) : proposed([])
  }

  const onWords = (n: number) => `on ${['ones', 'twos', 'threes', 'fours'][n - 1] ?? `${n}s`}`

  function exposeOn(n: number): void {
    act(onWords(n), (m, manner) => edit((doc, take) => exposeSelection(doc, take, m.layers, m.from, m.to, n, manner)))
  }

  /** The frames that drawings begun from now on get, in this shot. */
  function newDrawingsOn(n: number): void {
    if (!shot.document || n === shot.document.exposure) return
    if (!shot.commit(`new drawings ${onWords(n)}`, [{ kind: 'shot.set', patch: { exposure: n } }])) {
      asking.tell(`new drawings ${onWords(n)}: those that are there stay as they are`)
    }
  }

  function hold(by: number): void {
    const run = desk.run
    if (run && editable()) holdFor(desk.timedLayer, desk.frame, run.frames + by, run.frames)
  }

  function holdFor(layer: string, frame: number, frames: number, was: number): void {
    const label = frames > was ? 'hold longer' : 'hold shorter'
    asking.act({
      label,
      attempt: manner => edit((doc, take) => holdDrawing(doc, take, timed(layer), frame, frames, manner)),
    })
  }

  /** Holds each of the marked drawings up to the next one. */
  const holdNext = () =>
    act('hold to the next', m => edit((doc, take) => holdToNext(doc, take, m.layers, m.from, m.to)))

  /** Holds the last drawing up to the frame one stands on, or to the end of the shot. */
  function holdUp(where: 'here' | 'end'): void {
    if (!editable()) return
    const label = where === 'here' ? 'hold up to here' : 'hold to the end'
    const layer = desk.timedLayer
    const attempt = (manner: Manner) =>
      edit((doc, take) =>
        holdUpTo(doc, take, layer, desk.frame, where === 'here' ? desk.frame + 1 : take.length, manner),
      )
    asking.act({ label, attempt })
  }

  const LABELS: Record<Retiming['kind'], string> = {
    reverse: 'reverse',
    'there-and-back': 'there and back',
    repeat: 'repeat',
    stretch: 'stretch',
  }
  function retimeMarked(what: Retiming): void {
    act(LABELS[what.kind], (m, manner) => edit((doc, take) => retime(doc, take, m, what, manner)))
  }

  function slideBy(by: number): void {
    const { take } = shot
    const m = editable()
    if (!take || !m) return
    const real = Math.max(-m.from, Math.min(take.length - m.to, by))
    const kept = desk.selection
    asking.act({
      label: 'slide',
      attempt: manner => edit((doc, t) => slide(doc, t, m, by, roomOf(manner))),
      done() {
        if (!kept) return
        desk.selection = { ...kept, from: m.from + real, to: m.to + real }
        desk.goTo(desk.frame + real)
      },
    })
  }

  function trimAt(side: 'start' | 'end'): void {
    if (!editable()) return
    const label = side === 'end' ? 'let it end here' : 'let it begin here'
    asking.act({
      label,
      attempt: manner => edit((doc, take) => trim(doc, take, desk.timedLayer, desk.frame, side, manner)),
    })
  }

  function takeOutMarked(): void {
    act('take out of the layer', (m, manner) => edit((doc, take) => takeOut(doc, take, m, manner)))
  }

  function insertFrames(count?: number): void {
    const { take } = shot
    const s = desk.selection
    if (!take) return
    const at = s?.from ?? desk.frame + 1
    asking.commit('insert frames', [
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
    asking.commit('take frames out', framesOut(take, at, count), () => (desk.selection = null))
  }

  function keepMarked(): void {
    const m = marked()
    if (!m || !shot.take) return
    asking.commit(`keep only ${m.from + 1}–${m.to}`, keepOnly(shot.take, m.from, m.to), () => {
      desk.selection = null
      desk.goTo(0)
    })
  }

  /** Moves the key one stands on (or another) so that it starts on a frame; its inbetweens follow. */
  function moveKeyTo(drawing: string, frame: number): boolean {
    const sheet = shot.drawing(drawing)
    if (!sheet || frame < 0) return false
    return asking.act({
      label: `move ${sheet.number} to ${frame + 1}`,
      attempt: manner => edit((doc, take) => moveKey(doc, take, drawing, frame, manner)),
      done: () => desk.goTo(frame),
    })
  }

  function nudgeKey(by: -1 | 1): void {
    const { document, take } = shot
    const drawing = document && take && exposedDrawing(document, take, desk.timedLayer, desk.frame)
    if (desk.selection) return slideBy(by)
    const start = drawing && shot.take ? firstFrameOf(shot.take, drawing) : null
    if (drawing?.role === 'key' && start !== null && editable()) moveKeyTo(drawing.id, start + by)
    else slideBy(by)
  }

  /** Shows the drawing of a number (of the layer one stands on) here. */
  function showNumber(number: number): boolean {
    const { document } = shot
    const drawing =
      document && Object.values(document.drawings).find(d => d.layer === desk.layerId && d.number === number)
    if (!drawing) {
      shot.notice = `No drawing of this layer has the number ${number}.`
      return false
    }
    if (desk.timedLayer !== desk.layerId) {
      shot.notice = TIMED_ELSEWHERE
      return false
    }
    return asking.act({
      label: `show ${number}`,
      attempt: manner => {
        if (!shot.document || !shot.take) return proposed([])
        return shareDrawing(shot.document, shot.take, drawing, desk.frame, desk.holdHere, { manner })
      },
    })
  }

  /** The loop goes over the marked frames, or those of the present drawing. */
  function loopMarked(): void {
    const { take } = shot
    const m = marked()
    if (!take || !m) return
    const loop = { from: m.from, to: m.to }
    if (take.loop?.from === loop.from && take.loop.to === loop.to)
      return void asking.tell('loop: it is these frames already')
    if (shot.commit(`loop ${m.from + 1}–${m.to}`, [{ kind: 'loop.set', take: take.id, loop }])) return
    asking.tell(`loop: frames ${m.from + 1} to ${m.to} go round; it follows when they are retimed`)
  }

  /** Without a loop of its own the whole take goes round. */
  function loopAll(): void {
    const { take } = shot
    if (!take?.loop) return void asking.tell('loop: the whole take goes round already')
    shot.commit('loop the whole take', [{ kind: 'loop.set', take: take.id, loop: null }])
    asking.tell('loop: the whole take goes round')
  }

  /** Lets the take end with its last drawing as it comes, or fixes its length as it is. */
  function setOpen(open: boolean): void {
    const { document, take } = shot
    if (!document || !take || take.open === open) return
    const end = lastDrawnFrame(document, take)
    const ops: Operation[] = [{ kind: 'take.set', id: take.id, patch: { open } }]
    if (open && end > 0 && end < take.length) {
      ops.push({ kind: 'frames.remove', take: take.id, at: end, count: take.length - end })
    }
    asking.commit(open ? 'length as it comes' : `length fixed at ${take.length}`, ops)
    if (open) desk.goTo(desk.frame)
  }

  /** Links the marked frames of one layer as a cycle that starts there and runs for so many turns, or to the end. */
  function link(turns: number | 'end', offset = 0): void {
    const m = editable()
    const { take } = shot
    if (!m || !take) return
    const layer = m.layers.includes(desk.timedLayer) ? desk.timedLayer : (m.layers[0] as string)
    const pattern = slice(take.columns[layer] ?? [], m.from, m.to)
    const period = lengthOf(pattern)
    const to = turns === 'end' ? null : m.from + period * turns
    const cycle: Cycle = { id: newId(), layer, from: m.from, to, offset: offset % period, pattern }
    asking.act({
      label: 'link as a cycle',
      attempt: manner => edit((doc, t) => linkCycle(doc, t, cycle, roomOf(manner))),
      done: () => (desk.selection = null),
    })
  }

  /** Changes the cycle one stands on: its ends, or the frame it is entered at. */
  function setCycle(label: string, patch: Moving): void {
    const { cycle } = desk
    if (!cycle) return
    asking.act({ label, attempt: manner => edit((doc, take) => moveCycle(doc, take, cycle, patch, roomOf(manner))) })
  }

  /** Slides the cycle one stands on as a whole; the desk goes with it. */
  function slideWhole(by: number): void {
    const { cycle } = desk
    if (!cycle) return
    asking.act({
      label: by > 0 ? 'cycle later' : 'cycle earlier',
      attempt: manner => edit((doc, take) => slideCycle(doc, take, cycle, by, roomOf(manner))),
      done: () => desk.goTo(desk.frame + by),
    })
  }

  /** Copies the cycle one stands on, from another frame on. */
  function copyCycleTo(frame: number): void {
    const { cycle } = desk
    if (!cycle) return
    asking.act({
      label: `cycle again from ${frame + 1}`,
      attempt: manner => edit((doc, take) => copyCycle(doc, take, cycle, frame, newId(), roomOf(manner))),
      done: () => desk.goTo(frame),
    })
  }

  function unlink(): void {
    const { take } = shot
    const { cycle } = desk
    if (!take || !cycle) return
    if (shot.commit('unlink', [{ kind: 'cycle.remove', take: take.id, id: cycle.id }])) return
    asking.tell('unlink: the frames stay as they are, each on its own')
  }

  async function copy(): Promise<boolean> {
    const { document, take } = shot
    const m = marked()
    if (!document || !take || !m) return false
    const clip = copyClip(document, take, shot.id, m)
    const ids = assetIds(clip.drawings.map(drawing => ({ kind: 'drawing.add', drawing })))
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
    const label = how === 'share' ? 'paste the same drawings' : 'paste copies'
    // Only samples this shot does not have yet are brought along.
    const samples = new Map([...held.samples].filter(([id]) => shot.strokeBytes(id) === undefined))
    const { layerId } = desk
    asking.act({
      label,
      attempt: manner => edit((doc, t) => pasteClip(doc, t, shot.id, held.clip, layerId, at, how, manner, newId)),
      done: () => desk.goTo(at),
      more: { samples },
    })
  }

  /** Marks frames and layers on from what is marked already, or from where one stands. */
  function extend(byFrames: number, byLayers: number): void {
    const { selection } = desk
    const order = columns().map(layer => layer.id)
    if (!selection) anchor = { frame: desk.frame, layer: desk.layerId }
    else if (anchor.frame !== selection.from && anchor.frame !== selection.to - 1) {
      // Marked in another way: from its first frame on, with its last one going along.
      anchor = { frame: selection.from, layer: selection.layers[0] ?? desk.layerId }
      desk.goTo(selection.to - 1)
      desk.layerId = selection.layers[selection.layers.length - 1] ?? desk.layerId
    }
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
    edit,
    exposeOn,
    newDrawingsOn,
    hold,
    holdFor,
    holdNext,
    holdUp,
    retimeMarked,
    slideBy,
    trimAt,
    takeOutMarked,
    insertFrames,
    removeFrames,
    keepMarked,
    moveKeyTo,
    nudgeKey,
    showNumber,
    loopMarked,
    loopAll,
    setOpen,
    link,
    setCycle,
    slideWhole,
    copyCycleTo,
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
