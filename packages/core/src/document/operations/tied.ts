import { plain, sameRuns, type Run } from '../../time/exposure.ts'
import type { Layer, ShotDocument, Take } from '../model.ts'
import { find, get, put } from '../table.ts'
import { refusal, type Operation, type OperationKind, type Refusal } from './kinds.ts'

/** Kinds of operations after which what tied layers show may be another: all that touch sheets, their numbers or layers. */
const MOVING: ReadonlySet<OperationKind> = new Set([
  'layer.add',
  'layer.set',
  'drawing.add',
  'drawing.set',
  'drawing.remove',
  'exposure.write',
  'frames.insert',
  'frames.remove',
  'cycle.add',
  'cycle.set',
  'cycle.remove',
  'take.add',
])

const tiedLayers = (document: ShotDocument): Layer[] =>
  Object.values(document.layers).filter(layer => layer.follows !== null)

/**
 * The document with the columns of tied layers made to show what they follow: under each line drawing the sheet of the same
 * number. A column that shows it already stays the value it is.
 */
export function withTies(document: ShotDocument, after: Operation): ShotDocument {
  const tied = MOVING.has(after.kind) ? tiedLayers(document) : []
  if (tied.length === 0) return document
  let { takes } = document
  for (const layer of tied) {
    const sheets = sheetsByNumber(document, layer.id)
    for (const take of Object.values(takes)) {
      const shown = shownUnder(document, take, layer.follows as string, sheets)
      if (sameRuns(get(take.columns, layer.id), shown)) continue
      takes = put(takes, take.id, { ...take, columns: put(take.columns, layer.id, shown) })
    }
  }
  return takes === document.takes ? document : { ...document, takes }
}

function sheetsByNumber(document: ShotDocument, layer: string): ReadonlyMap<number, string> {
  const sheets = new Map<number, string>()
  for (const drawing of Object.values(document.drawings)) {
    if (drawing.layer === layer) sheets.set(drawing.number, drawing.id)
  }
  return sheets
}

function shownUnder(document: ShotDocument, take: Take, line: string, sheets: ReadonlyMap<number, string>): Run[] {
  return plain(
    get(take.columns, line).map(({ drawing, frames }) => {
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
      sameRuns(get(take.columns, layer.id), shownUnder(document, take, layer.follows as string, sheets)),
    )
  })
}
