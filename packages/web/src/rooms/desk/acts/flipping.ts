import { neighbours } from '@unhurried/core/document'
import { useShot } from '../../../stores/shot.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useSight } from '../../../stores/sight.ts'
import { useLamp } from '../../../stores/lamp.ts'

const FARTHEST_ROLL = 4

/** A drawing is seen this long while a set is flipped through: paper between fingers. */
const FLIP_MS = 150

/** Neighbours are seen instead of the present drawing, or wiped over it, while a key is held. */
export function useFlipping() {
  const shot = useShot()
  const desk = useDesk()
  const sight = useSight()
  const lamp = useLamp()

  function flip(direction: -1 | 1, steps = 1): void {
    if (!shot.document || !shot.take) return
    const round = lamp.lightTable.wrap ? desk.loop : null
    const ids = neighbours(shot.document, shot.take, desk.layerId, desk.frame, direction, steps, round)
    sight.flippedTo = ids[ids.length - 1] ?? null
  }

  const letGo = () => (sight.flippedTo = null)

  /** Rolls through the neighbours: negative is back, 0 the present drawing. */
  function rollBy(steps: number): void {
    const bounded = Math.max(-FARTHEST_ROLL, Math.min(FARTHEST_ROLL, steps))
    if (bounded === 0) letGo()
    else flip(bounded < 0 ? -1 : 1, Math.abs(bounded))
  }

  let flipping: ReturnType<typeof setInterval> | undefined

  /** Flips through this drawing and its neighbours, there and back, until let go: `reach` to either side. */
  function flipSet(reach: 1 | 2): void {
    const there = Array.from({ length: 2 * reach + 1 }, (_, i) => i - reach)
    const turn = [...there, ...there.slice(1, -1).reverse()]
    let at = reach
    clearInterval(flipping)
    flipping = setInterval(() => {
      at = (at + 1) % turn.length
      rollBy(turn[at] as number)
    }, FLIP_MS)
  }

  function letGoOfSet(): void {
    clearInterval(flipping)
    letGo()
  }

  /** Lays the nearest drawing that shows through beside the present one, to be wiped over it. */
  function wipe(): void {
    const other = lamp.pinned[0] ?? lamp.ghosts.past[0] ?? lamp.ghosts.future[0]
    if (other) sight.wiped = { drawing: other, x: -1 }
  }

  return { flip, letGo, rollBy, flipSet, letGoOfSet, wipe }
}
