import { commandsOf, type CommandLine } from '../../keys/command.ts'
import { useDesk } from '../../stores/desk.ts'
import { useShot } from '../../stores/shot.ts'
import type { Measuring } from './useMeasuring.ts'

/** What the room adds. */
export interface MeasureRoomPort {
  readonly measuring: Measuring
  accept(): void
  openDesk(): void
  print(): void
  showKeys(): void
}

/** Everything of the measuring room by one key each, laid out for the free hand. */
export function useMeasureCommands({ measuring, accept, openDesk, print, showKeys }: MeasureRoomPort) {
  const desk = useDesk()
  const shot = useShot()
  const make = (group: string, name: string, words: string, keys: string[], run: () => unknown): CommandLine => ({
    name,
    words,
    group,
    keys,
    run,
  })
  return commandsOf('measure', [
    make('Findings', 'next', 'the next finding', ['e'], () => measuring.step(1)),
    make('Findings', 'before', 'the finding before', ['w'], () => measuring.step(-1)),
    make('Findings', 'fix', 'put it right, where that is one step', ['f'], () => measuring.doFix()),
    make('Findings', 'other-fix', 'put it right another way, where there is one', ['shift+f'], () =>
      measuring.doOther(),
    ),
    make('Findings', 'accept', 'it is meant so', ['a'], accept),
    make('Findings', 'desk', 'to the desk, on this frame', ['d'], openDesk),
    make('Go', 'frame-before', 'frame before', ['arrowup', 'arrowleft'], () => desk.goTo(desk.frame - 1)),
    make('Go', 'frame-after', 'frame after', ['arrowdown', 'arrowright'], () => desk.goTo(desk.frame + 1)),
    make('Hand', 'undo', 'undo', ['q', 'ctrl+z'], () => shot.mayDraw && shot.undo()),
    make('Hand', 'redo', 'redo', ['shift+q', 'ctrl+shift+z', 'ctrl+y'], () => shot.mayDraw && shot.redo()),
    make('See', 'report', 'a report on paper', ['p'], print),
    make('See', 'help', 'this sheet of keys', ['?'], showKeys),
  ])
}
