import { map, type Matrix, type Point } from '@unhurried/core/geometry'

/** A place where the chart wants a drawing's middle. */
export interface GuideMark {
  readonly at: Point
  readonly present: boolean
}

/** Marks over the drawing, never part of it. */
export interface Guides {
  /** the way from key to key, fine enough to be drawn as dots */
  readonly way: readonly Point[]
  readonly marks: readonly GuideMark[]
  /** where the present drawing's middle really lies */
  readonly middle: Point | null
}

const GREEN = '#3c6a55'
const RUST = '#a44d24'
const ARM_PX = 6

/** Paints guides at a constant size on the screen, however near the paper is. */
export function paintGuides(canvas: HTMLCanvasElement, matrix: Matrix, density: number, guides: Guides): void {
  const brush = canvas.getContext('2d')
  if (!brush) return
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.clearRect(0, 0, canvas.width, canvas.height)
  brush.setTransform(density, 0, 0, density, 0, 0)
  const onScreen = (p: Point) => map(matrix, p)

  brush.strokeStyle = GREEN
  brush.globalAlpha = 0.75
  brush.lineWidth = 1.1
  brush.setLineDash([1.5, 4])
  brush.beginPath()
  guides.way.map(onScreen).forEach((p, i) => (i === 0 ? brush.moveTo(p.x, p.y) : brush.lineTo(p.x, p.y)))
  brush.stroke()
  brush.setLineDash([])

  for (const mark of guides.marks) {
    const { x, y } = onScreen(mark.at)
    brush.globalAlpha = mark.present ? 1 : 0.7
    brush.lineWidth = mark.present ? 2.2 : 1.1
    brush.beginPath()
    brush.moveTo(x - ARM_PX, y)
    brush.lineTo(x + ARM_PX, y)
    brush.moveTo(x, y - ARM_PX)
    brush.lineTo(x, y + ARM_PX)
    brush.stroke()
  }
  if (guides.middle) {
    const { x, y } = onScreen(guides.middle)
    brush.globalAlpha = 1
    brush.fillStyle = RUST
    brush.beginPath()
    brush.arc(x, y, 3, 0, 2 * Math.PI)
    brush.fill()
  }
  brush.globalAlpha = 1
}
