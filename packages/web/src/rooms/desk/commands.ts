import { computed, ref, type Ref } from 'vue'
import { commandsOf, type CommandLine } from '../../keys/command.ts'
import { FLAT, turnedBy, zoomedAt, type Size } from '../../paint/view.ts'
import { useDesk } from '../../stores/desk.ts'
import { useKit } from '../../stores/kit.ts'
import { useSight } from '../../stores/sight.ts'
import { useLamp } from '../../stores/lamp.ts'
import { SHEET_SHAPES, type SheetShape } from '../../stores/settings.ts'
import { TOOL_NAMES, TOOLS } from '../../tools/table.ts'
import { useShot } from '../../stores/shot.ts'
import { useActs } from './acts/acts.ts'

/** What the desk room adds to the stores. */
export interface DeskRoomPort {
  screen(): Size
  togglePlay(): void
  showKeys(): void
  showSheetActs(): void
  showLayers(): void
  showHistory(): void
  isPlaying(): boolean
  /** takes the moment that is played as a tap */
  tap(): void
}

const TURN_STEP_RAD = Math.PI / 12
export const EXPOSURES = ['ones', 'twos', 'threes', 'fours'] as const
const REDO_KEYS = ['shift+q', 'ctrl+shift+z', 'ctrl+y']

export function useCommands(room: DeskRoomPort) {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const sight = useSight()
  const lamp = useLamp()
  const holding = { pan: ref(false), roll: ref(false) }
  const acts = useActs()
  const { sheet } = acts
  const hasDrawing = () => desk.drawing !== null
  const hasSource = () => edits() && desk.source !== null
  const draws = () => shot.mayDraw && !room.isPlaying()
  const edits = () => desk.mayEdit && !room.isPlaying()
  const middle = () => ({ x: room.screen().width / 2, y: room.screen().height / 2 })
  const zoom = (factor: number) => (sight.view = zoomedAt(sight.view, factor, middle(), room.screen()))
  const turn = (byRad: number) => (sight.view = turnedBy(sight.view, byRad))
  const hold = (what: Ref<boolean>, on: boolean) => () => (what.value = on)
  const changes = () => edits() && hasDrawing()
  const always = () => true
  const make = (
    group: string,
    name: string,
    words: string,
    keys: string[],
    run: () => unknown,
    can: () => boolean = always,
    release?: () => unknown,
  ): CommandLine => ({ name, words, group, keys, run, can, ...(release && { release }) })

  const set = commandsOf('desk', [
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
      () => lamp.ghosts.past.length + lamp.ghosts.future.length > 0,
      () => (sight.wiped = null),
    ),
    make('Look', 'mirror', 'see the paper mirrored', ['shift+w'], () => {
      sight.view = { ...sight.view, mirrored: !sight.view.mirrored }
    }),
    make('Look', 'silhouettes', 'see silhouettes only', ['shift+h'], () => (sight.silhouettes = !sight.silhouettes)),
    make('Look', 'light-table', 'light table on or off', ['w'], () => (lamp.lightTable.on = !lamp.lightTable.on)),
    make('Look', 'play', 'play and stop', ['space'], room.togglePlay),
    make('Look', 'beside', 'the loop small beside the paper', ['shift+p'], () => {
      sight.beside = { ...sight.beside, on: !sight.beside.on }
    }),
    make('Look', 'bare', 'bare paper', ['h'], () => (sight.bare = !sight.bare)),
    make('Look', 'margin', 'fold the margin', ['m'], () => (sight.marginFolded = !sight.marginFolded)),
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
    make('Go', 'first', 'first frame', ['home'], () => acts.leap('first')),
    make('Go', 'last', 'last frame', ['end'], () => acts.leap('last')),
    make('Go', 'second-up', 'a second earlier', ['pageup'], () => acts.leap('second-up')),
    make('Go', 'second-down', 'a second later', ['pagedown'], () => acts.leap('second-down')),
    make('Go', 'extend-second-up', 'mark a second upwards', ['shift+pageup'], () => acts.extendBySecond(-1)),
    make('Go', 'extend-second-down', 'mark a second downwards', ['shift+pagedown'], () => acts.extendBySecond(1)),
    make('Go', 'go-to', 'go to a frame by its number', ['/'], acts.goToFrame),
    make('Go', 'skip', 'skip the next to draw', ['u'], acts.skip, () => desk.queue.length > 0),
    make('Go', 'defer', 'put the next to draw at the end', ['shift+u'], acts.defer, () => desk.queue.length > 1),

    ...TOOL_NAMES.map(name =>
      make('Hand', `tool-${name}`, TOOLS[name].says, [TOOLS[name].key], () => (kit.tool = name)),
    ),
    make('Hand', 'mark-pass', 'place marks, drawing by drawing', ['n'], acts.markPass, edits),
    make('Hand', 'thinner', 'thinner', ['c'], () => acts.thicken(0.85)),
    make('Hand', 'thicker', 'thicker', ['v'], () => acts.thicken(1.18)),
    make('Hand', 'undo', 'undo', ['q', 'ctrl+z'], acts.undo, () => draws() && shot.history.undo.length > 0),
    make('Hand', 'redo', 'redo', REDO_KEYS, acts.redo, () => draws() && shot.history.redo.length > 0),
    make('Hand', 'delete', 'take off gathered strokes, or clear the drawing', ['delete'], acts.deleteStrokes, changes),
    make('Hand', 'gather-all', 'gather the whole drawing', ['shift+a'], acts.strokes.gatherAll, changes),
    make('Hand', 'let-go', 'let go of what is gathered or marked', ['escape'], acts.dropAll),

    make('Drawing', 'new', 'new empty drawing', ['t'], () => acts.newDrawing('empty'), edits),
    make('Drawing', 'copy', 'new drawing as a copy', ['shift+t'], () => acts.newDrawing('copy'), hasSource),
    make(
      'Drawing',
      'new-blank',
      'new empty drawing, empty frames before it stay empty',
      ['alt+t'],
      () => acts.newDrawing('empty', true),
      edits,
    ),
    make('Drawing', 'show', 'show a drawing here by its number', ["'"], acts.showNumber, edits),
    make('Drawing', 'share', 'show the same drawing again', ['y'], acts.share, hasSource),
    make(
      'Drawing',
      'own',
      'its own copy here, other places keep it',
      ['shift+y'],
      acts.own,
      () => changes() && (desk.places > 1 || desk.otherTakes.length > 0),
    ),
    make('Drawing', 'role', 'key, breakdown or inbetween', ['b'], acts.nextRole, changes),
    make('Drawing', 'history', 'how it was made: earlier versions', ['shift+e'], room.showHistory, hasDrawing),
    make('Drawing', 'clear', 'clear: lines off, the sheet stays', ['backspace'], acts.clear, changes),
    make('Drawing', 'remove', 'remove: later drawings move up', ['shift+backspace'], acts.remove, edits),

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
    make('Sheet', 'hold-next', 'hold to the next drawing', ['\\'], sheet.holdNext, edits),
    make('Sheet', 'hold-here', 'hold the drawing before up to here', ['alt+='], () => sheet.holdUp('here'), edits),
    make('Sheet', 'hold-end', 'hold to the end of the shot', ['shift+end'], () => sheet.holdUp('end'), edits),
    make('Sheet', 'loop-marked', 'loop the marked frames', ['shift+l'], sheet.loopMarked, draws),
    make(
      'Sheet',
      'tap',
      'tap where exposures begin, while it plays',
      ['enter'],
      room.tap,
      () => room.isPlaying() && shot.mayDraw,
    ),
    make('Sheet', 'copy-frames', 'copy frames (or gathered strokes)', ['ctrl+c'], acts.copy),
    make('Sheet', 'cut-frames', 'cut frames (or gathered strokes)', ['ctrl+x'], acts.cut, edits),
    make('Sheet', 'paste-share', 'paste the same drawings (or strokes)', ['ctrl+v'], () => acts.paste('share'), edits),
    make('Sheet', 'paste-copies', 'paste copies', ['ctrl+shift+v'], () => acts.paste('copy'), edits),
    make('Sheet', 'mark-all', 'mark the whole sheet', ['ctrl+a'], sheet.markAll),
    make('Sheet', 'following', 'later drawings move, or stay', ['p'], () => {
      desk.following = desk.following === 'ripple' ? 'stay' : 'ripple'
    }),
    make('Sheet', 'acts', 'everything for marked frames', ['l'], room.showSheetActs, draws),
    make('Sheet', 'layers', 'layers', ['o'], room.showLayers),
    make('Sheet', 'only', 'see only this layer', ['shift+o'], () => (sight.onlyLayer = !sight.onlyLayer)),
    make('Sheet', 'shape', 'sheet as an edge, the whole room, or a strip', ['j'], () => {
      const at = SHEET_SHAPES.indexOf(sight.sheetShape)
      sight.sheetShape = SHEET_SHAPES[(at + 1) % SHEET_SHAPES.length] as SheetShape
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
    make(
      'Paper',
      'fit',
      'whole paper, straight',
      ['0'],
      () => (sight.view = { ...FLAT, mirrored: sight.view.mirrored }),
    ),
  ])

  return {
    ...set,
    holding,
    rollBy: acts.rollBy,
    setRole: acts.setRole,
    sheet,
    strokes: acts.strokes,
    marked: computed(sheet.marked),
  }
}

export type Commands = ReturnType<typeof useCommands>
