import { isAnimated, type Layer, type Mark } from '../../document/model/model.ts'
import { layersInOrder, marksOf } from '../../document/model/selectors.ts'
import { find } from '../../document/model/table.ts'
import { distance, type Point } from '../../geometry/point.ts'
import type { ModelHeight, ModelSheet } from '../../models/model.ts'
import { shownOn, type Shown, type Survey } from '../survey.ts'
import { thresholdOf } from '../thresholds.ts'
import { percent, type Check, type Finding, type Series } from './check.ts'

/** With fewer heights than these nothing is held against anything: two make the scale. */
const FEWEST = 3

/** A height of a model that a layer has a mark of the same name for. */
interface Level {
  readonly mark: Mark
  readonly height: ModelHeight
}

const alike = (one: string, other: string): boolean => one.trim().toLowerCase() === other.trim().toLowerCase()

/** The heights of a model that marks of a layer are called like, from the lowest up. */
const levelsOf = (marks: readonly Mark[], { heights }: ModelSheet): Level[] =>
  heights
    .flatMap(height => {
      const mark = marks.find(({ name }) => alike(name, height.name))
      return mark ? [{ mark, height }] : []
    })
    .sort((a, b) => a.height.share - b.height.share)
    .filter(({ height }, i, all) => i === 0 || height.share > (all[i - 1] as Level).height.share)

/** The model that a layer is held against: the one that most of its marks are called like the heights of, of two the one that is called like the layer. */
function modelOf({ document, models }: Pick<Survey, 'document' | 'models'>, layer: Layer) {
  const marks = marksOf(document, layer.id).filter(mark => mark.kind === 'point')
  const all = (models ?? [])
    .map(model => ({ model, levels: levelsOf(marks, model) }))
    .filter(({ levels }) => levels.length >= FEWEST)
  const own = ({ model }: (typeof all)[number]) => (alike(model.name, layer.name) ? 1 : 0)
  return all.sort((a, b) => b.levels.length - a.levels.length || own(b) - own(a))[0] ?? null
}

/** A stretch between two heights that follow one another, and how long it is for the whole, against the model: 1 is as there. */
interface Stretch {
  readonly from: Level
  readonly to: Level
  readonly share: number
  readonly at: Point
}

/**
 * The stretches of a drawing along the way from its lowest mark to its highest one, each over what it is on the model, as large as the drawing is. Marks count by how far up
 * that way they lie; none where fewer than three are placed, or the outermost lie on one another.
 */
function stretchesOn({ drawing }: Shown, levels: readonly Level[]): Stretch[] {
  const placed = levels.flatMap(level => {
    const at = find(drawing.marks, level.mark.id)
    return at ? [{ level, at }] : []
  })
  const [low, high] = [placed[0], placed[placed.length - 1]]
  if (!low || !high || placed.length < FEWEST) return []
  const length = distance(low.at, high.at)
  if (length < 1) return []
  const [ux, uy] = [(high.at.x - low.at.x) / length, (high.at.y - low.at.y) / length]
  const up = ({ x, y }: Point) => ((x - low.at.x) * ux + (y - low.at.y) * uy) / length
  const whole = high.level.height.share - low.level.height.share
  return placed.slice(1).map((one, i) => {
    const below = placed[i] as (typeof placed)[number]
    const wanted = (one.level.height.share - below.level.height.share) / whole
    return { from: below.level, to: one.level, share: (up(one.at) - up(below.at)) / wanted, at: one.at }
  })
}

const asked = (survey: Pick<Survey, 'document' | 'models'>) =>
  layersInOrder(survey.document)
    .filter(isAnimated)
    .flatMap(layer => {
      const found = modelOf(survey, layer)
      return found ? [{ layer, ...found }] : []
    })

/** Whether parts are as high on a figure as on its model sheet. */
export const model: Check = {
  words: 'on model',
  asks: 'Are parts as high on the figure as on its model sheet?',
  needs: ['marks'],
  isAsked: survey => asked(survey).length > 0,
  series: survey =>
    asked(survey).flatMap(({ layer, levels }) =>
      levels.slice(1).map((to, i): Series => ({
        layer: layer.id,
        mark: to.mark.id,
        name: `${layer.name}, ${(levels[i] as Level).mark.name} to ${to.mark.name}`,
        unit: '% of the model’s',
        values: shownOn(survey, layer.id).flatMap(one => {
          const stretch = stretchesOn(one, levels).find(({ to: up }) => up === to)
          return stretch ? [{ frame: one.from, drawing: one.drawing.id, value: 100 * stretch.share }] : []
        }),
        planned: [],
      })),
    ),
  limits({ document }) {
    const off = thresholdOf(document, 'model')
    return [100 * (1 - off), 100 * (1 + off)]
  },
  inspect: survey =>
    asked(survey).flatMap(({ layer, levels, model: sheet }) =>
      shownOn(survey, layer.id).flatMap((one): Finding[] => {
        const off = ({ share }: Stretch) => Math.abs(share - 1)
        const worst = stretchesOn(one, levels).sort((a, b) => off(b) - off(a))[0]
        if (!worst || off(worst) <= thresholdOf(survey.document, 'model')) return []
        const { from, to, share, at } = worst
        return [
          {
            severity: 'look',
            layer: layer.id,
            ...{ from: one.from, to: one.to, drawings: [one.drawing.id], marks: [from.mark.id, to.mark.id], at },
            figures: { share },
            words: `from ${from.mark.name} to ${to.mark.name} ${one.drawing.number} has ${percent(share)} of what ${sheet.name} has there, as large as it is`,
          },
        ]
      }),
    ),
}
