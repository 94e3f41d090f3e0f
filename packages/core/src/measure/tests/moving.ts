import { FIRST, freshDocument } from '../../document/model/fresh.ts'
import type { Drawing, ShotDocument } from '../../document/model/model.ts'
import { applyBatch, type Operation } from '../../document/operations/index.ts'
import { currentTake } from '../../document/model/selectors.ts'
import type { Run } from '../../time/exposure.ts'
import type { Point } from '../../geometry/point.ts'
import { coverageOf, type Coverage } from '../../raster/coverage.ts'
import { sampleElement } from '../../document/tests/sample.ts'
import type { Survey } from '../survey.ts'
import { CHECKS, type CheckName } from '../checks/table.ts'

export const layer = FIRST.drawn
export const done = (document: ShotDocument, ops: readonly Operation[]): ShotDocument => {
  const result = applyBatch(document, ops)
  if (!result.ok) throw new Error(`${result.refusal.code} ${result.refusal.what}`)
  return result.document
}

/** A shot at 24 in which marks lie at places on drawings d1, d2 …, each held so many frames; null: the mark is not on that drawing. */
export function moving(
  ways: Readonly<Record<string, readonly (Point | null)[]>>,
  holds: readonly number[],
  more: readonly Operation[] = [],
): ShotDocument {
  const fresh = freshDocument(
    { width: 1920, height: 1080, fps: 24, paper: '#fdfaf3' },
    holds.reduce((a, b) => a + b, 0),
  )
  const names = Object.keys(ways)
  return done(fresh, [
    ...names.map((id, i): Operation => ({ kind: 'mark.add', mark: { id, layer, name: id, order: i, kind: 'point' } })),
    ...holds.map((_, i): Operation => {
      const element = { ...sampleElement(`e${i + 1}`), id: `e${i + 1}` }
      const drawing: Drawing = {
        id: `d${i + 1}`,
        layer,
        number: i + 1,
        role: 'key',
        elements: { [element.id]: element },
        marks: {},
      }
      return { kind: 'drawing.add', drawing }
    }),
    ...holds.map((_, i): Operation => ({
      kind: 'marks.place',
      drawing: `d${i + 1}`,
      places: Object.fromEntries(
        names.flatMap(id => {
          const at = ways[id]?.[i]
          return at ? [[id, { ...at, planted: false }]] : []
        }),
      ),
    })),
    {
      kind: 'exposure.write',
      take: FIRST.take,
      layer,
      from: 0,
      runs: holds.map((frames, i): Run => ({ drawing: `d${i + 1}`, frames })),
    },
    ...more,
  ])
}
export const along = (...xs: number[]): Point[] => xs.map(x => ({ x, y: 300 }))
export const twos = (n: number): number[] => Array<number>(n).fill(2)
export const survey = (document: ShotDocument): Survey => ({
  document,
  take: currentTake(document),
  shapes: new Map(),
  facts: new Map(),
  delivered: null,
  loop: null,
})
export const said = (check: CheckName, document: ShotDocument) =>
  CHECKS[check].inspect(survey(document)).map(one => one.words)

/** Where a block lies, so many paper pixels wide and high, with its corner at a place. */
export function blockAt(x: number, y: number, width: number, height: number): Coverage {
  const mask = { width, height, inside: new Uint8Array(width * height).fill(1) }
  return coverageOf(mask, { left: x, top: y, scale: 1 }) as Coverage
}
