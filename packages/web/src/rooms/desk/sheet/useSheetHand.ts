import { shallowRef, type Ref } from 'vue'
import type { SheetActs } from '../acts/sheetActs.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'

/** What the pointer drags on the sheet: the end of a hold, or a key. */
export type SheetDrag =
  | {
      readonly kind: 'hold'
      readonly layer: string
      readonly start: number
      readonly frames: number
      readonly was: number
    }
  | {
      readonly kind: 'key'
      readonly layer: string
      readonly drawing: string
      readonly start: number
      readonly to: number
    }

/** How near to the edges of the sheet it begins to scroll under a drag, below the names of the layers. */
const EDGE_PX = 26
const HEAD_PX = 32

/** The pointer on the exposure sheet: a click goes to a frame, dragging marks frames over layers, moves a key, or holds. */
export function useSheetHand(scroller: Ref<HTMLElement | null>, rowPx: Ref<number>, acts: SheetActs) {
  const shot = useShot()
  const desk = useDesk()
  const drag = shallowRef<SheetDrag | null>(null)
  let marking: { frame: number; layer: string } | null = null

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

  function capture(event: PointerEvent): void {
    scroller.value?.setPointerCapture(event.pointerId)
  }

  let rolling = 0
  let last: PointerEvent | null = null
  /** The sheet scrolls under a drag that comes near its upper or lower edge, faster the nearer it comes. */
  function rollAlong(): void {
    rolling = 0
    const box = scroller.value
    if (!box || !last || (!drag.value && !marking)) return
    const { top, bottom } = box.getBoundingClientRect()
    const up = top + HEAD_PX + EDGE_PX - last.clientY
    const down = last.clientY - (bottom - EDGE_PX)
    const by = down > 0 ? down : up > 0 ? -up : 0
    if (by === 0) return
    const before = box.scrollTop
    box.scrollTop += Math.sign(by) * Math.min(rowPx.value, Math.max(2, Math.abs(by) / 2))
    if (box.scrollTop !== before) follow(last)
    rolling = requestAnimationFrame(rollAlong)
  }

  function down(event: PointerEvent, layer: string | null): void {
    if (event.button !== 0) return
    const frame = frameUnder(event)
    const on = layer ?? desk.layerId
    capture(event)
    if (event.shiftKey) {
      acts.markBetween({ frame: desk.frame, layer: desk.layerId }, { frame, layer: on })
      return
    }
    desk.layerId = on
    desk.selection = null
    desk.goTo(frame)
    marking = { layer: on, frame }
  }

  function gripHold(event: PointerEvent, layer: string, start: number, frames: number): void {
    if (event.button !== 0) return
    drag.value = { kind: 'hold', layer, start, frames, was: frames }
    capture(event)
  }

  /** Taken at its number a key is moved; begun on frames that are marked, or with a key held, frames are marked. */
  function gripKey(event: PointerEvent, layer: string, drawing: string, start: number): void {
    const marks = event.shiftKey || event.altKey || event.ctrlKey || isMarked(layer, frameUnder(event))
    down(event, layer)
    if (event.button === 0 && !marks) {
      marking = null
      drag.value = { kind: 'key', layer, drawing, start, to: start }
    }
  }

  const isMarked = (layer: string, frame: number): boolean => {
    const s = desk.selection
    return s !== null && s.layers.includes(layer) && frame >= s.from && frame < s.to
  }

  function move(event: PointerEvent): void {
    if (!drag.value && !marking) return
    last = event
    follow(event)
    if (!rolling) rolling = requestAnimationFrame(rollAlong)
  }

  function follow(event: PointerEvent): void {
    const frame = frameUnder(event)
    const now = drag.value
    if (now?.kind === 'hold') drag.value = { ...now, frames: Math.max(1, frame + 1 - now.start) }
    else if (now?.kind === 'key') drag.value = { ...now, to: frame }
    else if (marking) {
      const here = { frame, layer: layerUnder(event) }
      if (here.frame !== marking.frame || here.layer !== marking.layer || desk.selection) {
        acts.markBetween(marking, here)
      }
    }
  }

  function up(): void {
    const done = drag.value
    drag.value = null
    marking = null
    if (done?.kind === 'hold' && done.frames !== done.was) {
      acts.holdFor(done.layer, done.start, done.frames, done.was)
    } else if (done?.kind === 'key' && done.to !== done.start) acts.moveKeyTo(done.drawing, done.to)
  }

  function cancel(): void {
    drag.value = null
    marking = null
  }

  return { isMarked, drag, down, gripHold, gripKey, move, up, cancel }
}
