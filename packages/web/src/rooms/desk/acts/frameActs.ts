import { proposed, framesOut, keepOnly, lastDrawnFrame, shareDrawing, type Operation } from '@unhurried/core/document'
import { TIMED_ELSEWHERE } from '../../../words/refusals.ts'
import { useShot } from '../../../stores/shot.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useAsking } from '../../../stores/asking.ts'
import type { Marking } from './marking.ts'

/** Frames put in and taken out on all layers, and the loop over them. */
export function frameActs({ marked }: Marking) {
  const shot = useShot()
  const desk = useDesk()
  const asking = useAsking()

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

  return { insertFrames, removeFrames, keepMarked, showNumber, loopMarked, loopAll, setOpen }
}
