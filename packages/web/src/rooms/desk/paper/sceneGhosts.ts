import type { Drawing } from '@unhurried/core/document'
import type { Ghost } from '../../../stores/ghosts.ts'
import type { LightTable } from '../../../stores/settings.ts'
import type { Look } from '../../../paint/bitmaps.ts'
import type { SceneGhost } from '../../../paint/stage.ts'

/** Each farther drawing shows this much weaker than the one before it. */
const FALL_OFF = 0.62
/** Thin outlines need more, wide washes less, to be seen as well as each other; under lines a wash is lighter still. */
const WEIGHT = { wash: 0.8, under: 0.34, lines: 0.95, hollow: 1.5 }

/**
 * What shows through, as it is to be painted: the farthest first. Past drawings are their full lines over a light wash (or
 * the wash alone), future ones hollow lines.
 */
export function sceneGhosts(
  through: readonly Ghost[],
  drawingOf: (id: string) => Drawing | null,
  { strength, past, future, lines }: Pick<LightTable, 'strength' | 'past' | 'future' | 'lines'>,
): SceneGhost[] {
  const looks: Record<Ghost['side'], readonly (readonly [Look, number])[]> = {
    past: lines
      ? [
          [{ kind: 'lines', colour: past }, WEIGHT.lines],
          [{ kind: 'wash', colour: past }, WEIGHT.under],
        ]
      : [[{ kind: 'wash', colour: past }, WEIGHT.wash]],
    future: [[{ kind: 'hollow', colour: future }, WEIGHT.hollow]],
  }
  return through
    .flatMap(({ drawing: id, side, rank, frame, share }): SceneGhost[] => {
      const drawing = drawingOf(id)
      if (!drawing) return []
      return looks[side].map(([look, weight]) => ({
        drawing,
        frame,
        look,
        opacity: Math.min(1, strength * share * FALL_OFF ** rank * weight),
      }))
    })
    .reverse()
}
