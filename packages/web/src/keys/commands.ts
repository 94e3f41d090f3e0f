import { computed, ref, type Ref } from 'vue'
import { FLAT, turnedBy, zoomedAt, type Size } from '../desk/view.ts'
import { useDesk } from '../stores/desk.ts'
import { SHEET_SHAPES, TOOLS, type SheetShape, type Tool } from '../stores/settings.ts'
import { useShot } from '../stores/shot.ts'
import { useHabits } from '../stores/habits.ts'
import { useActs } from './acts.ts'
import { written } from './written.ts'

/** One thing that can be done: buttons, keys and the sheet of keys all use the same definition. */
export interface Command {
  readonly id: string
  readonly words: string
  readonly group: string
  readonly keys: readonly string[]
  can(): boolean
  run(): unknown
  /** done while the key is down, and undone by letting go */
  release?(): unknown
}

/** What the desk room adds to the stores. */
export interface DeskRoomPort {
  screen(): Size
  togglePlay(): void
  showKeys(): void
  showSheetActs(): void
  showLayers(): void
  showHistory(): void
  isPlaying(): boolean
}

const TOOL_WORDS: Record<Tool, string> = {
  line: 'line',
  shape: 'painted shape',
  'rub-out': 'rub out whole strokes',
  trim: 'trim parts of strokes',
  gather: 'gather strokes to move them',
  mark: 'place marks: one click a drawing',
  trace: 'lay a shown-through drawing elsewhere to trace it',
  straight: 'straight line (Shift: even directions, Alt: from the middle)',
  round: 'circle or ellipse (Shift: true circle, Alt: from the middle)',
  push: 'push lines along, their weight kept',
  letters: 'letters from a typeface, as strokes',
}
/** Keys of the tools, in their order. */
const TOOL_KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '`', ';'] as const
const TURN_STEP_RAD = Math.PI / 12
export const EXPOSURES = ['ones', 'twos', 'threes', 'fours'] as const
const REDO_KEYS = ['shift+q', 'ctrl+shift+z', 'ctrl+y']

export function useCommands(room: DeskRoomPort) {
  const shot = useShot()
  const desk = useDesk()
  const habits = useHabits()
  const holding = { pan: ref(false), roll: ref(false) }
  const acts = useActs()
  const { sheet } = acts
  const hasDrawing = () => desk.drawing !== null
  const hasSource = () => edits() && desk.source !== null
  const draws = () => shot.mayDraw && !room.isPlaying()
  const edits = () => desk.mayEdit && !room.isPlaying()
  const middle = () => ({ x: room.screen().width / 2, y: room.screen().height / 2 })
  const zoom = (factor: number) => (desk.view = zoomedAt(desk.view, factor, middle(), room.screen()))
  const turn = (byRad: number) => (desk.view = turnedBy(desk.view, byRad))
  const hold = (what: Ref<boolean>, on: boolean) => () => (what.value = on)
  const changes = () => edits() && hasDrawing()
  const always = () => true
  const make = (
    group: string,
    id: string,
    words: string,
    keys: string[],
    run: () => unknown,
    can: () => boolean = always,
    release?: () => unknown,
  ): Command => ({ id, words, group, keys, run, can, ...(release && { release }) })

  const commands: Command[] = [
    make('Look', 'see-before', 'see the drawing before, while held', ['s'], () => acts.flip(-1), always, acts.letGo),
    make('Look', 'see-after', 'see the drawing after, while held', ['f'], () => acts.flip(1), always, acts.letGo),
    make(
      'Look',
      'roll',
      'roll through the neighbours, while held, by sliding',
      ['d'],
      hold(holding.roll, true),
      always,
      () => {
        holding.roll.value = false
        acts.letGo()
      },
    ),
    make(
      'Look',
      'flip-3',
      'flip through three, while held',
      ['shift+s'],
      () => acts.flipSet(1),
      always,
      acts.letGoOfSet,
    ),
    make(
      'Look',
      'flip-5',
      'flip through five, while held',
      ['shift+f'],
      () => acts.flipSet(2),
      always,
      acts.letGoOfSet,
    ),
    make(
      'Look',
      'wipe',
      'wipe the drawing that shows through over this one, while held',
      ['shift+d'],
      acts.wipe,
      () => desk.ghosts.past.length + desk.ghosts.future.length > 0,
      () => (desk.wiped = null),
    ),
    make('Look', 'mirror', 'see the paper mirrored', ['shift+w'], () => {
      desk.view = { ...desk.view, mirrored: !desk.view.mirrored }
    }),
    make('Look', 'silhouettes', 'see silhouettes only', ['shift+h'], () => (desk.silhouettes = !desk.silhouettes)),
    make('Look', 'light-table', 'light table on or off', ['w'], () => (desk.lightTable.on = !desk.lightTable.on)),
    make('Look', 'play', 'play and stop', ['space'], room.togglePlay),
    make('Look', 'bare', 'bare paper', ['h'], () => (desk.bare = !desk.bare)),
    make('Look', 'margin', 'fold the margin', ['m'], () => (desk.marginFolded = !desk.marginFolded)),
    make('Look', 'keys', 'this sheet of keys', ['?'], room.showKeys),

    make('Go', 'next', 'next to draw, with its two neighbours', ['e'], acts.toNext, () => desk.queue.length > 0),
    make('Go', 'back', 'drawing before', ['a'], () => acts.toNeighbour(-1)),
    make('Go', 'on', 'drawing after', ['g'], () => acts.toNeighbour(1)),
    make('Go', 'up', 'frame before (or nudge what is gathered)', ['arrowup'], () => acts.arrow(0, -1, false)),
    make('Go', 'down', 'frame after', ['arrowdown'], () => acts.arrow(0, 1, false)),
    make('Go', 'left', 'layer to the left', ['arrowleft'], () => acts.arrow(-1, 0, false)),
    make('Go', 'right', 'layer to the right', ['arrowright'], () => acts.arrow(1, 0, false)),
    make('Go', 'extend-up', 'mark frames upwards (or nudge by 10)', ['shift+arrowup'], () => acts.arrow(0, -1, true)),
    make('Go', 'extend-down', 'mark frames downwards', ['shift+arrowdown'], () => acts.arrow(0, 1, true)),
    make('Go', 'far-left', 'mark layers to the left', ['shift+arrowleft'], () => acts.arrow(-1, 0, true)),
    make('Go', 'far-right', 'mark layers to the right', ['shift+arrowright'], () => acts.arrow(1, 0, true)),
    make('Go', 'skip', 'skip the next to draw', ['u'], acts.skip, () => desk.queue.length > 0),
    make('Go', 'defer', 'put the next to draw at the end', ['shift+u'], acts.defer, () => desk.queue.length > 1),

    ...TOOLS.map((tool, i) =>
      make('Hand', `tool-${tool}`, TOOL_WORDS[tool], [TOOL_KEYS[i] as string], () => (desk.tool = tool)),
    ),
    make('Hand', 'mark-pass', 'place marks, drawing by drawing', ['n'], acts.markPass, edits),
    make('Hand', 'thinner', 'thinner', ['c'], () => acts.thicken(0.85)),
    make('Hand', 'thicker', 'thicker', ['v'], () => acts.thicken(1.18)),
    make('Hand', 'undo', 'undo', ['q', 'ctrl+z'], shot.undo, () => draws() && shot.history.undo.length > 0),
    make('Hand', 'redo', 'redo', REDO_KEYS, shot.redo, () => draws() && shot.history.redo.length > 0),
    make('Hand', 'delete', 'take off gathered strokes, or clear the drawing', ['delete'], acts.deleteStrokes, changes),
    make('Hand', 'gather-all', 'gather the whole drawing', ['shift+a'], acts.strokes.gatherAll, changes),
    make('Hand', 'let-go', 'let go of what is gathered or marked', ['escape'], acts.dropAll),

    make('Drawing', 'new', 'new empty drawing', ['t'], () => acts.newDrawing('empty'), edits),
    make('Drawing', 'copy', 'new drawing as a copy', ['shift+t'], () => acts.newDrawing('copy'), hasSource),
    make('Drawing', 'share', 'show the same drawing again', ['y'], acts.share, hasSource),
    make(
      'Drawing',
      'own',
      'its own copy here, other places keep it',
      ['shift+y'],
      acts.own,
      () => changes() && desk.places > 1,
    ),
    make('Drawing', 'role', 'key, breakdown or inbetween', ['b'], acts.nextRole, changes),
    make('Drawing', 'history', 'how it was made: earlier versions', ['shift+e'], room.showHistory, hasDrawing),
    make('Drawing', 'clear', 'clear: lines off, the sheet stays', ['backspace'], acts.clear, changes),
    make('Drawing', 'remove', 'remove: what follows moves up', ['shift+backspace'], acts.remove, edits),

    make('Sheet', 'longer', 'hold longer', ['='], () => sheet.hold(1), edits),
    make(
      'Sheet',
      'shorter',
      'hold shorter',
      ['-'],
      () => sheet.hold(-1),
      () => edits() && (desk.run?.frames ?? 0) > 1,
    ),
    ...EXPOSURES.map((words, i) =>
      make('Sheet', `on-${i + 1}`, `on ${words}`, [`alt+${i + 1}`], () => sheet.exposeOn(i + 1), edits),
    ),
    make('Sheet', 'insert', 'insert frames', ['i'], () => sheet.insertFrames(), draws),
    make('Sheet', 'take-out', 'take frames out', ['shift+i'], sheet.removeFrames, draws),
    make(
      'Sheet',
      'key-earlier',
      'move the key (or what is marked) up',
      ['alt+arrowup'],
      () => sheet.nudgeKey(-1),
      edits,
    ),
    make(
      'Sheet',
      'key-later',
      'move the key (or what is marked) down',
      ['alt+arrowdown'],
      () => sheet.nudgeKey(1),
      edits,
    ),
    make('Sheet', 'reverse', 'reverse', ['r'], () => sheet.retimeMarked({ kind: 'reverse' }), edits),
    make(
      'Sheet',
      'there-and-back',
      'there and back',
      ['shift+r'],
      () => sheet.retimeMarked({ kind: 'there-and-back' }),
      edits,
    ),
    make('Sheet', 'ends-here', 'let the drawing end here', ['k'], () => sheet.trimAt('end'), edits),
    make('Sheet', 'begins-here', 'let the drawing begin here', ['shift+k'], () => sheet.trimAt('start'), edits),
    make('Sheet', 'copy-frames', 'copy frames (or gathered strokes)', ['ctrl+c'], acts.copy),
    make('Sheet', 'cut-frames', 'cut frames (or gathered strokes)', ['ctrl+x'], acts.cut, edits),
    make('Sheet', 'paste-share', 'paste the same drawings (or strokes)', ['ctrl+v'], () => acts.paste('share'), edits),
    make('Sheet', 'paste-copies', 'paste copies', ['ctrl+shift+v'], () => acts.paste('copy'), edits),
    make('Sheet', 'mark-all', 'mark the whole sheet', ['ctrl+a'], sheet.markAll),
    make('Sheet', 'following', 'what follows moves, or stays', ['p'], () => {
      desk.following = desk.following === 'ripple' ? 'stay' : 'ripple'
    }),
    make('Sheet', 'acts', 'everything for marked frames', ['l'], room.showSheetActs, draws),
    make('Sheet', 'layers', 'layers', ['o'], room.showLayers),
    make('Sheet', 'only', 'see only this layer', ['shift+o'], () => (desk.onlyLayer = !desk.onlyLayer)),
    make('Sheet', 'shape', 'sheet as an edge, the whole room, or a strip', ['j'], () => {
      const at = SHEET_SHAPES.indexOf(desk.sheetShape)
      desk.sheetShape = SHEET_SHAPES[(at + 1) % SHEET_SHAPES.length] as SheetShape
    }),
    make('Sheet', 'loop-from', 'loop starts here', [','], () => acts.setLoop('from'), draws),
    make('Sheet', 'loop-to', 'loop ends here', ['.'], () => acts.setLoop('to'), draws),

    make(
      'Paper',
      'pan',
      'move the paper, while held',
      ['z'],
      hold(holding.pan, true),
      always,
      hold(holding.pan, false),
    ),
    make('Paper', 'nearer', 'nearer', ['x'], () => zoom(1.25)),
    make('Paper', 'farther', 'farther', ['shift+x'], () => zoom(0.8)),
    make('Paper', 'turn-left', 'turn to the left', ['['], () => turn(-TURN_STEP_RAD)),
    make('Paper', 'turn-right', 'turn to the right', [']'], () => turn(TURN_STEP_RAD)),
    make('Paper', 'fit', 'whole paper, straight', ['0'], () => (desk.view = { ...FLAT, mirrored: desk.view.mirrored })),
  ]
  const byId = new Map(commands.map(command => [command.id, command]))
  const get = (id: string): Command => {
    const command = byId.get(id)
    if (!command) throw new Error(`no command is called ${id}`)
    return command
  }
  /** The keys of a command as they are now, as people read them: "⇧ Y". Empty when it has none. */
  const keysOf = (id: string): string => habits.keysOf(get(id)).map(written).join(', ')

  return {
    commands,
    holding,
    rollBy: acts.rollBy,
    setRole: acts.setRole,
    sheet,
    strokes: acts.strokes,
    marked: computed(sheet.marked),
    get,
    keysOf,
    /** Words about a command (its own unless told), with its keys behind them. */
    tip(id: string, words = get(id).words): string {
      const keys = keysOf(id)
      return keys ? `${words} (${keys})` : words
    },
  }
}

export type Commands = ReturnType<typeof useCommands>
