import {
  clearDrawing,
  find,
  frameOfNeighbour,
  marksOf,
  neighbours,
  ownCopy,
  putNewDrawing,
  removeExposure,
  ROLES,
  roomOf,
  shareDrawing,
  type Manner,
  type Operation,
  type Role,
} from '@unhurried/core/document'
import { WIDEST_PX } from '../../../strokes/pens.ts'
import { useToolInHand } from '../../../tools/table.ts'
import { useAsking } from '../../../stores/asking.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useSight } from '../../../stores/sight.ts'
import { useLamp } from '../../../stores/lamp.ts'
import { newId } from '../../../local/ids.ts'
import { useShot } from '../../../stores/shot.ts'
import { NO_LINE, TIMED_ELSEWHERE } from '../../../words/refusals.ts'
import { useSheetActs } from './sheetActs.ts'
import { forgetStrokes, useStrokeActs } from './strokeActs.ts'

/** The takes that operations change, or make current. */
function takesTouched(ops: readonly Operation[]): string[] {
  const touched = ops.flatMap(op => {
    if (op.kind === 'shot.set') return op.patch.current ?? []
    return 'take' in op && typeof op.take === 'string' ? op.take : []
  })
  return [...new Set(touched)]
}

const FARTHEST_ROLL = 4
/** A drawing is seen this long while a set is flipped through: paper between fingers. */
const FLIP_MS = 150

/** What can be done at the desk with keys and buttons, on whatever drawing and frame one stands on. */
export function useActs() {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const sight = useSight()
  const lamp = useLamp()
  const asking = useAsking()
  const inHand = useToolInHand()
  const sheet = useSheetActs()
  const strokes = useStrokeActs()
  const word = (role: string) => `${role} ${desk.drawing?.number ?? ''}`.trim()

  function flip(direction: -1 | 1, steps = 1): void {
    if (!shot.document || !shot.take) return
    const round = lamp.lightTable.wrap ? desk.loop : null
    const ids = neighbours(shot.document, shot.take, desk.layerId, desk.frame, direction, steps, round)
    sight.flippedTo = ids[ids.length - 1] ?? null
  }
  const letGo = () => (sight.flippedTo = null)

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
    const other = lamp.pinned[0] ?? lamp.ghosts.past[0] ?? lamp.ghosts.future[0]
    if (other) sight.wiped = { drawing: other, x: -1 }
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
    lamp.parents = { left: next.left?.id ?? null, right: next.right?.id ?? null }
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

  function newDrawing(how: 'empty' | 'copy', blank = false): void {
    const { document, take } = shot
    if (!document || !take) return
    const source = how === 'copy' ? desk.source : null
    const role = desk.roleOfNew(source)
    const { layerId, frame, holdHere } = desk
    const put = (manner: Manner) =>
      putNewDrawing(document, take, layerId, frame, holdHere, source, role, newId, { manner, blank })
    if (put('ripple') === null) return void (shot.notice = desk.drawing ? TIMED_ELSEWHERE : NO_LINE)
    asking.act({
      label: how === 'copy' ? `copy of ${source?.number}` : 'new drawing',
      attempt: manner => put({ following: 'ripple', room: roomOf(manner) }) ?? { ok: false, code: 'not-a-key' },
    })
  }

  function share(): void {
    if (!shot.document || !shot.take || !desk.source) return
    if (desk.timedLayer !== desk.layerId) return void (shot.notice = TIMED_ELSEWHERE)
    const { document, take } = shot
    const { source, frame, holdHere } = desk
    asking.act({
      label: `share ${source.number}`,
      attempt: manner =>
        shareDrawing(document, take, source, frame, holdHere, {
          manner: { following: 'ripple', room: roomOf(manner) },
        }),
    })
  }

  /** The exposure here gets a copy for its own. */
  function own(): void {
    const { document, take } = shot
    const { drawing } = desk
    if (!document || !take || !drawing) return
    const step = ownCopy(document, take, desk.layerId, desk.frame, newId)
    if (step) asking.act({ label: `own copy of ${drawing.number}`, attempt: () => step })
  }

  function remove(): void {
    const { document, take } = shot
    if (!document || !take) return
    const step = removeExposure(document, take, desk.layerId, desk.frame)
    asking.act({
      label: word('remove'),
      attempt: () => step,
    })
  }

  /** The role of the present drawing, or of all that are marked on its layer. */
  function setRole(role: Role): void {
    const sheets = desk.markedDrawings.length ? desk.markedDrawings : desk.drawing ? [desk.drawing] : []
    const others = sheets.filter(sheet => sheet.role !== role)
    const who = sheets.length === 1 ? `${sheets[0]?.number} becomes` : `${sheets.length} drawings become`
    if (others.length === 0) return void asking.tell(`${who} ${role}: nothing changed, so it is already`)
    const ops = others.map((sheet): Operation => ({ kind: 'drawing.set', id: sheet.id, patch: { role } }))
    if (!shot.commit(`${who} ${role}`, ops)) asking.tell(`${who} ${role}`)
  }
  const nextRole = () => setRole(ROLES[(ROLES.indexOf(desk.drawing?.role ?? 'inbetween') + 1) % ROLES.length] as Role)

  function setLoop(edge: 'from' | 'to'): void {
    const { take } = shot
    if (!take) return
    if (desk.selection) return sheet.loopMarked()
    const now = take.loop ?? { from: 0, to: take.length }
    const loop =
      edge === 'from'
        ? { from: desk.frame, to: Math.max(now.to, desk.frame + 1) }
        : { from: Math.min(now.from, desk.frame), to: desk.frame + 1 }
    shot.commit('loop range', [{ kind: 'loop.set', take: take.id, loop }])
  }

  /** Undoes the newest step (or does it again); says so first when that is on another take than the one in sight. */
  function backOrAgain(which: 'undo' | 'redo'): void {
    const { document, take } = shot
    const stack = shot.history[which]
    const top = stack[stack.length - 1]
    if (!top || !document || !take) return
    const doIt = () => {
      const done = which === 'undo' ? shot.undo() : shot.redo()
      if (done) asking.tell(`${which === 'undo' ? 'undone' : 'done again'}: ${top.label}`)
    }
    const elsewhere = takesTouched(top.ops).filter(id => id !== take.id)
    if (elsewhere.length === 0) return doIt()
    const names = elsewhere.map(id => find(document.takes, id)?.name ?? 'a take that is gone')
    const verb = which === 'undo' ? 'Undoing' : 'Doing again'
    asking.ask({
      label: `${which}: ${top.label}`,
      why: `${verb} “${top.label}” is on another take: ${names.join(', ')}.`,
      choices: [
        { words: which === 'undo' ? 'undo it there' : 'do it again there', take: () => (asking.drop(), doIt()) },
      ],
    })
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
    if (kit.gathered.size) strokes.nudge(dx * px, dy * px)
    else if (far) sheet.extend(dy, dx)
    else if (dy) {
      desk.selection = null
      desk.goTo(desk.frame + dy)
    } else changeLayer(dx as -1 | 1)
  }

  /** The frames up to the next whole second, for leaps over the sheet. */
  const second = () => shot.document?.format.fps ?? 24
  function leap(where: 'first' | 'last' | 'second-up' | 'second-down'): void {
    const last = (shot.take?.length ?? 1) - 1
    const to = {
      first: 0,
      last,
      'second-up': desk.frame - second(),
      'second-down': desk.frame + second(),
    }[where]
    desk.selection = null
    desk.goTo(to)
  }

  const goToFrame = () =>
    asking.askNumber('go to a frame', {
      words: 'frame',
      least: 1,
      most: shot.take?.length ?? 1,
      now: desk.frame + 1,
      take(n) {
        desk.selection = null
        desk.goTo(n - 1)
      },
    })

  function showNumber(): void {
    const numbers = Object.values(shot.document?.drawings ?? {})
      .filter(d => d.layer === desk.layerId)
      .map(d => d.number)
    if (numbers.length === 0) return void (shot.notice = 'This layer has no drawings yet.')
    asking.askNumber(`show a drawing of ${desk.layer?.name ?? 'the layer'} here`, {
      words: 'number',
      least: Math.min(...numbers),
      most: Math.max(...numbers),
      now: desk.source?.number ?? (numbers[0] as number),
      take: sheet.showNumber,
    })
  }

  function deleteStrokes(): void {
    const { drawing } = desk
    if (!drawing) return
    if (kit.gathered.size) strokes.remove()
    else shot.commit(word('clear'), clearDrawing(drawing))
  }

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

  return {
    undo: () => backOrAgain('undo'),
    redo: () => backOrAgain('redo'),
    flip,
    markPass,
    leap,
    extendBySecond: (by: -1 | 1) => sheet.extend(by * second(), 0),
    goToFrame,
    showNumber,
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
      if (kit.gathered.size && strokes.copy()) return
      if (await sheet.copy()) forgetStrokes()
    },
    async cut() {
      if (kit.gathered.size && strokes.copy()) return strokes.remove()
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
      asking.drop()
      strokes.backToTool()
      kit.gather([])
      desk.selection = null
      lamp.parents = null
      sight.bare = false
      if (kit.tool === 'mark') kit.markId = null
    },
  }
}
