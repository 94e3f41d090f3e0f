import { isAnimated, type Layer } from '../../document/model/model.ts'
import { exposures, layersInOrder } from '../../document/model/selectors.ts'
import type { EdgeSeen } from '../delivered.ts'
import { shownOn, type Shown, type Survey } from '../survey.ts'
import { thresholdOf } from '../thresholds.ts'
import { percent, type Check, type Finding, type Series } from './check.ts'

/** Each drawing of a layer and how it stands out where it does so least; those whose outline is nowhere in the picture are left out. */
function edgesOn({ document, take, delivered }: Survey, layer: Layer): { one: Shown; edge: EdgeSeen }[] {
  const runs = exposures(take, layer.id)
  return shownOn({ document, take }, layer.id)
    .flatMap(({ drawing }) => {
      const edge = delivered?.edges.get(drawing.id)
      const run = edge && runs.find(({ start, frames }) => edge.frame >= start && edge.frame < start + frames)
      // From where it is so on: before that it stood out better.
      return run ? [{ one: { drawing, from: edge.frame, to: run.start + run.frames }, edge }] : []
    })
    .sort((a, b) => a.one.from - b.one.from)
}

const layersOf = ({ document }: Survey): Layer[] => layersInOrder(document).filter(isAnimated)

/** Whether painted figures stand out from what lies behind them, all along their outline. */
export const ground: Check = {
  words: 'figure and ground',
  asks: 'Does every painted figure stand out from what lies behind it?',
  needs: ['frames'],
  series: survey =>
    layersOf(survey).flatMap((layer): Series[] => {
      const all = edgesOn(survey, layer)
      if (all.length === 0) return []
      const values = (of: (edge: EdgeSeen) => number) =>
        all.map(({ one, edge }) => ({ frame: one.from, drawing: one.drawing.id, value: of(edge) }))
      const series = (what: string, unit: string, of: (edge: EdgeSeen) => number): Series => ({
        layer: layer.id,
        mark: null,
        name: `${layer.name}, ${what}`,
        unit,
        values: values(of),
        planned: [],
      })
      return [
        series('outline that is lost', '% of it', edge => 100 * edge.near),
        { ...series('lightness apart', 'of L*', edge => edge.lightness), isOnlyTold: true },
        { ...series('chroma apart', 'of C*', edge => edge.chroma), isOnlyTold: true },
      ]
    }),
  limits: ({ document }) => [100 * thresholdOf(document, 'ground')],
  inspect: survey =>
    layersOf(survey).flatMap(layer =>
      edgesOn(survey, layer)
        .filter(({ edge }) => edge.near > thresholdOf(survey.document, 'ground'))
        .map(({ one, edge }): Finding => {
          const { width, height } = survey.document.format
          return {
            severity: 'look',
            layer: layer.id,
            ...{ from: one.from, to: one.to, drawings: [one.drawing.id], marks: [] },
            figures: { near: edge.near, difference: edge.difference, lightness: edge.lightness, chroma: edge.chroma },
            at: edge.at && { x: edge.at.x * width, y: edge.at.y * height },
            isInPicture: true,
            words: `${one.drawing.number} is lost before what lies behind it along ${percent(edge.near)} of its outline: a paler or greyer ground, or a darker line, would part them`,
          }
        }),
    ),
}
