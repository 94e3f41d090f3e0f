import type { LineFacts } from '../raster/lines.ts'
import type { Shape } from '../raster/shapeOf.ts'
import { wobbleOf, type Wobble } from '../raster/wobble.ts'
import { bodyMap } from './carry.ts'
import type { Shown, Survey } from './survey.ts'

/** Less of its lines held against both neighbours tells nothing of a drawing. */
const ENOUGH = 0.4

/** A drawing whose lines tremble so much against those beside it. */
export interface Trembling {
  readonly one: Shown
  readonly px: number
}

/** What is known of a drawing, and by which lines and silhouettes: those of the one before, its own, and of the one behind. */
interface Known {
  readonly by: readonly (LineFacts | Shape | undefined)[]
  readonly wobble: Wobble | null
}
const known = new WeakMap<LineFacts, Known>()

/**
 * How the lines of each of some drawings tremble against those of the two beside it, carried along as their bodies were; null where nothing can be told. Worked out
 * once: the drawings are gone through one by one, so that whoever asks can rest in between.
 */
export function* trembles({ facts, shapes }: Survey, shown: readonly Shown[]): Generator<Trembling | null> {
  const on = (one: Shown | undefined) => (one ? facts.get(one.drawing.id)?.lines : undefined)
  const bodyOf = (one: Shown | undefined) => (one ? shapes.get(one.drawing.id) : undefined)
  for (const [i, one] of shown.entries()) {
    const [before, after] = [shown[i - 1], shown[i + 1]]
    const [own, first, last] = [on(one), on(before), on(after)]
    if (!own?.count || !first?.count || !last?.count) continue
    const [body, a, b] = [bodyOf(one), bodyOf(before), bodyOf(after)]
    const by = [first, a, own, body, last, b]
    const old = known.get(own)
    const through = (there: Shape | undefined) => (there && body ? bodyMap(there, body) : null)
    const wobble =
      old && by.every((part, k) => part === old.by[k])
        ? old.wobble
        : wobbleOf(own.runs, { runs: first.runs, through: through(a) }, { runs: last.runs, through: through(b) })
    known.set(own, { by, wobble })
    yield wobble && wobble.share >= ENOUGH ? { one, px: wobble.px } : null
  }
}
