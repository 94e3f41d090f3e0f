import { frameOfNeighbour } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import { Crosshair } from 'lucide-vue-next'
import { tenths } from '../strokes/gathered.ts'
import type { PaperPort } from './hand.ts'
import { AS_IT_IS, tool } from './tool.ts'

export const mark = tool({
  words: 'mark',
  says: 'place marks: one click a drawing',
  icon: Crosshair,
  key: '6',
  settings: AS_IT_IS,
  tip: null,
  press: placeMark,
})

/** One click a drawing: the mark is placed, and the next drawing comes up. */
export function placeMark(paper: Pick<PaperPort, 'shot' | 'desk' | 'kit'>, at: Point): void {
  const { shot, desk, kit } = paper
  const { drawing } = desk
  const { markId } = kit
  if (!markId) {
    shot.notice = 'Name a mark in the margin first (nose, heel, tail tip …), then click where it lies.'
    return
  }
  if (!drawing || !shot.take) return
  const name = shot.document?.marks[markId]?.name ?? 'mark'
  const place = { ...tenths(at), planted: kit.plants }
  const ops = [{ kind: 'marks.place' as const, drawing: drawing.id, places: { [markId]: place } }]
  if (shot.commit(`${name} on ${drawing.number}`, ops)) return
  const next = frameOfNeighbour(shot.take, desk.layerId, desk.frame, 1)
  if (next !== null) desk.goTo(next)
}
