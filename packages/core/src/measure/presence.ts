import { isStroke, LABELS, type Drawing, type Layer, type ShotDocument, type Take } from '../document/model/model.ts'
import { followersOf, sheetsByNumber } from '../document/acts/paintSheets.ts'
import { isBlank, marksOf } from '../document/model/selectors.ts'
import { find } from '../document/model/table.ts'
import { shownOn, type Shown } from './survey.ts'

/** What a row of the grid is about: a mark, a limb by its label, a layer that goes along with it, a colour. */
export const PART_KINDS = ['layer', 'mark', 'label', 'colour'] as const
export type PartKind = (typeof PART_KINDS)[number]

/** One part over the drawings of a layer. */
export interface PartRow {
  readonly kind: PartKind
  /** id of the mark, the layer or the swatch; the label itself */
  readonly id: string
  readonly name: string
  /** whether it is there, for every drawing in their order */
  readonly there: readonly boolean[]
}

/** Which parts are there on which drawings of a layer. */
export interface PartGrid {
  readonly layer: Layer
  /** each once, in the order of time; blank ones are none */
  readonly drawings: readonly Shown[]
  readonly rows: readonly PartRow[]
}

/** The grid of a layer: parts that are on one of its drawings at least, by kind. Sheets of layers that go along lie under the number of their drawing. */
export function partGrid(document: ShotDocument, take: Take, layer: Layer): PartGrid {
  const drawings = shownOn({ document, take }, layer.id).filter(({ drawing }) => !isBlank(drawing))
  const along = [...followersOf(document, layer.id)].sort((a, b) => a.order - b.order)
  const sheets = sheetsByNumber(document, layer.id)
  const sheetsOf = ({ number }: Drawing) => (sheets.get(number) ?? []).filter(sheet => !isBlank(sheet))
  const strokesOf = (drawing: Drawing) =>
    [drawing, ...sheetsOf(drawing)].flatMap(one => Object.values(one.elements).filter(isStroke))
  const row = (kind: PartKind, id: string, name: string, isThere: (drawing: Drawing) => boolean): PartRow => ({
    kind,
    id,
    name,
    there: drawings.map(({ drawing }) => isThere(drawing)),
  })
  const colours = drawings.map(({ drawing }) => new Set(strokesOf(drawing).map(stroke => stroke.swatch)))
  const inUse = [...new Set(colours.flatMap(some => [...some]))]
  const rows = [
    ...along.map(other =>
      row('layer', other.id, other.name, drawing => sheetsOf(drawing).some(sheet => sheet.layer === other.id)),
    ),
    ...marksOf(document, layer.id)
      .filter(mark => mark.kind === 'point')
      .map(mark => row('mark', mark.id, mark.name, drawing => find(drawing.marks, mark.id) !== undefined)),
    ...LABELS.map(label => row('label', label, `${label} limbs`, one => strokesOf(one).some(s => s.label === label))),
    ...inUse.map((id): PartRow => ({
      kind: 'colour',
      id,
      name: find(document.swatches, id)?.name ?? id,
      there: colours.map(some => some.has(id)),
    })),
  ]
  return { layer, drawings, rows: rows.filter(one => one.there.includes(true)) }
}

/** Stretches of a row that are empty between two cells that are not: places in it, from and up to but not with. */
export function gapsIn({ there }: Pick<PartRow, 'there'>): { readonly from: number; readonly to: number }[] {
  const gaps: { from: number; to: number }[] = []
  for (let at = there.indexOf(true) + 1; at < there.lastIndexOf(true); at++) {
    if (there[at]) continue
    const from = at
    while (!there[at]) at++
    gaps.push({ from, to: at })
  }
  return gaps
}
