import { linesOf, packSamples, paintedBy, scaleOf, type GlyphStep, type Matrix } from '@unhurried/core/geometry'
import { expose, transfer } from 'comlink'
import svgpath from 'svgpath'
import type { DrawnPiece, DrawnProtocol } from '../protocols/drawn.ts'

/** The steps of a path on the paper: all of them lines and curves to places. */
function stepsOf(d: string, transform: string): GlyphStep[] {
  const steps: GlyphStep[] = []
  svgpath(d)
    .transform(transform)
    .abs()
    .unshort()
    .unarc()
    .iterate((segment, _index, fromX, fromY) => {
      const [name, ...n] = segment as [string, ...number[]]
      const [a = 0, b = 0, c = 0, e = 0, f = 0, g = 0] = n
      switch (name) {
        case 'M':
        case 'L':
          return void steps.push({ type: name, x: a, y: b })
        case 'H':
          return void steps.push({ type: 'L', x: a, y: fromY })
        case 'V':
          return void steps.push({ type: 'L', x: fromX, y: a })
        case 'Q':
          return void steps.push({ type: 'Q', x1: a, y1: b, x: c, y: e })
        case 'C':
          return void steps.push({ type: 'C', x1: a, y1: b, x2: c, y2: e, x: f, y: g })
        default:
          steps.push({ type: 'Z' })
      }
    })
  return steps
}

/** How many times larger something is on the paper, as the root of how much its area grows. */
function growthOf(transform: string): number {
  const at = (d: string) => stepsOf(d, transform)[0] as { x: number; y: number }
  const [o, across, down] = [at('M0 0'), at('M1 0'), at('M0 1')]
  const matrix: Matrix = [across.x - o.x, across.y - o.y, down.x - o.x, down.y - o.y, 0, 0]
  return scaleOf(matrix)
}

const protocol: DrawnProtocol = {
  pieces(paths) {
    const made = paths.flatMap(({ d, transform: through, fill, winding, stroke, width }): DrawnPiece[] => {
      const steps = stepsOf(d, through)
      const painted = fill === null ? [] : paintedBy(steps, winding)
      const lines = stroke === null ? [] : linesOf(steps)
      const widthPx = Math.round(100 * width * growthOf(through)) / 100
      return [
        ...painted.map(one => ({
          kind: 'shape' as const,
          colour: fill as string,
          widthPx: 1,
          samples: packSamples(one),
        })),
        ...lines.map(one => ({ kind: 'line' as const, colour: stroke as string, widthPx, samples: packSamples(one) })),
      ]
    })
    return transfer(
      made,
      made.map(piece => piece.samples.buffer as ArrayBuffer),
    )
  },
}
expose(protocol)
