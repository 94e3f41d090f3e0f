import { copyCycle, linkCycle, moveCycle, roomOf, slideCycle, type Moving } from '@unhurried/core/document'
import { lengthOf, slice, type Cycle } from '@unhurried/core/time'
import { newId } from '../../../local/ids.ts'
import { useShot } from '../../../stores/shot.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useAsking } from '../../../stores/asking.ts'
import type { Marking } from './marking.ts'

/** Linked cycles: made, moved, copied and unlinked. */
export function cycleActs({ editable, edit }: Marking) {
  const shot = useShot()
  const desk = useDesk()
  const asking = useAsking()

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

  return { link, setCycle, slideWhole, copyCycleTo, unlink }
}
