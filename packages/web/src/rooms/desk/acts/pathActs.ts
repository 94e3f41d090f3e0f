import { exposedDrawing, exposures, isBlank, layPath } from '@unhurried/core/document'
import { centreOf, isEmptyBox, type Point } from '@unhurried/core/geometry'
import {
  refusePath,
  restingPath,
  withKey,
  withoutKey,
  type LayerPath,
  type PathKey,
  type Placing,
} from '@unhurried/core/path'
import { useCarried } from '../../../stores/carried.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'
import { LOCKED } from '../../../words/refusals.ts'

/** How the layer in the hand moves as a whole: what is done with its path. A tied layer goes along with the one it follows. */
export function usePathActs() {
  const shot = useShot()
  const desk = useDesk()
  const carried = useCarried()

  /** the layer and the frame on which the hand moved it last */
  let movedAt = ''

  /** Whether the layer whose time one is in may be moved. */
  const mayMove = (): boolean => shot.mayDraw && shot.document?.layers[desk.timedLayer]?.locked === false

  /** The middle of what the layer shows here, or first: what it would turn about, pixels of its drawings. */
  function middle(): Point | null {
    const { document, take } = shot
    if (!document || !take) return null
    const shown = exposures(take, desk.timedLayer).map(run => shot.drawing(run.drawing))
    const drawn = [exposedDrawing(document, take, desk.timedLayer, desk.frame), ...shown].find(
      one => one && !isBlank(one),
    )
    const box = drawn && shot.book.boxOf(drawn)
    if (!box || isEmptyBox(box)) return null
    const { x, y } = centreOf(box)
    return { x: Math.round(x), y: Math.round(y) }
  }

  /** The path as it is, or one that rests. */
  function now(): LayerPath {
    if (carried.path) return carried.path
    const { width = 1, height = 1 } = shot.document?.format ?? {}
    const resting = restingPath(width, height)
    return { ...resting, pivot: middle() ?? resting.pivot }
  }

  function commit(path: LayerPath | null, joins = false): string | null {
    carried.draft = null
    const fault = path && refusePath(path)
    if (fault) return `${fault}: out of bounds`
    if (!mayMove()) return (shot.notice = LOCKED)
    const name = shot.document?.layers[desk.timedLayer]?.name ?? ''
    const ops = shot.take ? layPath(shot.take, desk.timedLayer, path) : []
    if (ops.length) shot.commit(path ? `${name} moves` : `${name} lies still`, ops, { joins })
    return null
  }

  return {
    mayMove,
    now,
    /** Changes what holds for all of the path. Answers why not, or null. */
    change: (patch: Partial<LayerPath>) => commit({ ...now(), ...patch }),
    /** Puts the layer somewhere on the present frame, or spaces the way from there otherwise. */
    place: (place: Partial<Placing>) => commit(withKey(now(), desk.frame, place)),
    /** Spaces the way from the place that holds now to the next one. */
    space(frame: number, patch: Partial<Pick<PathKey, 'wish' | 'halves'>>) {
      const path = now()
      return commit({ ...path, keys: path.keys.map(key => (key.frame === frame ? { ...key, ...patch } : key)) })
    },
    /** Takes the place on a frame out; with the last one the layer lies still. */
    takeOut: (frame: number) => commit(withoutKey(now(), frame)),
    lieStill: () => commit(null),
    /** Shows the layer where the hand has it. */
    draft(place: Partial<Placing>) {
      const path = withKey(now(), desk.frame, place)
      if (mayMove() && refusePath(path) === null) carried.draft = { layer: desk.timedLayer, path }
    },
    /** Takes in what the hand had; several in a row on one frame are one step. */
    commitDraft() {
      const held = carried.draft
      const at = `${desk.timedLayer} ${desk.frame}`
      if (held?.layer === desk.timedLayer) commit(held.path, movedAt === at)
      movedAt = at
      carried.draft = null
    },
    dropDraft: () => (carried.draft = null),
  }
}
