import { areasOf, type Areas, type ColouredStroke } from './areas.ts'
import { lineFacts, type LineFacts, type NamedStroke } from './lines.ts'

/** What is known of a drawing from its pixels besides its silhouette. */
export interface DrawingFacts {
  readonly lines: LineFacts
  readonly areas: Areas
}

/** The facts of a drawing, its strokes in the order in which they are painted. */
export const factsOf = (strokes: readonly (NamedStroke & ColouredStroke)[]): DrawingFacts => ({
  lines: lineFacts(strokes),
  areas: areasOf(strokes),
})
