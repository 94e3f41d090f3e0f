import { after, IDENTITY, map, type Matrix, type Point } from '@unhurried/core/geometry'
import { figureOf, type ConstructionSink } from '@unhurried/core/motion'
import type { SeenGuide } from './construction.ts'
import type { WrittenName } from './labels.ts'

/** A part of a construction, and a place on it, in paper pixels. */
export interface NamedPart {
  readonly name: string
  readonly at: Point
}

/** The parts of a construction on a frame of its plan, each once: bodies by their middle, lines and paths by half their points. */
export function partsOf({ guide, plan, frame }: Pick<SeenGuide, 'guide' | 'plan' | 'frame'>): NamedPart[] {
  const found = new Map<string, Point>()
  const note = (part: string, at: Point | undefined): void => {
    if (at && !found.has(part)) found.set(part, at)
  }
  const sink: ConstructionSink = {
    ellipse: (part, at) => note(part, at),
    bend: (part, _from, control) => note(part, control),
    line: (part, from, to) => note(part, { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }),
    path: (part, points) => note(part, points[Math.floor(points.length / 2)]),
    arrow: (part, _from, to) => note(part, to),
  }
  figureOf(guide.recipe, plan, frame, sink)
  return [...found].map(([name, at]) => ({ name, at }))
}

const NAME_COLOUR = '#4d6631'

/** The names of the parts of constructions as they lie on the screen; `matrix` maps the picture there. */
export const partNames = (matrix: Matrix, guides: readonly SeenGuide[]): WrittenName[] =>
  guides.flatMap(seen => {
    const [first = IDENTITY] = seen.carried?.(seen.frame) ?? []
    const on = after(first, matrix)
    return partsOf(seen).map(({ name, at }) => ({ name, at: map(on, at), colour: NAME_COLOUR }))
  })
