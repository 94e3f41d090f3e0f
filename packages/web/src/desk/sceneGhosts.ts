import type { Drawing } from '@unhurried/core/document'
import type { Ghost } from '../stores/ghosts.ts'
import type { LightTable } from '../stores/settings.ts'
import type { Look } from './bitmaps.ts'
import type { SceneGhost } from './stage.ts'

/** Each farther drawing shows this much weaker than the one before it. */
const FALL_OFF = 0.62
/** Thin outlines need more, wide washes less, to be seen as well as each other. */
const WEIGHT = { past: 0.8, future: 1.5 }

/** What shows through, as it is to be painted: the farthest first. Past drawings are a wash, future ones hollow. */
export function sceneGhosts(
  through: readonly Ghost[],
  drawingOf: (id: string) => Drawing | null,
  { strength, past, future }: Pick<LightTable, 'strength' | 'past' | 'future'>,
): SceneGhost[] {
  const looks: Record<Ghost['side'], Look> = {
    past: { kind: 'wash', colour: past },
    future: { kind: 'hollow', colour: future },
  }
  return through
    .flatMap(({ drawing: id, side, rank, share }): SceneGhost[] => {
      const drawing = drawingOf(id)
      const opacity = Math.min(1, strength * share * FALL_OFF ** rank * WEIGHT[side])
      return drawing ? [{ drawing, look: looks[side], opacity }] : []
    })
    .reverse()
}
