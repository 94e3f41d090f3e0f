import type { Ref } from 'vue'
import type { useSight } from '../../../stores/sight.ts'
import { turnedAt, zoomedAt, type Size } from '../../../paint/view.ts'

/** A pen near the paper within this time means that what touches it is the side of a hand. */
const PALM_MS = 600

interface Place {
  readonly x: number
  readonly y: number
}

/** Fingers move the paper: one shifts it, two bring it nearer and turn it as well. A resting palm does nothing. */
export function useFingers(
  sight: ReturnType<typeof useSight>,
  screen: Ref<Size>,
  origin: () => { left: number; top: number },
) {
  const down = new Map<number, Place>()
  let penAt = -Infinity

  const placeOf = (event: PointerEvent): Place => {
    const { left, top } = origin()
    return { x: event.clientX - left, y: event.clientY - top }
  }

  return {
    count: () => down.size,
    /** A pen was seen: fingers are let go of, and none is taken for a while. */
    penSeen(event: PointerEvent): void {
      penAt = event.timeStamp
      down.clear()
    },
    isPalm: (event: PointerEvent) => event.timeStamp - penAt < PALM_MS,
    take(event: PointerEvent): void {
      if (down.size < 2) down.set(event.pointerId, placeOf(event))
    },
    /** True when the pointer is a finger that moves the paper. */
    move(event: PointerEvent): boolean {
      const was = down.get(event.pointerId)
      if (!was) return false
      const now = placeOf(event)
      const other = [...down].find(([id]) => id !== event.pointerId)?.[1]
      down.set(event.pointerId, now)
      const share = other ? 0.5 : 1
      const side = sight.view.mirrored ? -1 : 1
      sight.view = {
        ...sight.view,
        panX: sight.view.panX + side * share * (now.x - was.x),
        panY: sight.view.panY + share * (now.y - was.y),
      }
      if (!other) return true
      const before = { x: was.x - other.x, y: was.y - other.y }
      const after = { x: now.x - other.x, y: now.y - other.y }
      const [r0, r1] = [Math.hypot(before.x, before.y), Math.hypot(after.x, after.y)]
      if (r0 < 1 || r1 < 1) return true
      const middle = { x: (now.x + other.x) / 2, y: (now.y + other.y) / 2 }
      const turn = Math.atan2(before.x * after.y - before.y * after.x, before.x * after.x + before.y * after.y)
      sight.view = turnedAt(zoomedAt(sight.view, r1 / r0, middle, screen.value), turn, middle, screen.value)
      return true
    },
    let: (event: PointerEvent) => down.delete(event.pointerId),
  }
}
