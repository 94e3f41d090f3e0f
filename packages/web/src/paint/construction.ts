import { after, IDENTITY, map, scaleOf, type Matrix, type Point } from '@unhurried/core/geometry'
import {
  figureOf,
  type ConstructionSink,
  throughOf,
  type PathLook,
  type Plan,
  type RecipeName,
} from '@unhurried/core/motion'
import type { Brush } from './nibs.ts'
import type { Size } from './view.ts'

/** Writes constructions as thin lines of one width on the screen; `only` leaves out parts of other names; small pictures go without the middles of bodies. */
export function constructionOn(
  brush: Brush,
  matrix: Matrix,
  only: readonly string[] | null = null,
  withMiddles = true,
): ConstructionSink {
  const onScreen = (p: Point) => map(matrix, p)
  const scale = scaleOf(matrix)
  // A mirrored or turned paper turns what is tilted on it.
  const tilted = (rad: number): number => {
    const [x, y] = [
      matrix[0] * Math.cos(rad) + matrix[2] * Math.sin(rad),
      matrix[1] * Math.cos(rad) + matrix[3] * Math.sin(rad),
    ]
    return Math.atan2(y, x)
  }
  const wanted = (part: string) => only === null || only.includes(part)
  const through = (points: readonly Point[]) => {
    brush.beginPath()
    points.forEach((point, i) => {
      const { x, y } = onScreen(point)
      if (i === 0) brush.moveTo(x, y)
      else brush.lineTo(x, y)
    })
    brush.stroke()
  }
  return {
    ellipse(part, at, along, across, tiltRad) {
      if (!wanted(part)) return
      const { x, y } = onScreen(at)
      brush.beginPath()
      brush.ellipse(x, y, along * scale, across * scale, tilted(tiltRad), 0, 2 * Math.PI)
      brush.stroke()
      if (!withMiddles) return
      brush.beginPath()
      brush.moveTo(x - 3, y)
      brush.lineTo(x + 3, y)
      brush.moveTo(x, y - 3)
      brush.lineTo(x, y + 3)
      brush.stroke()
    },
    bend(part, from, control, to) {
      if (!wanted(part)) return
      const [a, c, b] = [onScreen(from), onScreen(control), onScreen(to)]
      brush.save()
      brush.setLineDash([5, 4])
      brush.beginPath()
      brush.moveTo(a.x, a.y)
      brush.quadraticCurveTo(c.x, c.y, b.x, b.y)
      brush.stroke()
      brush.restore()
    },
    line(part, from, to) {
      if (wanted(part)) through([from, to])
    },
    path(part, points, look = 'plain') {
      if (!wanted(part)) return
      const { width, dash } = PATH_LOOKS[look]
      brush.save()
      brush.lineWidth *= width
      brush.setLineDash(dash)
      through(points)
      brush.restore()
    },
    arrow(part, from, to) {
      if (!wanted(part)) return
      through([from, to])
      const [a, b] = [onScreen(from), onScreen(to)]
      const way = Math.atan2(b.y - a.y, b.x - a.x)
      brush.beginPath()
      for (const side of [-1, 1]) {
        brush.moveTo(b.x, b.y)
        brush.lineTo(b.x - BARB_PX * Math.cos(way + side * BARB_RAD), b.y - BARB_PX * Math.sin(way + side * BARB_RAD))
      }
      brush.stroke()
    },
  }
}

const BARB_PX = 7
const BARB_RAD = 0.5

/** Near and far are told apart without hue: strong and whole, and broken. */
const PATH_LOOKS: Readonly<Record<PathLook, { readonly width: number; readonly dash: number[] }>> = {
  plain: { width: 1, dash: [] },
  near: { width: 1.9, dash: [] },
  far: { width: 1, dash: [6, 3] },
  aid: { width: 0.7, dash: [2, 4] },
}

/** A guide as it is seen on a frame of its plan. */
export interface SeenGuide {
  readonly guide: { readonly recipe: RecipeName; readonly dimmed?: boolean }
  readonly plan: Plan<unknown>
  readonly frame: number
  /** the maps by which its layer is laid down on a frame of the plan; null where it lies as it was drawn */
  readonly carried: ((frame: number) => readonly Matrix[]) | null
}

/** How strong a dimmed guide is. */
const DIMMED = 0.35
const GUIDE_COLOUR = '#5f7a3c'

/** Paints constructions over what is on a canvas: the drawing of this frame, and faintly, if wanted, what shows through of all others. */
export function paintConstructions(
  canvas: HTMLCanvasElement,
  matrix: Matrix,
  density: number,
  paper: Size,
  guides: readonly SeenGuide[],
  withOthers = true,
): void {
  const brush = canvas.getContext('2d')
  if (!brush || guides.length === 0) return
  brush.save()
  brush.setTransform(density, 0, 0, density, 0, 0)
  brush.strokeStyle = GUIDE_COLOUR
  for (const { guide, plan, frame, carried } of guides) {
    const on = (at: number): Matrix[] => (carried?.(at) ?? [IDENTITY]).map(one => after(one, matrix))
    brush.save()
    if (plan.path?.closes) keepOnPaper(brush, matrix, paper)
    brush.lineWidth = 1
    const strength = guide.dimmed ? DIMMED : 1
    brush.globalAlpha = 0.3 * strength
    for (const { frame: other } of withOthers ? plan.drawings : [])
      for (const one of on(other))
        figureOf(guide.recipe, plan, other, constructionOn(brush, one, throughOf(guide.recipe)))
    brush.lineWidth = 1.4
    brush.globalAlpha = 0.95 * strength
    for (const one of on(frame)) figureOf(guide.recipe, plan, frame, constructionOn(brush, one))
    brush.restore()
  }
  brush.restore()
}

/** A strip without end is seen in the picture only. */
function keepOnPaper(brush: CanvasRenderingContext2D, matrix: Matrix, { width, height }: Size): void {
  brush.beginPath()
  for (const corner of [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ]) {
    const { x, y } = map(matrix, corner)
    brush.lineTo(x, y)
  }
  brush.clip()
}
