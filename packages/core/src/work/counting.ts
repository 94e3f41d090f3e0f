import { needWhole } from '../errors.ts'
import { isBlank } from '../document/model/selectors.ts'
import { get } from '../document/model/table.ts'
import { isAnimated, type ShotDocument, type Take } from '../document/model/model.ts'

/** Drawings of a take, each counted once however often and however long it is exposed. Only what is animated counts: neither backgrounds nor paint under lines. */
export interface DrawingCount {
  readonly drawings: number
  readonly drawn: number
  readonly left: number
}

/**
 * Drawings that `frames` take when every one is held for `exposure` frames: ceil(frames / exposure). Throws a UsageError
 * on frames under 0 and on an exposure under 1.
 */
export function drawingsNeeded(frames: number, exposure: number): number {
  needWhole(frames, 0, 'frames')
  needWhole(exposure, 1, 'exposure')
  return Math.ceil(frames / exposure)
}

/** Counts the drawings exposed in a take. */
export function countDrawings(document: ShotDocument, take: Take): DrawingCount {
  const ids = new Set<string>()
  for (const [layer, column] of Object.entries(take.columns)) {
    if (!isAnimated(get(document.layers, layer))) continue
    for (const run of column) if (run.drawing !== null) ids.add(run.drawing)
  }
  const drawn = [...ids].filter(id => !isBlank(get(document.drawings, id))).length
  return { drawings: ids.size, drawn, left: ids.size - drawn }
}

/** The exposure most drawings of a layer have in a take (1 = on ones …), the shorter of equally frequent ones; null for none. */
export function usualExposure(take: Take, layer: string): number | null {
  const counts = new Map<number, number>()
  for (const run of take.columns[layer] ?? []) {
    if (run.drawing !== null) counts.set(run.frames, (counts.get(run.frames) ?? 0) + 1)
  }
  const sorted = [...counts].sort(([a, n], [b, m]) => m - n || a - b)
  return sorted[0]?.[0] ?? null
}
