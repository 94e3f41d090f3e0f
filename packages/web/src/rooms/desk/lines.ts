import type { Ref } from 'vue'
import type { CommandLine } from '../../keys/command.ts'
import { FLAT, turnedBy, zoomedAt } from '../../paint/view.ts'
import { useDesk } from '../../stores/desk.ts'
import { useKit } from '../../stores/kit.ts'
import { useLamp } from '../../stores/lamp.ts'
import { SHEET_SHAPES, type SheetShape } from '../../stores/settings.ts'
import { useShot } from '../../stores/shot.ts'
import { useClips } from '../../stores/clips.ts'
import { useSound } from '../../stores/sound.ts'
import { usePhotographs } from '../../stores/photographs.ts'
import { useSight } from '../../stores/sight.ts'
import { TOOL_NAMES, TOOLS } from '../../tools/table.ts'
import { EXPOSURES } from '../../words/exposures.ts'
import type { useActs } from './acts/acts.ts'
import type { DeskRoomPort } from './commands.ts'

const TURN_STEP_RAD = Math.PI / 12
const REDO_KEYS = ['shift+q', 'ctrl+shift+z', 'ctrl+y']

/** What the lines of commands are made from. */
export interface CommandPort {
  readonly room: DeskRoomPort
  readonly acts: ReturnType<typeof useActs>
  readonly holding: { readonly pan: Ref<boolean>; readonly roll: Ref<boolean> }
}

type Line = (
  name: string,
  words: string,
  keys: string[],
  run: () => unknown,
  can?: () => boolean,
  release?: () => unknown,
  shares?: boolean,
) => CommandLine

/** Makes the lines of one group on the sheet of keys. */
const linesOf =
  (group: string): Line =>
  (name, words, keys, run, can = always, release, shares = false) => ({
    name,
    words,
    group,
    keys,
    run,
    can,
    ...(release && { release }),
    ...(shares && { shares }),
  })

const always = () => true
const hold = (what: Ref<boolean>, on: boolean) => () => (what.value = on)

/** When commands of the desk can run. */
function usePermits(room: DeskRoomPort) {
  const shot = useShot()
  const desk = useDesk()
  const draws = () => shot.mayDraw && !room.isPlaying()
  const edits = () => desk.mayEdit && !room.isPlaying()
  const hasDrawing = () => desk.drawing !== null
  return {
    draws,
    edits,
    hasDrawing,
    hasSource: () => edits() && desk.source !== null,
    changes: () => edits() && hasDrawing(),
  }
}

/** How the drawing and its neighbours are looked at. */
function lookLines({ acts, room, holding }: CommandPort): CommandLine[] {
  const line = linesOf('Look')
  const sight = useSight()
  const lamp = useLamp()
  const sound = useSound()
  const clips = useClips()
  return [
    line('see-before', 'see the drawing before, while held', ['s'], () => acts.flip(-1), always, acts.letGo),
    line('see-after', 'see the drawing after, while held', ['f'], () => acts.flip(1), always, acts.letGo),
    line('roll', 'roll through the neighbours, while held, by sliding', ['d'], hold(holding.roll, true), always, () => {
      holding.roll.value = false
      acts.letGo()
    }),
    line('flip-3', 'flip through three, while held', ['shift+s'], () => acts.flipSet(1), always, acts.letGoOfSet),
    line('flip-5', 'flip through five, while held', ['shift+f'], () => acts.flipSet(2), always, acts.letGoOfSet),
    line(
      'wipe',
      'wipe the drawing that shows through over this one, while held',
      ['shift+d'],
      acts.wipe,
      () => lamp.ghosts.past.length + lamp.ghosts.future.length > 0,
      () => (sight.wiped = null),
    ),
    line('mirror', 'see the paper mirrored', ['shift+w'], () => {
      sight.view = { ...sight.view, mirrored: !sight.view.mirrored }
    }),
    line('findings', 'ring what is found on this drawing', ['shift+m'], () => (sight.ringed = !sight.ringed)),
    line('silhouettes', 'see silhouettes only', ['shift+h'], () => (sight.silhouettes = !sight.silhouettes)),
    line('light-table', 'light table on or off', ['w'], () => (lamp.lightTable.on = !lamp.lightTable.on)),
    line('play', 'play and stop', ['space'], room.togglePlay),
    line('beside', 'the loop small beside the paper', ['shift+p'], () => {
      sight.beside = { ...sight.beside, on: !sight.beside.on }
    }),
    line('sound', 'sound is heard, or not', ['shift+n'], () => (sound.on = !sound.on)),
    line('clips', 'clips under the paper, or paper alone', ['shift+g'], () => (clips.away = !clips.away)),
    line('bare', 'bare paper', ['h'], () => (sight.bare = !sight.bare)),
    line('margin', 'fold the margin', ['m'], () => (sight.marginFolded = !sight.marginFolded)),
    line('keys', 'this sheet of keys', ['?'], room.showKeys),
  ]
}

/** Where one goes. */
function goLines({ acts }: CommandPort): CommandLine[] {
  const line = linesOf('Go')
  const desk = useDesk()
  return [
    line('next', 'next to draw, with its two neighbours', ['e'], acts.toNext, () => desk.queue.length > 0),
    line('back', 'drawing before', ['a'], () => acts.toNeighbour(-1)),
    line('on', 'drawing after', ['g'], () => acts.toNeighbour(1)),
    line('up', 'frame before (or nudge what is gathered)', ['arrowup'], () => acts.arrow(0, -1, false)),
    line('down', 'frame after', ['arrowdown'], () => acts.arrow(0, 1, false)),
    line('left', 'layer to the left', ['arrowleft'], () => acts.arrow(-1, 0, false)),
    line('right', 'layer to the right', ['arrowright'], () => acts.arrow(1, 0, false)),
    line('extend-up', 'mark frames upwards (or nudge by 10)', ['shift+arrowup'], () => acts.arrow(0, -1, true)),
    line('extend-down', 'mark frames downwards', ['shift+arrowdown'], () => acts.arrow(0, 1, true)),
    line('far-left', 'mark layers to the left', ['shift+arrowleft'], () => acts.arrow(-1, 0, true)),
    line('far-right', 'mark layers to the right', ['shift+arrowright'], () => acts.arrow(1, 0, true)),
    line('first', 'first frame', ['home'], () => acts.leap('first')),
    line('last', 'last frame', ['end'], () => acts.leap('last')),
    line('second-up', 'a second earlier', ['pageup'], () => acts.leap('second-up')),
    line('second-down', 'a second later', ['pagedown'], () => acts.leap('second-down')),
    line('extend-second-up', 'mark a second upwards', ['shift+pageup'], () => acts.extendBySecond(-1)),
    line('extend-second-down', 'mark a second downwards', ['shift+pagedown'], () => acts.extendBySecond(1)),
    line('go-to', 'go to a frame by its number', ['/'], acts.goToFrame),
    line('skip', 'skip the next to draw', ['u'], acts.skip, () => desk.queue.length > 0),
    line('defer', 'put the next to draw at the end', ['shift+u'], acts.defer, () => desk.queue.length > 1),
  ]
}

/** What is in the hand, and steps back. */
function handLines({ acts, room }: CommandPort): CommandLine[] {
  const line = linesOf('Hand')
  const shot = useShot()
  const kit = useKit()
  const { draws, edits, changes } = usePermits(room)
  return [
    ...TOOL_NAMES.map(name => line(`tool-${name}`, TOOLS[name].says, [TOOLS[name].key], () => (kit.tool = name))),
    line('mark-pass', 'place marks, drawing by drawing', ['n'], acts.markPass, edits),
    line('mark-take', 'place the mark where it is proposed', ['alt+n'], acts.takeProposed, edits),
    line('thinner', 'thinner', ['c'], () => acts.thicken(0.85)),
    line('thicker', 'thicker', ['v'], () => acts.thicken(1.18)),
    line('undo', 'undo', ['q', 'ctrl+z'], acts.undo, () => draws() && shot.history.undo.length > 0),
    line('redo', 'redo', REDO_KEYS, acts.redo, () => draws() && shot.history.redo.length > 0),
    line('delete', 'take off gathered strokes, or clear the drawing', ['delete'], acts.deleteStrokes, changes),
    line('gather-all', 'gather the whole drawing', ['shift+a'], acts.strokes.gatherAll, changes),
    line('let-go', 'let go of what is gathered or marked', ['escape'], acts.dropAll),
  ]
}

/** Drawings on the sheet. */
function drawingLines({ acts, room }: CommandPort): CommandLine[] {
  const line = linesOf('Drawing')
  const desk = useDesk()
  const { hasDrawing, hasSource, edits, changes } = usePermits(room)
  return [
    line('new', 'new empty drawing', ['t'], () => acts.newDrawing('empty'), edits),
    line('copy', 'new drawing as a copy', ['shift+t'], () => acts.newDrawing('copy'), hasSource),
    line(
      'new-blank',
      'new empty drawing, empty frames before it stay empty',
      ['alt+t'],
      () => acts.newDrawing('empty', true),
      edits,
    ),
    line('show', 'show a drawing here by its number', ["'"], acts.showNumber, edits),
    line('share', 'show the same drawing again', ['y'], acts.share, hasSource),
    line(
      'own',
      'its own copy here, other places keep it',
      ['shift+y'],
      acts.own,
      () => changes() && (desk.places > 1 || desk.otherTakes.length > 0),
    ),
    line('role', 'key, breakdown or inbetween', ['b'], acts.nextRole, changes),
    line('history', 'how it was made: earlier versions', ['shift+e'], room.showHistory, hasDrawing),
    line('clear', 'clear: lines off, the sheet stays', ['backspace'], acts.clear, changes),
    line('remove', 'remove: later drawings move up', ['shift+backspace'], acts.remove, edits),
  ]
}

/** Their exposures. */
function sheetLines({ acts, room }: CommandPort): CommandLine[] {
  const line = linesOf('Sheet')
  const shot = useShot()
  const desk = useDesk()
  const sight = useSight()
  const photographs = usePhotographs()
  const { sheet } = acts
  const { draws, edits } = usePermits(room)
  return [
    line('longer', 'hold longer', ['='], () => sheet.hold(1), edits),
    line(
      'shorter',
      'hold shorter',
      ['-'],
      () => sheet.hold(-1),
      () => edits() && (desk.run?.frames ?? 0) > 1,
    ),
    ...EXPOSURES.map((words, i) =>
      line(`on-${i + 1}`, `on ${words}`, [`alt+${i + 1}`], () => sheet.exposeOn(i + 1), edits),
    ),
    line('insert', 'insert frames', ['i'], () => sheet.insertFrames(), draws),
    line('take-out', 'take frames out', ['shift+i'], sheet.removeFrames, draws),
    line('key-earlier', 'move the key (or what is marked) up', ['alt+arrowup'], () => sheet.nudgeKey(-1), edits),
    line('key-later', 'move the key (or what is marked) down', ['alt+arrowdown'], () => sheet.nudgeKey(1), edits),
    line('reverse', 'reverse', ['r'], () => sheet.retimeMarked({ kind: 'reverse' }), edits),
    line('there-and-back', 'there and back', ['shift+r'], () => sheet.retimeMarked({ kind: 'there-and-back' }), edits),
    line('ends-here', 'let the drawing end here', ['k'], () => sheet.trimAt('end'), edits),
    line('begins-here', 'let the drawing begin here', ['shift+k'], () => sheet.trimAt('start'), edits),
    line('hold-next', 'hold to the next drawing', ['\\'], sheet.holdNext, edits),
    line('hold-here', 'hold the drawing before up to here', ['alt+='], () => sheet.holdUp('here'), edits),
    line('hold-end', 'hold to the end of the shot', ['shift+end'], () => sheet.holdUp('end'), edits),
    line('loop-marked', 'loop the marked frames', ['shift+l'], sheet.loopMarked, draws),
    line(
      'tap',
      'tap where exposures begin, while it plays',
      ['enter'],
      room.tap,
      () => room.isPlaying() && shot.mayDraw,
    ),
    line('copy-frames', 'copy frames (or gathered strokes)', ['ctrl+c'], acts.copy),
    line('cut-frames', 'cut frames (or gathered strokes)', ['ctrl+x'], acts.cut, edits),
    line(
      'paste-share',
      'paste the same drawings (or strokes)',
      ['ctrl+v'],
      () => acts.pasteAny('share'),
      edits,
      undefined,
      true,
    ),
    line('paste-copies', 'paste copies', ['ctrl+shift+v'], () => acts.paste('copy'), edits),
    line('bring-in', 'bring pictures, clips or recordings in', ['shift+b'], acts.bringing.choose, draws),
    line('photographs', 'photographed sheets, and the camera over them', ['shift+j'], () => photographs.open(), draws),
    line('mark-all', 'mark the whole sheet', ['ctrl+a'], sheet.markAll),
    line('following', 'later drawings move, or stay', ['p'], () => {
      desk.following = desk.following === 'ripple' ? 'stay' : 'ripple'
    }),
    line('acts', 'everything for marked frames', ['l'], room.showSheetActs, draws),
    line('layers', 'layers', ['o'], room.showLayers),
    line('only', 'see only this layer', ['shift+o'], () => (sight.onlyLayer = !sight.onlyLayer)),
    line('shape', 'sheet as an edge, the whole room, or a strip', ['j'], () => {
      const at = SHEET_SHAPES.indexOf(sight.sheetShape)
      sight.sheetShape = SHEET_SHAPES[(at + 1) % SHEET_SHAPES.length] as SheetShape
    }),
    line('loop-from', 'loop starts here', [','], () => acts.setLoop('from'), draws),
    line('loop-to', 'loop ends here', ['.'], () => acts.setLoop('to'), draws),
  ]
}

/** How the paper lies. */
function paperLines({ holding, room }: CommandPort): CommandLine[] {
  const line = linesOf('Paper')
  const sight = useSight()
  const middle = () => ({ x: room.screen().width / 2, y: room.screen().height / 2 })
  const zoom = (factor: number) => (sight.view = zoomedAt(sight.view, factor, middle(), room.screen()))
  const turn = (byRad: number) => (sight.view = turnedBy(sight.view, byRad))
  return [
    line('pan', 'move the paper, while held', ['z'], hold(holding.pan, true), always, hold(holding.pan, false)),
    line('nearer', 'nearer', ['x'], () => zoom(1.25)),
    line('farther', 'farther', ['shift+x'], () => zoom(0.8)),
    line('turn-left', 'turn to the left', ['['], () => turn(-TURN_STEP_RAD)),
    line('turn-right', 'turn to the right', [']'], () => turn(TURN_STEP_RAD)),
    line('fit', 'whole paper, straight', ['0'], () => (sight.view = { ...FLAT, mirrored: sight.view.mirrored })),
  ]
}

/** The commands of the desk, group by group as they stand on the sheet of keys. */
export const deskLines = (port: CommandPort): CommandLine[] =>
  [lookLines, goLines, handLines, drawingLines, sheetLines, paperLines].flatMap(lines => lines(port))
