import {
  clearDrawing,
  find,
  frameOfNeighbour,
  holdDrawing,
  neighbours,
  putNewDrawing,
  removeExposure,
  ROLES,
  shareDrawing,
  exposeSelection,
  type Role,
} from '@unhurried/core/document'
import { translation } from '@unhurried/core/geometry'
import { computed, ref } from 'vue'
import { moveOps } from '../desk/edits.ts'
import { FLAT, turnedBy, zoomedAt, type Size } from '../desk/view.ts'
import { newId } from '../stores/ids.ts'
import { TOOLS, useDesk, type Tool } from '../stores/desk.ts'
import { useShot } from '../stores/shot.ts'

/** One thing that can be done: buttons, keys and the sheet of keys all use the same definition. */
export interface Command {
  readonly id: string
  readonly words: string
  readonly group: string
  readonly keys: readonly string[]
  can(): boolean
  run(): void
  /** done while the key is down, and undone by letting go */
  release?(): void
}

/** What the desk room adds to the stores. */
export interface DeskRoomPort {
  screen(): Size
  togglePlay(): void
  showKeys(): void
  isPlaying(): boolean
}

const TOOL_WORDS: Record<Tool, string> = {
  line: 'line',
  shape: 'painted shape',
  'rub-out': 'rub out whole strokes',
  trim: 'trim parts of strokes',
  gather: 'gather strokes to move them',
}
const TURN_STEP_RAD = Math.PI / 12
const FARTHEST_ROLL = 4

export function useCommands(room: DeskRoomPort) {
  const shot = useShot()
  const desk = useDesk()
  const holding = { pan: ref(false), roll: ref(false) }
  const hasDrawing = () => desk.drawing !== null
  let anchor = 0
  const draws = () => shot.mayDraw && !room.isPlaying()
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
    if (desk.drawing)
      shot.commit(`${desk.drawing.number} becomes ${role}`, [
        { kind: 'drawing.set', id: desk.drawing.id, patch: { role } },
      ])
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
    if (desk.drawing)
      shot.commit(`nudge on ${desk.drawing.number}`, moveOps(desk.drawing, desk.gathered, translation(dx, dy)))
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
    desk.widths[desk.tool] = Math.max(1, Math.min(160, Math.round(next)))
  }

  const middle = () => ({ x: room.screen().width / 2, y: room.screen().height / 2 })
  const zoom = (factor: number) => (desk.view = zoomedAt(desk.view, factor, middle(), room.screen()))
  const always = () => true
  const make = (
    group: string,
    id: string,
    words: string,
    keys: string[],
    run: () => void,
    can: () => boolean = always,
    release?: () => void,
  ): Command => ({ id, words, group, keys, run, can, ...(release && { release }) })

  const commands: Command[] = [
    make('Look', 'see-before', 'see the drawing before, while held', ['s'], () => flip(-1), hasDrawing, letGo),
    make('Look', 'see-after', 'see the drawing after, while held', ['f'], () => flip(1), hasDrawing, letGo),
    make(
      'Look',
      'roll',
      'roll through the neighbours, while held, by sliding',
      ['d'],
      () => (holding.roll.value = true),
      always,
      () => {
        holding.roll.value = false
        letGo()
      },
    ),
    make('Look', 'light-table', 'light table on or off', ['w'], () => (desk.lightTable.on = !desk.lightTable.on)),
    make('Look', 'play', 'play and stop', ['space'], room.togglePlay),
    make('Look', 'bare', 'bare paper', ['h'], () => (desk.bare = !desk.bare)),
    make('Look', 'margin', 'fold the margin', ['m'], () => (desk.marginFolded = !desk.marginFolded)),
    make('Look', 'keys', 'this sheet of keys', ['?'], room.showKeys),

    make('Go', 'next', 'next to draw, with its two neighbours', ['e'], toNext, () => desk.queue.length > 0),
    make('Go', 'back', 'drawing before', ['a'], () => toNeighbour(-1)),
    make('Go', 'on', 'drawing after', ['g'], () => toNeighbour(1)),
    make('Go', 'up', 'frame before (or nudge what is gathered)', ['arrowup'], () => arrow(0, -1, false)),
    make('Go', 'down', 'frame after', ['arrowdown'], () => arrow(0, 1, false)),
    make('Go', 'left', 'layer to the left', ['arrowleft'], () => arrow(-1, 0, false)),
    make('Go', 'right', 'layer to the right', ['arrowright'], () => arrow(1, 0, false)),
    make('Go', 'extend-up', 'mark frames upwards (or nudge by 10)', ['shift+arrowup'], () => arrow(0, -1, true)),
    make('Go', 'extend-down', 'mark frames downwards', ['shift+arrowdown'], () => arrow(0, 1, true)),
    make(
      'Go',
      'far-left',
      'nudge by 10 to the left',
      ['shift+arrowleft'],
      () => arrow(-1, 0, true),
      () => desk.gathered.size > 0,
    ),
    make(
      'Go',
      'far-right',
      'nudge by 10 to the right',
      ['shift+arrowright'],
      () => arrow(1, 0, true),
      () => desk.gathered.size > 0,
    ),

    ...TOOLS.map((tool, i) =>
      make('Hand', `tool-${tool}`, TOOL_WORDS[tool], [String(i + 1)], () => (desk.tool = tool)),
    ),
    make('Hand', 'thinner', 'thinner', ['c'], () => thicken(0.85)),
    make('Hand', 'thicker', 'thicker', ['v'], () => thicken(1.18)),
    make(
      'Hand',
      'undo',
      'undo',
      ['q', 'ctrl+z'],
      () => void shot.undo(),
      () => draws() && shot.history.undo.length > 0,
    ),
    make(
      'Hand',
      'redo',
      'redo',
      ['shift+q', 'ctrl+shift+z', 'ctrl+y'],
      () => void shot.redo(),
      () => draws() && shot.history.redo.length > 0,
    ),
    make(
      'Hand',
      'delete',
      'take off gathered strokes, or clear the drawing',
      ['delete'],
      deleteStrokes,
      () => draws() && hasDrawing(),
    ),
    make('Hand', 'let-go', 'let go of what is gathered or marked', ['escape'], () => {
      desk.gathered = new Set()
      desk.selection = null
      desk.parents = null
      desk.bare = false
    }),

    make('Drawing', 'new', 'new empty drawing', ['t'], () => newDrawing('empty'), draws),
    make(
      'Drawing',
      'copy',
      'new drawing as a copy',
      ['shift+t'],
      () => newDrawing('copy'),
      () => draws() && desk.source !== null,
    ),
    make('Drawing', 'share', 'show the same drawing again', ['y'], share, () => draws() && desk.source !== null),
    make('Drawing', 'role', 'key, breakdown or inbetween', ['b'], nextRole, () => draws() && hasDrawing()),
    make(
      'Drawing',
      'clear',
      'clear: lines off, the sheet stays',
      ['backspace'],
      () => desk.drawing && shot.commit(word('clear'), clearDrawing(desk.drawing)),
      () => draws() && hasDrawing(),
    ),
    make(
      'Drawing',
      'remove',
      'remove: what follows moves up',
      ['shift+backspace'],
      remove,
      () => draws() && desk.run !== null,
    ),

    make('Sheet', 'longer', 'hold longer', ['='], () => hold(1), draws),
    make(
      'Sheet',
      'shorter',
      'hold shorter',
      ['-'],
      () => hold(-1),
      () => draws() && (desk.run?.frames ?? 0) > 1,
    ),
    ...[1, 2, 3].map(n =>
      make('Sheet', `on-${n}`, `on ${['ones', 'twos', 'threes'][n - 1]}`, [`alt+${n}`], () => exposeOn(n), draws),
    ),
    make('Sheet', 'insert', 'insert frames', ['i'], insertFrames, draws),
    make('Sheet', 'take-out', 'take frames out', ['shift+i'], removeFrames, draws),
    make('Sheet', 'loop-from', 'loop starts here', [','], () => setLoop('from'), draws),
    make('Sheet', 'loop-to', 'loop ends here', ['.'], () => setLoop('to'), draws),

    make(
      'Paper',
      'pan',
      'move the paper, while held',
      ['z'],
      () => (holding.pan.value = true),
      always,
      () => (holding.pan.value = false),
    ),
    make('Paper', 'nearer', 'nearer', ['x'], () => zoom(1.25)),
    make('Paper', 'farther', 'farther', ['shift+x'], () => zoom(0.8)),
    make('Paper', 'turn-left', 'turn to the left', ['['], () => (desk.view = turnedBy(desk.view, -TURN_STEP_RAD))),
    make('Paper', 'turn-right', 'turn to the right', [']'], () => (desk.view = turnedBy(desk.view, TURN_STEP_RAD))),
    make('Paper', 'fit', 'whole paper, straight', ['0'], () => (desk.view = FLAT)),
  ]
  const byId = new Map(commands.map(command => [command.id, command]))

  return {
    commands,
    holding,
    rollBy,
    setRole,
    exposeOn,
    marked: computed(marked),
    get(id: string): Command {
      const command = byId.get(id)
      if (!command) throw new Error(`no command is called ${id}`)
      return command
    },
  }
}

export type Commands = ReturnType<typeof useCommands>
