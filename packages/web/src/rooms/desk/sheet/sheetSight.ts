import type { Drawing, ShotDocument, Take } from '@unhurried/core/document'
import { columnOf, cyclesOf, find, guidePlan, guidesOf, layersInOrder, timedBy } from '@unhurried/core/document'
import { cycleEnd, periodOf, type PlacedRun, type Run, runAt } from '@unhurried/core/time'

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

const counted = new WeakMap<readonly Run[], ReadonlyMap<string, number>>()

/** In how many places of a column each of its drawings is shown. Columns are values: each is counted once. */
export function exposureCounts(column: readonly Run[]): ReadonlyMap<string, number> {
  const known = counted.get(column)
  if (known) return known
  const counts = new Map<string, number>()
  for (const run of column) if (run.drawing !== null) counts.set(run.drawing, (counts.get(run.drawing) ?? 0) + 1)
  counted.set(column, counts)
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
export interface ColumnInSight {
  readonly runs: readonly SeenRun[]
  readonly cycles: readonly SeenCycle[]
  /** frames that guides of the layer cover: from, up to but not with */
  readonly guides: readonly (readonly [from: number, to: number])[]
  /** frames on which the layer has a place of its own, where it moves as a whole */
  readonly places: readonly number[]
}

/** Frames on which a layer that moves has a place of its own. */
const placesOf = (take: Take, layer: string): number[] => find(take.paths, layer)?.keys.map(key => key.frame) ?? []

function columnInSight(document: ShotDocument, take: Take, layer: string, first: number, last: number): ColumnInSight {
  // A tied layer repeats as what it follows does; the bracket stands there.
  const timed = timedBy(document, layer)
  const cycles = cyclesInSight(take, timed, first, last)
  const column = columnOf(take, layer)
  const counts = exposureCounts(column)
  const runs = runsInSight(column, first, last).map(run => {
    const cycle = cycles.find(c => run.start >= c.from && run.start < c.to)
    return {
      ...run,
      sheet: run.drawing === null ? null : (find(document.drawings, run.drawing) ?? null),
      shared: !cycle && timed === layer && (counts.get(run.drawing as string) ?? 0) > 1,
      repeated: cycle !== undefined && run.start >= (cycle.turns[0] ?? cycle.to),
    }
  })
  const guides = guidesOf(document, take.id).flatMap((guide): (readonly [number, number])[] => {
    const to = guide.from + guidePlan(document, guide).frames
    return guide.layer === layer && guide.from < last && to > first ? [[guide.from, to]] : []
  })
  const places = placesOf(take, layer).filter(frame => frame >= first && frame < last)
  return { runs, cycles: timed === layer ? cycles : [], guides, places }
}

/**
 * Looks at columns, and gives the very same answer as long as nothing in sight of a column can have changed: a change of
 * one column then leaves the others alone.
 */
export function makeSheetSight() {
  const seen = new Map<string, { from: readonly unknown[]; answer: ColumnInSight }>()
  return (document: ShotDocument, take: Take, layer: string, first: number, last: number): ColumnInSight => {
    const { drawings, layers, guides } = document
    const from = [
      columnOf(take, layer),
      drawings,
      take.cycles,
      find(take.paths, layer),
      layers,
      guides,
      take.length,
      first,
      last,
    ]
    const known = seen.get(layer)
    if (known?.from.every((part, i) => part === from[i])) return known.answer
    const answer = columnInSight(document, take, layer, first, last)
    seen.set(layer, { from, answer })
    return answer
  }
}

/** A row of the sheet in words, for those who hear it: what each layer shows on `frame`, the front one first. */
export function rowInWords(document: ShotDocument, take: Take, frame: number): string {
  const shown = [...layersInOrder(document)].reverse().map(layer => {
    const run = runAt(columnOf(take, layer.id), frame)
    const sheet = run?.drawing ? find(document.drawings, run.drawing) : undefined
    if (!run || !sheet) return `${layer.name} empty`
    const held = run.frames > 1 ? `, frame ${frame - run.start + 1} of ${run.frames}` : ''
    const placed = placesOf(take, layer.id).includes(frame) ? ', the layer has a place of its own here' : ''
    return `${layer.name} ${sheet.number}, ${sheet.role}${held}${placed}`
  })
  return [`Frame ${frame + 1} of ${take.length}`, ...shown].join('; ')
}
