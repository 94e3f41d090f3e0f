import { inverse, map, type Matrix } from '../../geometry/matrix.ts'
import { distanceToPiece, type Point } from '../../geometry/point.ts'
import type { Grey } from '../../raster/grey.ts'
import { chance } from '../../raster/tests/chance.ts'

// Looked up once: the runner of tests takes long to find what is global.
const { cos, exp, max, min, PI, round, sin } = Math

/** Lines of a heron, in pixels of a sheet 400 × 300; shivering a little where it is asked to, differently for every seed. */
export function heron(seed = 0, shiver = 0): Point[][] {
  const next = chance(seed)
  const about = (x: number, y: number): Point => ({ x: x + shiver * next(), y: y + shiver * next() })
  const body = Array.from({ length: 13 }, (_, i) => {
    const a = (i / 12) * 2 * PI
    return about(190 + 55 * cos(a), 150 + 30 * sin(a) + 8 * sin(2 * a))
  })
  return [
    [...body.slice(0, -1), body[0] as Point],
    [about(236, 136), about(262, 100), about(250, 74), about(262, 58), about(282, 56), about(318, 66)],
    [about(180, 180), about(176, 222), about(188, 256), about(206, 258)],
    [about(204, 178), about(214, 216), about(206, 262)],
    [about(136, 146), about(112, 164), about(96, 168)],
  ]
}

export interface Photo {
  readonly width?: number
  readonly height?: number
  /** from pixels of the sheet to those of the photograph */
  readonly matrix?: Matrix
  readonly lines?: readonly (readonly Point[])[]
  /** filled rounds, places and radii on the sheet */
  readonly holes?: readonly (Point & { readonly r: number })[]
  /** size of the sheet on a darker table; as large as the photograph where left out */
  readonly sheet?: { readonly width: number; readonly height: number }
  readonly uneven?: number
  readonly noise?: number
  readonly seed?: number
}

/** A made photograph: lines of pencil on paper under a lamp at one side, before a table, with noise. */
export function photo({
  width = 400,
  height = 300,
  matrix = [1, 0, 0, 1, 0, 0],
  lines = [],
  holes = [],
  sheet,
  uneven = 0.45,
  noise = 4,
  seed = 1,
}: Photo): Grey {
  const back = inverse(matrix) as Matrix
  const scale = matrix[0] ** 2 + matrix[1] ** 2
  const next = chance(seed)
  const data = new Uint8Array(width * height)
  const soft = (far: number) => max(0, min(1, 0.5 - far * scale ** 0.5))
  const pieces = lines.flatMap(line => line.slice(1).map((to, i) => [line[i] as Point, to] as const))
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const p = map(back, { x, y })
      let ink = 0
      for (const [a, b] of pieces) {
        if (p.x < min(a.x, b.x) - 4 || p.x > max(a.x, b.x) + 4 || p.y < min(a.y, b.y) - 4 || p.y > max(a.y, b.y) + 4)
          continue
        ink = max(ink, soft(distanceToPiece(p, a, b) - 1.3))
      }
      for (const hole of holes) {
        const far = ((p.x - hole.x) ** 2 + (p.y - hole.y) ** 2) ** 0.5
        if (far < hole.r + 3) ink = max(ink, soft(far - hole.r))
      }
      let paper = 1
      if (sheet) {
        const out = max(-p.x, p.x - sheet.width, -p.y, p.y - sheet.height)
        paper = soft(out)
      }
      const light = 1 - uneven * (x / width) * (0.4 + 0.6 * (y / height)) - 0.12 * exp(-(((x - 90) / 120) ** 2))
      const value = light * (paper * (220 - 165 * ink) + (1 - paper) * 60)
      data[y * width + x] = max(0, min(255, round(value + noise * next())))
    }
  }
  return { width, height, data }
}

/** The map that turns and scales the sheet about a place of it, and shifts it. */
export function moved(
  turnDeg: number,
  scale: number,
  dx: number,
  dy: number,
  about: Point = { x: 200, y: 150 },
): Matrix {
  const a = (turnDeg * PI) / 180
  const [c, s] = [scale * cos(a), scale * sin(a)]
  return [c, s, -s, c, about.x + dx - c * about.x + s * about.y, about.y + dy - s * about.x - c * about.y]
}
