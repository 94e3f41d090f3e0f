import {
  clearDrawing,
  exposeSelection,
  find,
  frameOfNeighbour,
  holdDrawing,
  neighbours,
  putNewDrawing,
  removeExposure,
  ROLES,
  shareDrawing,
  type Role,
} from '@unhurried/core/document'
import { translation } from '@unhurried/core/geometry'
import { moveOps } from '../desk/edits.ts'
import { useDesk } from '../stores/desk.ts'
import { newId } from '../stores/ids.ts'
import { useShot } from '../stores/shot.ts'

const FARTHEST_ROLL = 4
const WIDEST_PX = 160

/** What can be done at the desk with keys and buttons, on whatever drawing and frame one stands on. */
export function useActs() {
  const shot = useShot()
  const desk = useDesk()
  let anchor = 0
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

  function toNeighbour(direction: -1 | 1): void {
    const frame = shot.take && frameOfNeighbour(shot.take, desk.layerId, desk.frame, direction)
    if (frame !== null && frame !== undefined) desk.goTo(frame)
  }

  function toNext(): void {
    const [next] = desk.queue
    if (!next) return
    desk.layerId = next.drawing.layer
    desk.goTo(next.frame)
    desk.parents = { left: next.left.id, right: next.right.id }
  }

  function newDrawing(how: 'empty' | 'copy'): void {
    const { document, take } = shot
    if (!document || !take) return
    const source = how === 'copy' ? desk.source : null
    const role: Role = source?.role ?? 'key'
    const edit = putNewDrawing(document, take, desk.layerId, desk.frame, desk.holdHere, source, role, newId)
    if (!shot.commit(how === 'copy' ? `copy of ${source?.number}` : 'new drawing', edit.ops)) desk.goTo(edit.frame)
  }

  function share(): void {
    if (!shot.take || !desk.source) return
    const edit = shareDrawing(shot.take, desk.source, desk.frame, desk.holdHere)
    if (!shot.commit(`share ${desk.source.number}`, edit.ops)) desk.goTo(edit.frame)
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

  function hold(by: -1 | 1): void {
    const { document, take } = shot
    if (document && take && desk.run) {
      shot.commit(
        by > 0 ? 'hold longer' : 'hold shorter',
        holdDrawing(document, take, desk.layerId, desk.frame, desk.run.frames + by),
      )
    }
  }

  /** The frames marked on the sheet, or else those of the present drawing. */
  function marked() {
    const s = desk.selection
    if (s && s.layer === desk.layerId) return s
    const run = desk.run
    return run ? { layer: desk.layerId, from: run.start, to: run.start + run.frames } : null
  }

  function exposeOn(n: number): void {
    const { document, take } = shot
    const m = marked()
    // Drawings begun from now on get as many.
    desk.exposure = n
    if (document && take && m) shot.commit(`on ${n}s`, exposeSelection(document, take, m.layer, m.from, m.to, n))
  }

  function insertFrames(): void {
    const { take } = shot
    const s = desk.selection
    if (take)
      shot.commit('insert frames', [
        { kind: 'frames.insert', take: take.id, at: s?.from ?? desk.frame + 1, count: s ? s.to - s.from : 1, fill: {} },
      ])
  }
  function removeFrames(): void {
    const { take } = shot
    const s = desk.selection
    const [at, count] = s ? [s.from, s.to - s.from] : [desk.frame, 1]
    if (take && count < take.length) {
      shot.commit('take frames out', [{ kind: 'frames.remove', take: take.id, at, count }])
      desk.selection = null
    }
  }

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

  /** Marks frames from where marking began to the next frame. */
  function extend(by: -1 | 1): void {
    if (desk.selection?.layer !== desk.layerId) anchor = desk.frame
    desk.goTo(desk.frame + by)
    const { frame, layerId: layer } = desk
    desk.selection = { layer, from: Math.min(anchor, frame), to: Math.max(anchor, frame) + 1 }
  }

  function nudge(dx: number, dy: number): void {
    const { drawing, gathered } = desk
    if (drawing)
      shot.commit(`nudge on ${drawing.number}`, moveOps(drawing, gathered, translation(dx, dy)), { joins: true })
  }

  function changeLayer(by: -1 | 1): void {
    const order = Object.values(shot.document?.layers ?? {}).sort((a, b) => b.order - a.order)
    const at = order.findIndex(layer => layer.id === desk.layerId)
    const next = order[at + by]
    if (next) {
      desk.layerId = next.id
      desk.selection = null
    }
  }

  function arrow(dx: number, dy: number, far: boolean): void {
    const px = far ? 10 : 1
    if (desk.gathered.size) nudge(dx * px, dy * px)
    else if (far && dy) extend(dy as -1 | 1)
    else if (dy) {
      desk.selection = null
      desk.goTo(desk.frame + dy)
    } else changeLayer(dx as -1 | 1)
  }

  function deleteStrokes(): void {
    const { drawing } = desk
    if (!drawing) return
    if (desk.gathered.size) {
      const ids = [...desk.gathered].filter(id => find(drawing.elements, id))
      desk.gathered = new Set()
      if (ids.length)
        shot.commit(`take strokes off ${drawing.number}`, [{ kind: 'elements.remove', drawing: drawing.id, ids }])
    } else shot.commit(word('clear'), clearDrawing(drawing))
  }

  function thicken(factor: number): void {
    const now = desk.widths[desk.tool]
    const next = factor > 1 ? Math.max(now + 1, now * factor) : Math.min(now - 1, now * factor)
    desk.widths[desk.tool] = Math.max(1, Math.min(WIDEST_PX, Math.round(next)))
  }

  return {
    flip,
    letGo,
    rollBy,
    toNeighbour,
    toNext,
    newDrawing,
    share,
    clear: () => {
      if (desk.drawing) shot.commit(word('clear'), clearDrawing(desk.drawing))
    },
    remove,
    setRole,
    nextRole,
    hold,
    marked,
    exposeOn,
    insertFrames,
    removeFrames,
    setLoop,
    arrow,
    deleteStrokes,
    thicken,
    dropAll() {
      desk.gathered = new Set()
      desk.selection = null
      desk.parents = null
      desk.bare = false
    },
  }
}
