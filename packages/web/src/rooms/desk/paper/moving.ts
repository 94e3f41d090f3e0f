import type { Ref } from 'vue'
import type { useSight } from '../../../stores/sight.ts'

/** A finger slides this far, in screen pixels, to roll to the next drawing. */
const ROLL_STEP_PX = 48

/** The paper moved by a pointer that holds it. */
export function panning(sight: ReturnType<typeof useSight>) {
  let from: { x: number; y: number; panX: number; panY: number } | null = null
  return {
    take(event: PointerEvent): void {
      from = { x: event.clientX, y: event.clientY, panX: sight.view.panX, panY: sight.view.panY }
    },
    let: () => void (from = null),
    /** Moves the paper along. Answers whether it is held. */
    move(event: PointerEvent): boolean {
      if (!from) return false
      sight.view = {
        ...sight.view,
        panX: from.panX + (sight.view.mirrored ? -1 : 1) * (event.clientX - from.x),
        panY: from.panY + event.clientY - from.y,
      }
      return true
    },
  }
}

/** Drawings rolled through by sliding, as long as the key for it is held. */
export function rolling(isHeld: Ref<boolean>, rollBy: (steps: number) => void) {
  let from: number | null = null
  /** Rolls as far as the pointer has come. Answers whether the key is held. */
  return (event: PointerEvent): boolean => {
    if (!isHeld.value) {
      from = null
      return false
    }
    from ??= event.clientX
    rollBy(Math.round((event.clientX - from) / ROLL_STEP_PX))
    return true
  }
}
