import type { Point } from '@unhurried/core/geometry'

/** Height of a line of labels, and how far they stand off what they name, in screen pixels. */
const HEIGHT_PX = 13
const OFF_PX = 7
/** A sign takes up so much round its place. */
const SIGN_PX = 7
/** So many times farther off a label is tried before it lies where it may. */
const RINGS = 8

interface Box {
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}
const meet = (a: Box, b: Box) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom
const around = ({ x, y }: Point, by: number): Box => ({ left: x - by, top: y - by, right: x + by, bottom: y + by })

/** Something named on the paper: where it lies, and how wide its name is written; in screen pixels. */
export interface Named {
  readonly at: Point
  readonly width: number
}

/**
 * Where names are written: each at its place, by preference to the right above it, so that none lies on another or on what
 * is named. Answers with the left end of each base line, and whether it had to go so far off that a line should lead to it.
 */
export function placeLabels(named: readonly Named[]): { readonly at: Point; readonly far: boolean }[] {
  const taken: Box[] = named.map(one => around(one.at, SIGN_PX))
  return named.map(({ at: { x, y }, width }, i) => {
    const boxAt = (left: number, middle: number): Box => ({
      left,
      top: middle - HEIGHT_PX / 2,
      right: left + width,
      bottom: middle + HEIGHT_PX / 2,
    })
    const others = taken.filter((_, k) => k !== i)
    for (let ring = 0; ring < RINGS; ring++) {
      const off = OFF_PX + ring * HEIGHT_PX
      const tried = [
        boxAt(x + OFF_PX, y - off - 2),
        boxAt(x + OFF_PX, y + off + 2),
        boxAt(x - OFF_PX - width, y - off - 2),
        boxAt(x - OFF_PX - width, y + off + 2),
        boxAt(x + off + 3, y),
        boxAt(x - off - 3 - width, y),
      ]
      const free = tried.find(box => !others.some(other => meet(box, other)))
      if (!free) continue
      taken.push(free)
      return { at: { x: free.left, y: free.bottom - 3 }, far: ring > 0 }
    }
    return { at: { x: x + OFF_PX, y: y - OFF_PX + 1 }, far: false }
  })
}
