import { cycleActs } from './cycleActs.ts'
import { frameActs } from './frameActs.ts'
import { useMarking } from './marking.ts'
import { movingActs } from './moving.ts'
import { sheetClipActs } from './sheetClip.ts'
import { timingActs } from './timing.ts'

/** What can be done with frames marked on the sheet, or else with those of the drawing one stands on. */
export function useSheetActs() {
  const marking = useMarking()
  return {
    ...marking,
    ...timingActs(marking),
    ...movingActs(marking),
    ...frameActs(marking),
    ...cycleActs(marking),
    ...sheetClipActs(marking),
  }
}

export type SheetActs = ReturnType<typeof useSheetActs>
