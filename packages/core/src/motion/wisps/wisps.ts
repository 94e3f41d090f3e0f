import type { Point } from '../../geometry/point.ts'
import { chance, PLAIN_PLAN } from '../plain.ts'
import { drawingOf, oneByOne, shownOn, snap, type Plan, type Recipe } from '../recipe.ts'
import { refuseWisps, wispDefaults, type WispNumbers } from './numbers.ts'

/** Wisps worked out. */
export interface WispPlan extends Plan<WispNumbers> {
  /** wisps that pass a place in one turn of the cycle */
  readonly passes: number
  /** px from drawing to drawing, as it was taken */
  readonly rise: number
}

/** One wisp on a drawing: its middle line from below upwards, and half its thickness along it; broken where it is 0. */
export interface Wisp {
  readonly name: string
  readonly spine: readonly Point[]
  readonly halves: readonly number[]
}

/** What eyes make of wisps that all move alike. */
export type Seen = 'rises' | 'stands' | 'sinks' | 'flickers'

/**
 * What is seen of a cycle of `drawings` drawings in which `passes` wisps pass a place: what is left of a step when whole
 * pitches are taken off, a = k/N − round(k/N), in whole numbers. Exactly a half flickers; where a step is nearest to one or
 * more whole pitches, less than a tenth seems to stand, and a tenth or more backwards seems to sink.
 */
export function seenOf(passes: number, drawings: number): Seen {
  const rest = passes % drawings
  if (2 * rest === drawings) return 'flickers'
  const nearest = Math.floor((2 * passes + drawings) / (2 * drawings))
  if (nearest < 1) return 'rises'
  const part = passes - nearest * drawings
  if (10 * Math.abs(part) < drawings) return 'stands'
  return part < 0 ? 'sinks' : 'rises'
}

const IN_WORDS: Readonly<Record<Seen, string | null>> = {
  rises: null,
  stands: 'it will seem to stand still: each wisp comes to where the next one was',
  sinks: 'it will seem to sink: each wisp comes to just below where another one was',
  flickers: 'it will flicker: every second drawing has wisps where the others have none',
}

/** What is wrong with how wisps are seen; null where they rise. */
export const seenInWords = (seen: Seen): string | null => IN_WORDS[seen]

/**
 * Steam, smoke or bubbles that rise for ever: wisps `pitch` apart that rise by the same way with every drawing, so that N
 * drawings are a whole number of pitches; wisp j is made of the seed of j mod k, so that drawing N + 1 is drawing 1.
 */
export const wisps: Recipe<WispNumbers, WispPlan> = {
  through: [],
  measures: { across: ['x'], down: ['y'], lengths: ['pitch', 'rise', 'height', 'thick', 'sway'] },
  defaults: wispDefaults,
  refuse: refuseWisps,
  plan: planWisps,
  figure(plan, frame, sink) {
    const { x, y, height, sway } = plan.numbers
    for (const { name, spine, halves } of wispsOn(plan, shownOn(plan, frame))) {
      for (const side of [-1, 1]) {
        for (const part of partsOf(halves)) {
          sink.path(
            name,
            part.map(i => ({ x: (spine[i] as Point).x + side * (halves[i] as number), y: (spine[i] as Point).y })),
          )
        }
      }
    }
    sink.path(
      'reach',
      [
        { x: x - sway, y: y - height },
        { x: x + sway, y: y - height },
      ],
      'aid',
    )
    sink.line('mouth', { x: x - plan.numbers.thick, y }, { x: x + plan.numbers.thick, y })
  },
  expect(plan, drawing) {
    drawingOf(plan, drawing)
    const [first] = wispsOn(plan, drawing)
    return { marks: { 'lowest wisp': first?.spine[0] ?? plan.numbers }, body: null }
  },
}

function planWisps(numbers: WispNumbers): WispPlan {
  const { drawings: count, pitch, rise: wished, exposure: n } = numbers
  const passes = Math.max(1, Math.floor((count * wished) / pitch + 1 / 2))
  const rise = (passes * pitch) / count
  const words = IN_WORDS[seenOf(passes, count)]
  return {
    ...PLAIN_PLAN,
    numbers,
    frames: count * n,
    loops: true,
    drawings: Array.from({ length: count }, (_, i) => ({
      frame: i * n,
      role: i === 0 ? 'key' : 'inbetween',
      name: i === 0 ? 'first' : null,
    })),
    exposures: oneByOne(count, n),
    marks: ['lowest wisp'],
    snapped: [snap('rise from drawing to drawing', wished, rise)],
    told: [...(words ? [words] : []), 'the last drawing is drawn with the first shown through after it'],
    passes,
    rise,
  }
}

const PIECES = 12
/** From this share of its life on a wisp is broken in two. */
const BREAKS_AT = 0.6

/** The wisps of a drawing, from the lowest up; `drawing` may be any whole number, also after the last. */
export function wispsOn({ numbers, passes }: WispPlan, drawing: number): Wisp[] {
  const { x, y, pitch, height, thick, sway, seed } = numbers
  // Counted in whole parts of a pitch, so that a turn later everything is what it was to the last bit.
  const parts = numbers.drawings
  const lowest = -Math.floor((drawing * passes) / parts)
  const over = drawing * passes + lowest * parts
  const count = Math.ceil(height / pitch)
  return Array.from({ length: count }, (_, i): Wisp | null => {
    const j = lowest + i
    const bottom = ((i * parts + over) / parts) * pitch
    const life = bottom / height
    if (life >= 1) return null
    const kind = ((j % passes) + passes) % passes
    const dice = chance(seed * 977 + kind)
    const [lean, wave, size] = [dice() * 2 * Math.PI, 0.7 + 0.6 * dice(), 0.8 + 0.4 * dice()]
    const length = pitch * 0.8 * size
    const full = (thick / 2) * size * (1 - life) ** 0.8
    const spine: Point[] = []
    const halves: number[] = []
    for (let p = 0; p <= PIECES; p++) {
      const u = p / PIECES
      const up = bottom + u * length
      const high = Math.min(1, up / height)
      spine.push({ x: x + sway * high * Math.sin(lean + (wave * 2 * Math.PI * up) / (3 * pitch)), y: y - up })
      const gap = life > BREAKS_AT && Math.abs(u - 1 / 2) < (life - BREAKS_AT) / 2
      halves.push(gap ? 0 : full * Math.sin(Math.PI * Math.min(1, u + 0.08)))
    }
    return { name: `wisp ${kind + 1}`, spine, halves }
  }).filter(wisp => wisp !== null)
}

/** The stretches of a wisp that are not broken: indices that follow each other. */
function partsOf(halves: readonly number[]): number[][] {
  const parts: number[][] = [[]]
  halves.forEach((half, i) => {
    if (half > 0) (parts[parts.length - 1] as number[]).push(i)
    else parts.push([])
  })
  return parts.filter(part => part.length > 1)
}
