import { after, inverse, map, type Matrix, type Point } from '@unhurried/core/geometry'

/** How the paper lies on the desk. */
export interface View {
  /** 1 shows the whole paper; 2 twice as large */
  readonly zoom: number
  /** turned clockwise, radians */
  readonly turnRad: number
  /** middle of the screen away from the middle of the paper, in screen pixels */
  readonly panX: number
  readonly panY: number
  /** left and right seen the other way round: errors of drawing show themselves */
  readonly mirrored: boolean
}

export const FLAT: View = { zoom: 1, turnRad: 0, panX: 0, panY: 0, mirrored: false }

export interface Size {
  readonly width: number
  readonly height: number
}

const MARGIN_PX = 26
export const LEAST_ZOOM = 0.1
export const MOST_ZOOM = 24

/** Screen pixels to a paper pixel at zoom 1: the whole paper with a margin round it. */
export function fitScale(screen: Size, paper: Size): number {
  const wide = (screen.width - 2 * MARGIN_PX) / paper.width
  const high = (screen.height - 2 * MARGIN_PX) / paper.height
  return Math.max(0.01, Math.min(wide, high))
}

/** The map from paper pixels to screen pixels. */
export function paperToScreen(view: View, screen: Size, paper: Size): Matrix {
  const s = fitScale(screen, paper) * view.zoom
  const [c, n] = [Math.cos(view.turnRad) * s, Math.sin(view.turnRad) * s]
  const cx = screen.width / 2 + view.panX
  const cy = screen.height / 2 + view.panY
  const [px, py] = [paper.width / 2, paper.height / 2]
  const straight = view.turnRad === 0
  const e = cx - c * px + n * py
  const f = cy - n * px - c * py
  // On a straight paper whole pixels keep lines crisp.
  const seen: Matrix = straight ? [c, 0, 0, c, Math.round(e), Math.round(f)] : [c, n, -n, c, e, f]
  return view.mirrored ? after(seen, [-1, 0, 0, 1, screen.width, 0]) : seen
}

/** A place on the screen as a place on the paper. */
export function toPaper(matrix: Matrix, p: Point): Point {
  const back = inverse(matrix)
  return back ? map(back, p) : p
}

/** Zooms by a factor so that the paper under `at` (screen pixels) stays where it is. */
export function zoomedAt(view: View, factor: number, at: Point, screen: Size): View {
  const zoom = Math.max(LEAST_ZOOM, Math.min(MOST_ZOOM, view.zoom * factor))
  const real = zoom / view.zoom
  const dx = (view.mirrored ? -1 : 1) * (at.x - screen.width / 2)
  const dy = at.y - screen.height / 2
  return { ...view, zoom, panX: dx - (dx - view.panX) * real, panY: dy - (dy - view.panY) * real }
}

/** Turns the paper about a place on the screen, clockwise as seen. */
export function turnedAt(view: View, byRad: number, at: Point, screen: Size): View {
  const [x, y] = [(view.mirrored ? -1 : 1) * (at.x - screen.width / 2), at.y - screen.height / 2]
  const turned = turnedBy({ ...view, panX: view.panX - x, panY: view.panY - y }, byRad)
  return { ...turned, panX: turned.panX + x, panY: turned.panY + y }
}

/** Turns the paper about the middle of the screen, clockwise as seen. */
export function turnedBy(view: View, seenRad: number): View {
  const byRad = view.mirrored ? -seenRad : seenRad
  const [c, s] = [Math.cos(byRad), Math.sin(byRad)]
  const full = 2 * Math.PI
  const turnRad = ((((view.turnRad + byRad + Math.PI) % full) + full) % full) - Math.PI
  const flat = Math.abs(turnRad) < 0.005 ? 0 : turnRad
  return { ...view, turnRad: flat, panX: c * view.panX - s * view.panY, panY: s * view.panX + c * view.panY }
}
