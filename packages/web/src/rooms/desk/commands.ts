import { computed, ref } from 'vue'
import { commandsOf } from '../../keys/command.ts'
import type { Size } from '../../paint/view.ts'
import { useActs } from './acts/acts.ts'
import { deskLines } from './lines.ts'

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

/** Everything the desk can be told to do. */
export function useCommands(room: DeskRoomPort) {
  const holding = { pan: ref(false), roll: ref(false) }
  const acts = useActs()
  const { sheet } = acts
  return {
    ...commandsOf('desk', deskLines({ room, acts, holding })),
    holding,
    rollBy: acts.rollBy,
    setRole: acts.setRole,
    sheet,
    strokes: acts.strokes,
    bring: acts.bringing.bring,
    marked: computed(sheet.marked),
  }
}

export type Commands = ReturnType<typeof useCommands>
