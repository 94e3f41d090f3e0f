import type { Ref } from 'vue'
import { useHabits } from '../../../stores/habits.ts'
import { useKit } from '../../../stores/kit.ts'
import { toolNamed, type ToolName } from '../../../tools/table.ts'

/** Buttons of a pointer event: the eraser end of a pen. */
const ERASER_BUTTON = 5
/** The side button of a pen: as the button pressed, or among those held when the tip comes down. */
const SIDE_BUTTON = 2
const SIDE_HELD = 2

/** What the buttons of a pointer mean; `panning` while the key that moves the paper is held. */
export function usePointerMeaning(panning: Ref<boolean>) {
  const habits = useHabits()
  const kit = useKit()

  /** What the pointer takes in the hand: the tool in use, a rubber at the other end of the pen, or what its button is for. */
  function toolOf(event: PointerEvent): ToolName | null {
    if (event.pointerType === 'pen' && event.button === ERASER_BUTTON) return 'rub-out'
    if (withSideButton(event) && habits.sideButton !== 'nothing') {
      return habits.sideButton === 'paper' ? null : habits.sideButton
    }
    return event.button === 0 || withSideButton(event) ? toolNamed(kit.tool) : null
  }

  const withSideButton = ({ pointerType, button, buttons }: PointerEvent) =>
    pointerType === 'pen' && (button === SIDE_BUTTON || (button === 0 && (buttons & SIDE_HELD) !== 0))
  const movesPaper = (event: PointerEvent) =>
    panning.value || event.button === 1 || (withSideButton(event) && habits.sideButton === 'paper')

  return { toolOf, movesPaper }
}
