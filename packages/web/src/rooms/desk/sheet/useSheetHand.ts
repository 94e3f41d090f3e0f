import { shallowRef, type Ref } from 'vue'
import type { SheetActs } from '../acts/sheetActs.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'
import { placeUnder, rollsAlong } from './onSheet.ts'

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

/** The pointer on the exposure sheet: a click goes to a frame, dragging marks frames over layers, moves a key, or holds. */
export function useSheetHand(scroller: Ref<HTMLElement | null>, rowPx: Ref<number>, acts: SheetActs) {
  const shot = useShot()
  const desk = useDesk()
  const drag = shallowRef<SheetDrag | null>(null)
  const { frameUnder, layerUnder } = placeUnder(scroller, rowPx, shot, desk)
  let marking: { frame: number; layer: string } | null = null

  function capture(event: PointerEvent): void {
    scroller.value?.setPointerCapture(event.pointerId)
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

  const move = rollsAlong(scroller, rowPx, () => drag.value !== null || marking !== null, follow)

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
