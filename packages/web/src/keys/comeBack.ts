import { useEventListener } from '@vueuse/core'

/** What keeps the keyboard while it is open. */
const KEEPS = '[role="dialog"], .el-popper, .el-select-dropdown'
const PRESSED = 'button, [role="button"], [role="tab"], [role="switch"], input[type="checkbox"], input[type="radio"]'

const letGo = (element: Element | null) => {
  if (element instanceof HTMLElement && element !== document.body) element.blur()
}

/**
 * The keyboard comes back to the desk: after a button was pressed with the pointer, and after Enter in a field, keys mean the
 * desk again. Who goes through buttons with the Tab key keeps the place; dialogs and what is open over the desk keep it too.
 */
export function useComeBack(): void {
  useEventListener(window, 'click', (event: MouseEvent) => {
    // A press of Enter or Space on a button comes as a click of no place.
    if (event.detail === 0 || !(event.target instanceof Element)) return
    const pressed = event.target.closest(PRESSED)
    if (pressed && !pressed.closest(KEEPS))
      setTimeout(() => pressed.contains(document.activeElement) && letGo(document.activeElement))
  })
  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    const { target } = event
    if (event.key !== 'Enter' || !(target instanceof HTMLInputElement) || target.closest(KEEPS)) return
    setTimeout(() => document.activeElement === target && letGo(target))
  })
}

/** Whether something is open over the desk that a press outside closes; what is closing already is not. */
export const isSomethingOpen = (): boolean =>
  [...document.querySelectorAll('.el-popper[aria-hidden="false"]:not([class*="leave-active"])')].some(
    popper => popper.getAttribute('role') !== 'tooltip' || popper.querySelector('button, input') !== null,
  )
