import type { Ref } from 'vue'
import type { useDesk } from '../../../stores/desk.ts'
import type { useShot } from '../../../stores/shot.ts'

/** How near to the edges of the sheet it begins to scroll under a drag, below the names of the layers. */
const EDGE_PX = 26
const HEAD_PX = 32

/** The place of the sheet that a pointer is over. */
export function placeUnder(
  scroller: Ref<HTMLElement | null>,
  rowPx: Ref<number>,
  shot: ReturnType<typeof useShot>,
  desk: ReturnType<typeof useDesk>,
) {
  function frameUnder(event: PointerEvent): number {
    const box = scroller.value
    const strip = box?.querySelector('[data-strip]')
    if (!strip) return 0
    const y = event.clientY - strip.getBoundingClientRect().top
    return Math.max(0, Math.min((shot.take?.length ?? 1) - 1, Math.floor(y / rowPx.value)))
  }

  function layerUnder(event: PointerEvent): string {
    const columns = scroller.value?.querySelectorAll<HTMLElement>('[data-layer]') ?? []
    for (const column of columns) {
      const { left, right } = column.getBoundingClientRect()
      if (event.clientX >= left && event.clientX < right) return column.dataset.layer ?? desk.layerId
    }
    return desk.layerId
  }

  return { frameUnder, layerUnder }
}

/**
 * The sheet scrolls under a drag that comes near its upper or lower edge, faster the nearer it comes; `follow` is called with
 * every move, and once more whenever the sheet has gone on under a pointer that rests. `isDragging` ends it.
 */
export function rollsAlong(
  scroller: Ref<HTMLElement | null>,
  rowPx: Ref<number>,
  isDragging: () => boolean,
  follow: (event: PointerEvent) => void,
) {
  let due = 0
  let last: PointerEvent | null = null

  function roll(): void {
    due = 0
    const box = scroller.value
    if (!box || !last || !isDragging()) return
    const { top, bottom } = box.getBoundingClientRect()
    const up = top + HEAD_PX + EDGE_PX - last.clientY
    const down = last.clientY - (bottom - EDGE_PX)
    const by = down > 0 ? down : up > 0 ? -up : 0
    if (by === 0) return
    const before = box.scrollTop
    box.scrollTop += Math.sign(by) * Math.min(rowPx.value, Math.max(2, Math.abs(by) / 2))
    if (box.scrollTop !== before) follow(last)
    due = requestAnimationFrame(roll)
  }

  return (event: PointerEvent): void => {
    if (!isDragging()) return
    last = event
    follow(event)
    if (!due) due = requestAnimationFrame(roll)
  }
}
