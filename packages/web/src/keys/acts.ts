import {
  clearDrawing,
  frameOfNeighbour,
  marksOf,
  neighbours,
  ownCopy,
  putNewDrawing,
  removeExposure,
  ROLES,
  shareDrawing,
  type Role,
} from '@unhurried/core/document'
import { WIDEST_PX } from '../desk/pens.ts'
import { useDesk } from '../stores/desk.ts'
import { newId } from '../stores/ids.ts'
import { useShot } from '../stores/shot.ts'
import { NO_LINE, TIMED_ELSEWHERE } from '../words/refusals.ts'
import { useSheetActs } from './sheetActs.ts'
import { forgetStrokes, useStrokeActs } from './strokeActs.ts'

const FARTHEST_ROLL = 4
/** A drawing is seen this long while a set is flipped through: paper between fingers. */
const FLIP_MS = 150

/** What can be done at the desk with keys and buttons, on whatever drawing and frame one stands on. */
export function useActs() {
  const shot = useShot()
  const desk = useDesk()
  const sheet = useSheetActs()
  const strokes = useStrokeActs()
  const word = (role: string) => `${role} ${desk.drawing?.number ?? ''}`.trim()

  function flip(direction: -1 | 1, steps = 1): void {
    if (!shot.document || !shot.take) return
    const round = desk.lightTable.wrap ? desk.loop : null
    const ids = neighbours(shot.document, shot.take, desk.layerId, desk.frame, direction, steps, round)
    desk.flippedTo = ids[ids.length - 1] ?? null
  }
  const letGo = () => (desk.flippedTo = null)

  /** Rolls through the neighbours: negative is back, 0 the present drawing. */
  function rollBy(steps: number): void {
    const bounded = Math.max(-FARTHEST_ROLL, Math.min(FARTHEST_ROLL, steps))
    if (bounded === 0) letGo()
    else flip(bounded < 0 ? -1 : 1, Math.abs(bounded))
  }

  let flipping: ReturnType<typeof setInterval> | undefined
  /** Flips through this drawing and its neighbours, there and back, until let go: `reach` to either side. */
  function flipSet(reach: 1 | 2): void {
    const there = Array.from({ length: 2 * reach + 1 }, (_, i) => i - reach)
    const turn = [...there, ...there.slice(1, -1).reverse()]
    let at = reach
    clearInterval(flipping)
    flipping = setInterval(() => {
      at = (at + 1) % turn.length
      rollBy(turn[at] as number)
    }, FLIP_MS)
  }
  function letGoOfSet(): void {
    clearInterval(flipping)
    letGo()
  }

  /** Lays the nearest drawing that shows through beside the present one, to be wiped over it. */
  function wipe(): void {
    const other = desk.pinned[0] ?? desk.ghosts.past[0] ?? desk.ghosts.future[0]
    if (other) desk.wiped = { drawing: other, x: -1 }
  }

  function toNeighbour(direction: -1 | 1): void {
    const frame = shot.take && frameOfNeighbour(shot.take, desk.layerId, desk.frame, direction)
    if (frame !== null && frame !== undefined) desk.goTo(frame)
  }

  function toNext(): void {
    const [next] = desk.queue
    if (!next) return
    desk.layerId = next.drawing.layer
    desk.goTo(next.frame)
    desk.parents = { left: next.left?.id ?? null, right: next.right?.id ?? null }
  }

  /** Leaves the next drawing out until one comes back to the shot, and goes to the one after it. */
  function skip(): void {
    const [next] = desk.queue
    if (!next) return
    desk.skipped = new Set([...desk.skipped, next.drawing.id])
    toNext()
  }

  /** Puts the next drawing at the end of the queue. */
  function defer(): void {
    const [next] = desk.queue
    if (!next) return
    desk.deferred = [...desk.deferred.filter(id => id !== next.drawing.id), next.drawing.id]
    toNext()
  }

  function newDrawing(how: 'empty' | 'copy'): void {
    const { document, take } = shot
    if (!document || !take) return
    const source = how === 'copy' ? desk.source : null
    const role: Role = source?.role ?? 'key'
    const edit = putNewDrawing(document, take, desk.layerId, desk.frame, desk.holdHere, source, role, newId)
    if (!edit) shot.notice = desk.drawing ? TIMED_ELSEWHERE : NO_LINE
    else if (!shot.commit(how === 'copy' ? `copy of ${source?.number}` : 'new drawing', edit.ops)) desk.goTo(edit.frame)
  }

  function share(): void {
    if (!shot.document || !shot.take || !desk.source) return
    if (desk.timedLayer !== desk.layerId) return void (shot.notice = TIMED_ELSEWHERE)
    const edit = shareDrawing(shot.document, shot.take, desk.source, desk.frame, desk.holdHere)
    if (!shot.commit(`share ${desk.source.number}`, edit.ops)) desk.goTo(edit.frame)
  }

  /** The exposure here gets a copy for its own. */
  function own(): void {
    const { document, take } = shot
    if (!document || !take || !desk.drawing) return
    const edit = ownCopy(document, take, desk.layerId, desk.frame, newId)
    if (edit) shot.commit(`own copy of ${desk.drawing.number}`, edit.ops)
  }

  function remove(): void {
    const { document, take } = shot
    if (!document || !take) return
    const edit = removeExposure(document, take, desk.layerId, desk.frame)
    if (!shot.commit(word('remove'), edit.ops)) desk.goTo(edit.frame)
  }

  function setRole(role: Role): void {
    const { drawing } = desk
    if (drawing)
      shot.commit(`${drawing.number} becomes ${role}`, [{ kind: 'drawing.set', id: drawing.id, patch: { role } }])
  }
  const nextRole = () => setRole(ROLES[(ROLES.indexOf(desk.drawing?.role ?? 'inbetween') + 1) % ROLES.length] as Role)

  function setLoop(edge: 'from' | 'to'): void {
    const { take } = shot
    if (!take) return
    const now = take.loop ?? { from: 0, to: take.length }
    const loop =
      edge === 'from'
        ? { from: desk.frame, to: Math.max(now.to, desk.frame + 1) }
        : { from: Math.min(now.from, desk.frame), to: desk.frame + 1 }
    shot.commit('loop range', [{ kind: 'loop.set', take: take.id, loop }])
  }

  function changeLayer(by: -1 | 1): void {
    const order = sheet.columns()
    const next = order[order.findIndex(layer => layer.id === desk.layerId) + by]
    if (next) {
      desk.layerId = next.id
      desk.selection = null
    }
  }

  function arrow(dx: number, dy: number, far: boolean): void {
    const px = far ? 10 : 1
    if (desk.gathered.size) strokes.nudge(dx * px, dy * px)
    else if (far) sheet.extend(dy, dx)
    else if (dy) {
      desk.selection = null
      desk.goTo(desk.frame + dy)
    } else changeLayer(dx as -1 | 1)
  }

  function deleteStrokes(): void {
    const { drawing } = desk
    if (!drawing) return
    if (desk.gathered.size) strokes.remove()
    else shot.commit(word('clear'), clearDrawing(drawing))
  }

  function thicken(factor: number): void {
    const now = desk.width
    if (now === null) return
    const next = factor > 1 ? Math.max(now + 1, now * factor) : Math.min(now - 1, now * factor)
    desk.width = Math.max(1, Math.min(WIDEST_PX, Math.round(next)))
  }

  /** Begins the quick pass with the next mark of the layer; pressed again, it goes on to the mark after that. */
  function markPass(): void {
    const { document } = shot
    if (!document) return
    const marks = marksOf(document, desk.layerId)
    const at = desk.tool === 'mark' ? marks.findIndex(mark => mark.id === desk.markId) : -1
    desk.tool = 'mark'
    desk.markId = marks[(at + 1) % Math.max(1, marks.length)]?.id ?? null
  }

  return {
    flip,
    markPass,
    letGo,
    rollBy,
    flipSet,
    letGoOfSet,
    wipe,
    toNeighbour,
    toNext,
    newDrawing,
    share,
    own,
    clear: () => {
      if (desk.drawing) shot.commit(word('clear'), clearDrawing(desk.drawing))
    },
    remove,
    setRole,
    nextRole,
    sheet,
    strokes,
    /** Copying and pasting mean strokes while some are gathered, or were copied last; else frames of the sheet. */
    async copy() {
      if (desk.gathered.size && strokes.copy()) return
      if (await sheet.copy()) forgetStrokes()
    },
    async cut() {
      if (desk.gathered.size && strokes.copy()) return strokes.remove()
      forgetStrokes()
      await sheet.cut()
    },
    paste: (how: 'share' | 'copy') => (strokes.canPaste() ? strokes.paste() : sheet.paste(how)),
    skip,
    defer,
    setLoop,
    arrow,
    deleteStrokes,
    thicken,
    dropAll() {
      desk.gather([])
      desk.selection = null
      desk.parents = null
      desk.bare = false
      if (desk.tool === 'mark') desk.markId = null
    },
  }
}
