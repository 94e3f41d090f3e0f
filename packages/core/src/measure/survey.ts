import type { LoopRange } from '../time/loop.ts'
import type { Point } from '../geometry/point.ts'
import type { Drawing, ShotDocument, Take } from '../document/model/model.ts'
import { exposures } from '../document/model/selectors.ts'
import { find } from '../document/model/table.ts'
import type { Delivered } from './delivered.ts'
import type { DrawingFacts } from '../raster/facts.ts'
import type { ModelSheet } from '../models/model.ts'
import type { Shape } from '../raster/shapeOf.ts'
import { median } from '../median.ts'

/** A shot and what was measured of it. */
export interface Survey {
  readonly document: ShotDocument
  readonly take: Take
  /** silhouettes by the id of their drawing, in paper pixels; missing while a drawing is not measured yet */
  readonly shapes: ReadonlyMap<string, Shape>
  /** what else is known of drawings from their pixels, by id; missing like silhouettes are */
  readonly facts: ReadonlyMap<string, DrawingFacts>
  /** what was measured on the frames as they are delivered; null while that is not done */
  readonly delivered: Delivered | null
  /** the frames that are gone round, or null: the take ends where it ends */
  readonly loop: LoopRange | null
  /** the film's model sheets, where there are any */
  readonly models?: readonly ModelSheet[]
}

/** Where a drawing lies, in paper pixels: a mark of its own, or the middle of its silhouette (`mark` null). Null: not known. */
export function placeOn(
  { shapes }: Pick<Survey, 'shapes'>,
  drawing: Drawing | null,
  mark: string | null,
): Point | null {
  if (!drawing) return null
  return mark === null ? (shapes.get(drawing.id)?.centroid ?? null) : (find(drawing.marks, mark) ?? null)
}

/** A drawing of a layer, and the frames of its first exposure: from, and up to but not with. */
export interface Shown {
  readonly drawing: Drawing
  readonly from: number
  readonly to: number
}

/** The drawings of a layer that are exposed, each once, in the order of time. */
export function shownOn({ document, take }: Pick<Survey, 'document' | 'take'>, layer: string): Shown[] {
  const seen = new Set<string>()
  return exposures(take, layer).flatMap(({ drawing: id, start, frames }) => {
    const drawing = seen.has(id as string) ? undefined : find(document.drawings, id as string)
    seen.add(id as string)
    return drawing ? [{ drawing, from: start, to: start + frames }] : []
  })
}

/** How much of its hull what is drawn on a layer usually fills, 0–1 (the median of its drawings); null while nothing is measured. */
export function solidityOn(survey: Survey, layer: string): number | null {
  const all = shownOn(survey, layer).flatMap(({ drawing }) => survey.shapes.get(drawing.id)?.solidity ?? [])
  return all.length > 0 ? median(all) : null
}
