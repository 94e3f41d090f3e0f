import { exposedDrawing, firstFrameOf, moveKey, roomOf, slide } from '@unhurried/core/document'
import { useShot } from '../../../stores/shot.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useAsking } from '../../../stores/asking.ts'
import type { Marking } from './marking.ts'

/** What is marked slides; keys move with their inbetweens. */
export function movingActs({ editable, edit }: Marking) {
  const shot = useShot()
  const desk = useDesk()
  const asking = useAsking()

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

  return { slideBy, moveKeyTo, nudgeKey }
}
