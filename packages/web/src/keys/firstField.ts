import { useEventListener } from '@vueuse/core'

const FIELD = 'input:not([type="hidden"], [disabled]), textarea:not([disabled]), select:not([disabled])'

/** Dialogs put the hand into their first field: what is opened takes the focus on itself, and hands it on. */
export function useFirstField(): void {
  useEventListener(document, 'focusin', (event: FocusEvent) => {
    const { target } = event
    if (!(target instanceof HTMLElement) || !target.matches('.el-dialog, .el-overlay-dialog, .el-dialog__headerbtn'))
      return
    const dialog = target.closest('.el-overlay-dialog, .el-dialog') ?? target
    // Only as it opens: who goes back to the cross with the Tab key means the cross.
    if (event.relatedTarget instanceof HTMLElement && dialog.contains(event.relatedTarget)) return
    const first =
      dialog.querySelector<HTMLElement>('[data-first]') ??
      dialog.querySelector<HTMLElement>(`.el-dialog__body :is(${FIELD}), .el-dialog__body button`)
    if (first) setTimeout(() => first.focus())
  })
}
