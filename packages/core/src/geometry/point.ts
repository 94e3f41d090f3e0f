/** A place on the paper in pixels, x to the right, y downwards. */
export interface Point {
  readonly x: number
  readonly y: number
}

/** An upright rectangle in pixels; empty when `right < left`. */
export interface Box {
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}

export const EMPTY_BOX: Box = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }

/** Whether a box holds nothing: its sides are crossed. */
export const isEmptyBox = (box: Box): boolean => box.right < box.left

/** The distance of two points, in their unit. Math.hypot would guard against sizes that no paper has, and takes several times as long. */
export const distance = (a: Point, b: Point): number => {
  const dx = b.x - a.x
  const dy = b.y - a.y
  return Math.sqrt(dx * dx + dy * dy)
}

/** The point at the share `t` of the straight way from a to b. */
export const lerp = (a: Point, b: Point, t: number): Point => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t })

/** The smallest box around points; the empty box for none. */
export function boxOf(points: Iterable<Point>): Box {
  let { left, top, right, bottom } = EMPTY_BOX
  for (const { x, y } of points) {
    left = Math.min(left, x)
    top = Math.min(top, y)
    right = Math.max(right, x)
    bottom = Math.max(bottom, y)
  }
  return { left, top, right, bottom }
}

/** The smallest box round two. */
export const unite = (a: Box, b: Box): Box => ({
  left: Math.min(a.left, b.left),
  top: Math.min(a.top, b.top),
  right: Math.max(a.right, b.right),
  bottom: Math.max(a.bottom, b.bottom),
})

/** A box with its sides moved outwards by `by` pixels. */
export const grown = (box: Box, by: number): Box => ({
  left: box.left - by,
  top: box.top - by,
  right: box.right + by,
  bottom: box.bottom + by,
})

/** Whether two boxes share a point, sides included. */
export const boxesMeet = (a: Box, b: Box): boolean =>
  a.left <= b.right && b.left <= a.right && a.top <= b.bottom && b.top <= a.bottom

/** The corners of a box, from the top left one clockwise. */
export const cornersOf = ({ left, top, right, bottom }: Box): Point[] => [
  { x: left, y: top },
  { x: right, y: top },
  { x: right, y: bottom },
  { x: left, y: bottom },
]

/** The middle of a box. */
export const centreOf = (box: Box): Point => ({ x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2 })

/** Distance in pixels from a point to the straight piece a–b. */
export function distanceToPiece(p: Point, a: Point, b: Point): number {
  return distance(p, nearestOnPiece(p, a, b).point)
}

/** Distance in pixels between two straight pieces a–b and c–d; 0 where they cross. */
export function distanceBetweenPieces(a: Point, b: Point, c: Point, d: Point): number {
  const side = (p: Point, q: Point, r: Point) => (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x)
  const cross = side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0
  if (cross) return 0
  return Math.min(
    distanceToPiece(a, c, d),
    distanceToPiece(b, c, d),
    distanceToPiece(c, a, b),
    distanceToPiece(d, a, b),
  )
}

/** The point of the piece a–b nearest to p, and its share `t` (0–1) of the way from a to b. */
export function nearestOnPiece(p: Point, a: Point, b: Point): { point: Point; t: number } {
  const dx = b.x - a.x
  const dy = b.y - a.y
  const square = dx * dx + dy * dy
  const t = square === 0 ? 0 : Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / square))
  return { point: lerp(a, b, t), t }
}

/** Whether a point lies inside a polygon (closed from its last point to its first), by counting crossings. */
export function insidePolygon(p: Point, polygon: readonly Point[]): boolean {
  let inside = false
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
    const a = polygon[i] as Point
    const b = polygon[j] as Point
    if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) inside = !inside
  }
  return inside
}
