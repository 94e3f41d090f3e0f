import { marksOf } from '@unhurried/core/document'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useShot } from '../../../stores/shot.ts'
import { WIDEST_PX } from '../../../strokes/pens.ts'
import { useProposedMark } from '../../../stores/proposedMark.ts'
import { placeMark } from '../../../tools/mark.ts'
import { useToolInHand } from '../../../tools/table.ts'

/** What is done to the tool in the hand. */
export function toolActs() {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const inHand = useToolInHand()

  function thicken(factor: number): void {
    const now = inHand.width.value
    if (now === null) return
    const next = factor > 1 ? Math.max(now + 1, now * factor) : Math.min(now - 1, now * factor)
    inHand.width.value = Math.max(1, Math.min(WIDEST_PX, Math.round(next)))
  }

  /** Begins the quick pass with the next mark of the layer; pressed again, it goes on to the mark after that. */
  function markPass(): void {
    const { document } = shot
    if (!document) return
    const marks = marksOf(document, desk.layerId)
    const at = kit.tool === 'mark' ? marks.findIndex(mark => mark.id === kit.markId) : -1
    kit.tool = 'mark'
    kit.markId = marks[(at + 1) % Math.max(1, marks.length)]?.id ?? null
  }

  /** Takes the place that is proposed for the mark, and goes on to the next drawing. */
  function takeProposed(): void {
    const { place } = useProposedMark()
    if (place) placeMark({ shot, desk, kit }, place.at)
  }

  return { thicken, markPass, takeProposed }
}
