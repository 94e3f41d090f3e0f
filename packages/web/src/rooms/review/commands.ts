import { commandsOf, type CommandLine } from '../../keys/command.ts'
import { useShot } from '../../stores/shot.ts'
import type { Looking } from './useLooking.ts'

/** What the room adds. */
export interface ReviewPort {
  readonly looking: Looking
  remark(): void
  answer(): void
  close(): void
  again(): void
  openDesk(): void
  showKeys(): void
}

const PAN_PX = 80

/** Everything of looking through by one key each, under the free hand. */
export function useReviewCommands({ looking, ...port }: ReviewPort) {
  const shot = useShot()
  const make = (group: string, name: string, words: string, keys: string[], run: () => unknown): CommandLine => ({
    name,
    words,
    group,
    keys,
    run,
  })
  return commandsOf('review', [
    make('Looking', 'on', 'seen: on to the next part, or drawing', ['e'], looking.onwards),
    make('Looking', 'back', 'back', ['w'], looking.backwards),
    make('Looking', 'again', 'look at this again', ['r'], port.again),
    make('Looking', 'nearer', 'nearer', ['='], looking.nearer),
    make('Looking', 'farther', 'farther, down to 100 %', ['-'], looking.farther),
    make('Go', 'left', 'move to the left', ['arrowleft'], () => looking.move(-PAN_PX, 0)),
    make('Go', 'right', 'move to the right', ['arrowright'], () => looking.move(PAN_PX, 0)),
    make('Go', 'up', 'move up', ['arrowup'], () => looking.move(0, -PAN_PX)),
    make('Go', 'down', 'move down', ['arrowdown'], () => looking.move(0, PAN_PX)),
    make('Remarks', 'remark', 'remark something here', ['a'], port.remark),
    make('Remarks', 'answer', 'answer the first remark here', ['s'], port.answer),
    make('Remarks', 'close', 'close the first open remark here', ['c'], port.close),
    make('Hand', 'desk', 'to the desk, on this frame', ['d'], port.openDesk),
    make('Hand', 'undo', 'undo', ['q', 'ctrl+z'], () => shot.undo()),
    make('Hand', 'redo', 'redo', ['shift+q', 'ctrl+shift+z', 'ctrl+y'], () => shot.redo()),
    make('See', 'help', 'this sheet of keys', ['?'], port.showKeys),
  ])
}
