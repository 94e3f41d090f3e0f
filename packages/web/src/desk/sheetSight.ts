import type { Drawing, ShotDocument, Take } from '@unhurried/core/document'
import { columnOf, cyclesOf, find } from '@unhurried/core/document'
import { cycleEnd, periodOf, type PlacedRun, type Run } from '@unhurried/core/time'

/** An exposure in sight: its run, its drawing, and whether that is shown elsewhere too. */
export interface SeenRun extends PlacedRun {
  readonly sheet: Drawing | null
  readonly shared: boolean
  /** a later turn of a linked cycle: it follows from the first */
  readonly repeated: boolean
}

/** A linked cycle in sight: the stretch it covers and the frames its turns start on. */
export interface SeenCycle {
  readonly id: string
  readonly from: number
  readonly to: number
  readonly period: number
  readonly turns: readonly number[]
}

/** The runs of a column that touch frames [first, last). Only what is in sight is made. */
export function runsInSight(runs: readonly Run[], first: number, last: number): PlacedRun[] {
  const seen: PlacedRun[] = []
  let start = 0
  for (const run of runs) {
    if (start >= last) break
    if (run.drawing !== null && start + run.frames > first) seen.push({ ...run, start })
    start += run.frames
  }
  return seen
}

/** In how many places each drawing of a take is shown. */
export function exposureCounts(take: Take): ReadonlyMap<string, number> {
  const counts = new Map<string, number>()
  for (const column of Object.values(take.columns)) {
    for (const run of column) if (run.drawing !== null) counts.set(run.drawing, (counts.get(run.drawing) ?? 0) + 1)
  }
  return counts
}

export function cyclesInSight(take: Take, layer: string, first: number, last: number): SeenCycle[] {
  return cyclesOf(take, layer).flatMap(cycle => {
    const to = cycleEnd(cycle, take.length)
    if (cycle.from >= last || to <= first) return []
    const period = periodOf(cycle)
    const turns: number[] = []
    for (let at = cycle.from - cycle.offset + period; at < to; at += period) if (at > cycle.from) turns.push(at)
    return [{ id: cycle.id, from: cycle.from, to, period, turns }]
  })
}

/** Everything of one column that is in sight. */
export function columnInSight(
  document: ShotDocument,
  take: Take,
  layer: string,
  counts: ReadonlyMap<string, number>,
  first: number,
  last: number,
): { runs: SeenRun[]; cycles: SeenCycle[] } {
  const cycles = cyclesInSight(take, layer, first, last)
  const runs = runsInSight(columnOf(take, layer), first, last).map(run => {
    const cycle = cycles.find(c => run.start >= c.from && run.start < c.to)
    return {
      ...run,
      sheet: run.drawing === null ? null : (find(document.drawings, run.drawing) ?? null),
      shared: !cycle && (counts.get(run.drawing as string) ?? 0) > 1,
      repeated: cycle !== undefined && run.start >= (cycle.turns[0] ?? cycle.to),
    }
  })
  return { runs, cycles }
}
