import { isAnimated } from '../../document/model/model.ts'
import { isBlank, layersInOrder, referenceKey } from '../../document/model/selectors.ts'
import { shownOn, type Survey } from '../survey.ts'
import { thresholdOf } from '../thresholds.ts'
import { compareVolume } from '../volume.ts'
import { percent, type Check, type Finding, type Series, type SeriesValue } from './check.ts'

/** Every silhouette against that of the layer's first key; where an outline stands open, that is said instead. */
export const volume: Check = {
  words: 'volume',
  asks: 'Does every drawing have as much body as the first key?',
  needs: ['shapes'],
  series: shares,
  limits({ document }) {
    const off = thresholdOf(document, 'volume')
    return [100 * (1 - off), 100 * (1 + off)]
  },
  inspect: survey =>
    layersInOrder(survey.document)
      .filter(layer => isAnimated(layer) && layer.volume !== 'off')
      .flatMap((layer): Finding[] => {
        const reference = referenceKey(survey.document, survey.take, layer.id)
        const there = reference && survey.shapes.get(reference.id)
        if (!reference || !there) return []
        return shownOn(survey, layer.id).flatMap(({ drawing, from, to }): Finding[] => {
          const here = survey.shapes.get(drawing.id)
          if (!here || isBlank(drawing)) return []
          const found = { layer: layer.id, from, to, marks: [] }
          if (here.open) {
            const words = `outline of ${drawing.number} open here`
            return [{ ...found, severity: 'note', drawings: [drawing.id], figures: {}, at: here.open, words }]
          }
          const read = there.open
            ? null
            : compareVolume(here, there, layer.volume, thresholdOf(survey.document, 'volume'))
          if (!read || read.verdict === 'kept') return []
          const what = layer.volume === 'round' ? 'volume' : 'area'
          return [
            {
              ...found,
              severity: 'look',
              drawings: [drawing.id, reference.id],
              figures: { share: read.share },
              at: here.centroid,
              words: `${drawing.number} has ${percent(read.share)} of the ${what} of ${reference.number}`,
            },
          ]
        })
      }),
}

/** The body of every drawing against that of the first key, layer by layer; of what stands open nothing is told. */
function shares(survey: Survey): Series[] {
  return layersInOrder(survey.document)
    .filter(layer => isAnimated(layer) && layer.volume !== 'off')
    .flatMap((layer): Series[] => {
      const reference = referenceKey(survey.document, survey.take, layer.id)
      const there = reference && survey.shapes.get(reference.id)
      if (!there || there.open) return []
      const values = shownOn(survey, layer.id).flatMap(({ drawing, from }): SeriesValue[] => {
        const here = survey.shapes.get(drawing.id)
        const read = here && !here.open ? compareVolume(here, there, layer.volume) : null
        return read ? [{ frame: from, drawing: drawing.id, value: 100 * read.share }] : []
      })
      const unit = `% of ${reference.number}`
      return values.length > 1 ? [{ layer: layer.id, mark: null, name: layer.name, unit, values, planned: [] }] : []
    })
}
