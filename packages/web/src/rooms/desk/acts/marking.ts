import {
  proposed,
  find,
  timedBy,
  type Proposal,
  type Manner,
  type Marked,
  type ShotDocument,
  type Take,
} from '@unhurried/core/document'
import { useShot } from '../../../stores/shot.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useSight } from '../../../stores/sight.ts'
import { LOCKED } from '../../../words/refusals.ts'
import { useAsking } from '../../../stores/asking.ts'

/** What is marked on the sheet, and how acts on it are done. */
export function useMarking() {
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
    shot.notice = LOCKED
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

  return { columns, timed, marked, editable, act, edit, extend, markBetween, markAll }
}

export type Marking = ReturnType<typeof useMarking>
