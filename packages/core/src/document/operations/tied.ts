import { plain, sameRuns, type Run } from '../../time/exposure.ts'
import type { Layer, ShotDocument } from '../model/model.ts'
import { find, get } from '../model/table.ts'
import { makeBench, type Bench } from './bench.ts'
import type { Operation } from './kinds.ts'
import { refusal, type Refusal } from '../model/refusal.ts'

const tiedLayers = (document: ShotDocument): Layer[] =>
  Object.values(document.layers).filter(layer => layer.follows !== null)

/** Whether a layer has no timing of its own. */
export const isTied = (document: ShotDocument, layer: string): boolean => Boolean(find(document.layers, layer)?.follows)

/**
 * The document with the columns of tied layers made to show what they follow: under each line drawing the sheet of the same
 * number. Done once for a batch. A column that shows it already stays the value it is; takes of one timing share theirs.
 */
export function withTies(document: ShotDocument, bench: Bench): ShotDocument {
  let { takes } = document
  for (const layer of tiedLayers(document)) {
    const sheets = sheetsByNumber(document, layer.id)
    const known = new Map<readonly Run[], readonly Run[]>()
    for (const take of Object.values(takes)) {
      const line = get(take.columns, layer.follows as string)
      const shown = known.get(line) ?? shownUnder(document, line, sheets)
      known.set(line, shown)
      const now = find(take.columns, layer.id)
      if (now && sameRuns(now, shown)) continue
      takes = bench.put(takes, take.id, bench.set(take, { columns: bench.put(take.columns, layer.id, shown) }))
    }
  }
  return takes === document.takes ? document : bench.set(document, { takes })
}

/**
 * The form a document is stored and sent in: without the columns of tied layers, which follow from the rest. Many takes of
 * many tied layers would multiply what is stored.
 */
export function storedForm(document: ShotDocument): ShotDocument {
  const tied = tiedLayers(document).map(layer => layer.id)
  if (tied.length === 0) return document
  const bench = makeBench()
  const takes = Object.values(document.takes).reduce(
    (all, take) => bench.put(all, take.id, bench.set(take, { columns: bench.without(take.columns, tied) })),
    document.takes,
  )
  return bench.set(document, { takes })
}

/** A document as it was stored, with the columns of tied layers worked out. */
export const openedForm = (stored: ShotDocument): ShotDocument => withTies(stored, makeBench())

function sheetsByNumber(document: ShotDocument, layer: string): ReadonlyMap<number, string> {
  const sheets = new Map<number, string>()
  for (const drawing of Object.values(document.drawings)) {
    if (drawing.layer === layer) sheets.set(drawing.number, drawing.id)
  }
  return sheets
}

function shownUnder(document: ShotDocument, line: readonly Run[], sheets: ReadonlyMap<number, string>): Run[] {
  return plain(
    line.map(({ drawing, frames }) => {
      const number = drawing === null ? undefined : find(document.drawings, drawing)?.number
      return { drawing: number === undefined ? null : (sheets.get(number) ?? null), frames }
    }),
  )
}

/** Says no to timing of its own for a tied layer. */
export function refuseTied(document: ShotDocument, layer: string): Refusal | null {
  const follows = find(document.layers, layer)?.follows
  return follows ? refusal('tied', follows) : null
}

/** What is wrong with what a layer follows, or null. Ties are one deep: what is followed follows nobody. */
export function refuseTie(document: ShotDocument, layer: Layer): Refusal | null {
  if (layer.follows === null) return null
  const line = find(document.layers, layer.follows)
  if (!line) return refusal('unknown-layer', layer.follows)
  if (line.id === layer.id || line.follows !== null) return refusal('tied', line.id)
  const others = tiedLayers(document).filter(other => other.id !== layer.id)
  if (others.some(other => other.follows === layer.id)) return refusal('still-followed', layer.id)
  const own = Object.values(document.takes).flatMap(take => Object.values(take.cycles))
  const linked = own.find(cycle => cycle.layer === layer.id)
  return linked ? refusal('linked', linked.id) : null
}

/** Operations that give a layer back the columns it had, in every take: what untying alone does not restore. */
export function columnsOfOwn(before: ShotDocument, layer: string): Operation[] {
  return Object.values(before.takes).map(take => ({
    kind: 'exposure.write',
    take: take.id,
    layer,
    from: 0,
    runs: get(take.columns, layer),
  }))
}

/** Whether every tied layer shows the sheets of what it follows: an invariant, for tests. */
export function tiesHold(document: ShotDocument): boolean {
  return tiedLayers(document).every(layer => {
    const sheets = sheetsByNumber(document, layer.id)
    return Object.values(document.takes).every(take =>
      sameRuns(get(take.columns, layer.id), shownUnder(document, get(take.columns, layer.follows as string), sheets)),
    )
  })
}
