import { frameOfNeighbour } from '@unhurried/core/document'
import { useShot } from '../../../stores/shot.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useSight } from '../../../stores/sight.ts'
import { useLamp } from '../../../stores/lamp.ts'
import { useAsking } from '../../../stores/asking.ts'

/** Where one goes: to drawings, through the queue, over layers and frames. */
export function useWalking() {
  const shot = useShot()
  const desk = useDesk()
  const sight = useSight()
  const lamp = useLamp()
  const asking = useAsking()

  function toNeighbour(direction: -1 | 1): void {
    const frame = shot.take && frameOfNeighbour(shot.take, desk.layerId, desk.frame, direction)
    if (frame !== null && frame !== undefined) desk.goTo(frame)
  }

  function toNext(): void {
    const [next] = desk.queue
    if (!next) return
    desk.layerId = next.drawing.layer
    desk.goTo(next.frame)
    lamp.parents = { left: next.left?.id ?? null, right: next.right?.id ?? null }
  }

  /** Leaves the next drawing out until one comes back to the shot, and goes to the one after it. */
  function skip(): void {
    const [next] = desk.queue
    if (!next) return
    desk.skipped = new Set([...desk.skipped, next.drawing.id])
    toNext()
  }

  /** Puts the next drawing at the end of the queue. */
  function defer(): void {
    const [next] = desk.queue
    if (!next) return
    desk.deferred = [...desk.deferred.filter(id => id !== next.drawing.id), next.drawing.id]
    toNext()
  }

  function changeLayer(by: -1 | 1): void {
    const order = sight.columns
    const next = order[order.findIndex(layer => layer.id === desk.layerId) + by]
    if (next) {
      desk.layerId = next.id
      desk.selection = null
    }
  }

  /** The frames up to the next whole second, for leaps over the sheet. */
  const second = () => shot.document?.format.fps ?? 24

  function leap(where: 'first' | 'last' | 'second-up' | 'second-down'): void {
    const last = (shot.take?.length ?? 1) - 1
    const to = {
      first: 0,
      last,
      'second-up': desk.frame - second(),
      'second-down': desk.frame + second(),
    }[where]
    desk.selection = null
    desk.goTo(to)
  }

  const goToFrame = () =>
    asking.askNumber('go to a frame', {
      words: 'frame',
      least: 1,
      most: shot.take?.length ?? 1,
      now: desk.frame + 1,
      take(n) {
        desk.selection = null
        desk.goTo(n - 1)
      },
    })

  return { toNeighbour, toNext, skip, defer, changeLayer, second, leap, goToFrame }
}
