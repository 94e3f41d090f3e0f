import { sheetsUnder } from '@unhurried/core/document'
import { after, reflection, rotation, scaling, translation, type Matrix } from '@unhurried/core/geometry'
import { addedCopies, gatheredEdit, type Change } from '../../../strokes/gathered.ts'
import { useShot } from '../../../stores/shot.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import type { Gathering } from './gathering.ts'

/** What strokes are mirrored across: an upright or a level line, or one at so many degrees, rising to the right as seen. */
type Axis = 'upright' | 'level' | number

/** What is gathered is moved, scaled, turned, skewed, mirrored and bent. */
export function strokeMoves({ gathered, pivot, rename }: Gathering) {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()

  /** Moves, scales, turns, skews, mirrors or bends what is gathered. */
  function change(label: string, how: Change, joins = false): boolean {
    if (!desk.mayEdit) return false
    const { document } = shot
    if (!document) return false
    const edit = gatheredEdit(kit.changed, shot.book, kit.gathered, how, line => sheetsUnder(document, line))
    if (shot.commit(`${label} ${kit.changedWords}`, edit.ops, { samples: edit.samples, joins })) return false
    rename(edit.renamed)
    return true
  }

  const mapBy = (label: string, by: Matrix) => change(label, { kind: 'map', by })

  function nudge(dx: number, dy: number): void {
    const done = change('nudge', { kind: 'map', by: translation(dx, dy) }, true)
    if (done) kit.nudged = { x: kit.nudged.x + dx, y: kit.nudged.y + dy }
  }

  /** Typed numbers: pixels, per cent, degrees (clockwise), in this order and about the pivot. */
  function byNumbers(n: { dx: number; dy: number; width: number; height: number; turn: number; skew: number }): void {
    const about = pivot()
    const skew = Math.tan((n.skew * Math.PI) / 180)
    const skewed: Matrix = [1, 0, -skew, 1, skew * about.y, 0]
    const scaled = after(scaling(n.width / 100, n.height / 100, about), skewed)
    const turned = after(scaled, rotation((n.turn * Math.PI) / 180, about))
    mapBy('by numbers', after(turned, translation(n.dx, n.dy)))
  }

  function mirrorMap(axis: Axis): Matrix {
    if (axis === 'upright') return scaling(-1, 1, pivot())
    return axis === 'level' ? scaling(1, -1, pivot()) : reflection((-axis * Math.PI) / 180, pivot())
  }

  function duplicateMirrored(axis: Axis): void {
    const by = mirrorMap(axis)
    const added = gathered().map(({ drawing, elements }) => addedCopies(drawing, elements, by))
    if (
      !shot.commit(
        `mirrored copy ${kit.changedWords}`,
        added.flatMap(one => one.ops),
      )
    )
      kit.gather(added.flatMap(one => one.ids))
  }

  return {
    change,
    mapBy,
    nudge,
    byNumbers,
    mirror: (axis: Axis) => mapBy('mirror', mirrorMap(axis)),
    duplicateMirrored,
  }
}
