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

/** A name to be written at a place on the screen, in a colour. */
export interface WrittenName {
  readonly name: string
  readonly at: Point
  readonly colour: string
}

/** Writes names, none on another; one that stands far off is tied to its place by a line. */
export function writeNames(brush: CanvasRenderingContext2D, names: readonly WrittenName[]): void {
  brush.font = '700 11px "Atkinson Hyperlegible", sans-serif'
  const wide = names.map(one => ({ ...one, width: brush.measureText(one.name).width }))
  placeLabels(wide).forEach(({ at, far }, i) => {
    const { name, colour, at: place, width } = wide[i] as (typeof wide)[number]
    brush.fillStyle = colour
    if (far) {
      brush.strokeStyle = colour
      brush.lineWidth = 0.8
      brush.beginPath()
      brush.moveTo(place.x, place.y)
      brush.lineTo(Math.max(at.x, Math.min(place.x, at.x + width)), at.y - 4)
      brush.stroke()
    }
    brush.strokeStyle = 'rgba(253, 250, 243, 0.85)'
    brush.lineWidth = 3
    brush.strokeText(name, at.x, at.y)
    brush.fillText(name, at.x, at.y)
  })
}
