import { counted as inWords } from '../../time/counted.ts'
import { drawingsOf, placed, type Run } from '../../time/exposure.ts'
import { isAnimated, type ShotDocument, type Take } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'
import { followingInstead, guidesOf } from '../model/guides.ts'
import { columnOf, layersInOrder, takesInOrder } from '../model/selectors.ts'
import { find, get } from '../model/table.ts'

/** A copy of a take under another name, behind the others. Its linked cycles, pins and guides are copied along. */
export function copyTake(
  document: ShotDocument,
  from: string,
  id: string,
  name: string,
  newId: () => string,
): Operation[] {
  const last = takesInOrder(document).pop()
  const guides = guidesOf(document, from)
  const ids = new Map(guides.map(guide => [guide.id, newId()]))
  const copies = guides.map((guide): Operation => ({
    kind: 'guide.add',
    guide: { ...guide, id: ids.get(guide.id) as string, take: id, numbers: followingInstead(guide.numbers, ids) },
  }))
  return [
    { kind: 'take.add', take: { ...get(document.takes, from), id, name, order: (last?.order ?? 0) + 1 } },
    ...copies,
  ]
}

/** Works on another take. */
export const useTake = (take: string): Operation[] => [{ kind: 'shot.set', patch: { current: take } }]

/** Another name for a take. */
export const renameTake = (take: Take, name: string): Operation[] =>
  name === take.name ? [] : [{ kind: 'take.set', id: take.id, patch: { name } }]

/** Takes a take and its guides away; refused for the one that is worked on. */
export const removeTake = (document: ShotDocument, id: string): Operation[] => [
  ...guidesOf(document, id).map((guide): Operation => ({ kind: 'guide.remove', id: guide.id })),
  { kind: 'take.remove', id },
]

/** How one drawing is timed differently in two takes. `from` and `to` are the earlier and later of the two as given. */
export interface TimingDifference {
  readonly layer: string
  readonly drawing: string
  /** frames held altogether, and frame of the first exposure (null: not shown), in either take */
  readonly held: readonly [number, number]
  readonly start: readonly [number | null, number | null]
}

/**
 * Every drawing of the animation that is held differently, or shown in only one of two takes; in the order of layers, then
 * of frames. Drawings that a linked cycle of both takes repeats are left out: how often is a matter of the length.
 */
export function timingDifferences(document: ShotDocument, one: Take, other: Take): TimingDifference[] {
  const drawn = layersInOrder(document).filter(isAnimated)
  const repeated = cycledIn(one)
  const alsoRepeated = cycledIn(other)
  return drawn.flatMap(layer => {
    const [a, b] = [timingsOf(one, layer.id), timingsOf(other, layer.id)]
    const ids = [...new Set([...a.keys(), ...b.keys()])]
    return ids.flatMap((drawing): TimingDifference[] => {
      const [here, there] = [a.get(drawing), b.get(drawing)]
      if (here && there && here.held === there.held) return []
      if (repeated.has(drawing) && alsoRepeated.has(drawing)) return []
      return [
        {
          layer: layer.id,
          drawing,
          held: [here?.held ?? 0, there?.held ?? 0],
          start: [here?.start ?? null, there?.start ?? null],
        },
      ]
    })
  })
}

const cycledIn = (take: Take): ReadonlySet<string> =>
  new Set(Object.values(take.cycles).flatMap(cycle => cycle.pattern.flatMap(run => run.drawing ?? [])))

function timingsOf(take: Take, layer: string): Map<string, { held: number; start: number }> {
  const seen = new Map<string, { held: number; start: number }>()
  for (const { drawing, frames, start } of placed(columnOf(take, layer))) {
    if (drawing === null) continue
    const known = seen.get(drawing)
    seen.set(drawing, { held: (known?.held ?? 0) + frames, start: known?.start ?? start })
  }
  return seen
}

const frameWord = (n: number) => inWords(n, 'frame')

/** The difference of `other` from `one` in words, at most `most` sentences: "3 frames longer", "9 held 2 frames longer". */
export function differencesInWords(document: ShotDocument, one: Take, other: Take, most = 6): string[] {
  const said: string[] = []
  const longer = other.length - one.length
  if (longer !== 0) said.push(`${frameWord(Math.abs(longer))} ${longer > 0 ? 'longer' : 'shorter'}`)
  const counts = new Map<string, string[]>()
  const differences = timingDifferences(document, one, other)
  const layers = new Set(differences.map(difference => difference.layer))
  for (const { layer, drawing, held, start } of differences) {
    const of = layers.size > 1 ? `${find(document.layers, layer)?.name ?? ''} ` : ''
    const number = `${of}${find(document.drawings, drawing)?.number ?? '?'}`
    const by = held[1] - held[0]
    const what =
      start[1] === null
        ? 'not shown'
        : start[0] === null
          ? `shown for ${frameWord(held[1])}`
          : `held ${frameWord(Math.abs(by))} ${by > 0 ? 'longer' : 'shorter'}`
    counts.set(what, [...(counts.get(what) ?? []), number])
  }
  for (const [what, numbers] of counts) said.push(`${numbers.join(', ')} ${what}`)
  if (said.length === 0) return ['the same timing']
  return said.length > most ? [...said.slice(0, most - 1), `and ${said.length - most + 1} more differences`] : said
}

const counted = new WeakMap<readonly Run[], readonly string[]>()

/** The drawings of a column. Columns are values: each is looked through once. */
function drawingsIn(column: readonly Run[]): readonly string[] {
  const known = counted.get(column) ?? drawingsOf(column)
  counted.set(column, known)
  return known
}

/** Drawings that no take shows: kept, and to be found again. */
export function unexposedDrawings(document: ShotDocument): string[] {
  const shown = new Set<string>()
  for (const take of Object.values(document.takes)) {
    for (const column of Object.values(take.columns)) for (const drawing of drawingsIn(column)) shown.add(drawing)
    for (const cycle of Object.values(take.cycles))
      for (const run of cycle.pattern) if (run.drawing) shown.add(run.drawing)
  }
  return Object.keys(document.drawings).filter(id => !shown.has(id))
}
