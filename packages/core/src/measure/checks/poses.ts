import { isAnimated, type Layer } from '../../document/model/model.ts'
import { isBlank, layersInOrder } from '../../document/model/selectors.ts'
import { posesAlike } from '../../raster/pose.ts'
import { shownOn, solidityOn, type Shown, type Survey } from '../survey.ts'
import { thresholdOf } from '../thresholds.ts'
import { percent, type Check, type Finding, type Series } from './check.ts'

/** The keys of a layer in the order in which they are seen, each once. */
const keysOn = (survey: Survey, layer: Layer): Shown[] =>
  shownOn(survey, layer.id).filter(({ drawing }) => drawing.role === 'key' && !isBlank(drawing))

/** A pose that is to be read is there for as long, seconds: of drawings that are all keys, one after the other, nothing is asked. */
const READ_S = 1 / 4

/** Layers with a figure: what fills its hull, a ball or a face, tells nothing by its outline. */
const figures = (survey: Survey): Layer[] =>
  layersInOrder(survey.document).filter(
    layer =>
      isAnimated(layer) &&
      layer.volume !== 'off' &&
      (solidityOn(survey, layer.id) ?? 0) < thresholdOf(survey.document, 'solid'),
  )

/** Each key, and how alike its silhouette is to the one before. */
const pairs = (survey: Survey, layer: Layer) =>
  keysOn(survey, layer).flatMap((key, i, all) => {
    const before = all[i - 1]
    if (before && key.from - before.from < READ_S * survey.document.format.fps) return []
    const [a, b] = [survey.shapes.get(before?.drawing.id ?? '')?.pose, survey.shapes.get(key.drawing.id)?.pose]
    return before && a && b ? [{ key, before, alike: posesAlike(a, b) }] : []
  })

/** A limb that makes less than this of the outline lies wholly inside it: what is left is where it joins. */
const INSIDE = 0.01

/** Limbs that are not seen in the silhouette of a key. */
const hidden = (survey: Survey, layer: Layer): Finding[] =>
  keysOn(survey, layer).flatMap(({ drawing, from, to }) => {
    const shape = survey.shapes.get(drawing.id)
    if (to - from < READ_S * survey.document.format.fps) return []
    return Object.entries(shape?.limbs ?? {}).flatMap(([label, share]): Finding[] =>
      share >= INSIDE
        ? []
        : [
            {
              severity: 'note',
              layer: layer.id,
              ...{ from, to, drawings: [drawing.id], marks: [] },
              figures: { share },
              at: shape?.centroid ?? null,
              words: `the ${label} limbs of ${drawing.number} lie wholly inside its outline: as a shape they are not there`,
            },
          ],
    )
  })

/** Whether two poses that tell something, one after the other, are told apart by their silhouettes alone, and whether limbs are seen in them. */
export const poses: Check = {
  words: 'reads as a shape',
  asks: 'Do keys read by their silhouettes alone, each apart from the one before, and with their limbs?',
  needs: ['shapes'],
  limits: ({ document }) => [100 * thresholdOf(document, 'alike')],
  series: survey =>
    figures(survey).flatMap((layer): Series[] => {
      const values = pairs(survey, layer).map(({ key, alike }) => ({
        frame: key.from,
        drawing: key.drawing.id,
        value: 100 * alike,
      }))
      return values.length > 0
        ? [{ layer: layer.id, mark: null, name: layer.name, unit: '% as the key before', values, planned: [] }]
        : []
    }),
  inspect: survey => figures(survey).flatMap(layer => [...tooAlike(survey, layer), ...hidden(survey, layer)]),
}

const tooAlike = (survey: Survey, layer: Layer): Finding[] =>
  pairs(survey, layer)
    .filter(({ alike }) => alike > thresholdOf(survey.document, 'alike'))
    .map(({ key, before, alike }): Finding => ({
      severity: 'note',
      layer: layer.id,
      ...{ from: key.from, to: key.to, drawings: [key.drawing.id, before.drawing.id], marks: [] },
      figures: { alike },
      at: survey.shapes.get(key.drawing.id)?.centroid ?? null,
      words: `the silhouettes of ${before.drawing.number} and ${key.drawing.number} are ${percent(alike)} alike: as shapes they read as one pose`,
    }))
