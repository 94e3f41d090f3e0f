import { guidePlan, guidesOf } from '../../document/model/guides.ts'
import { isAnimated, type Drawing, type ShotDocument } from '../../document/model/model.ts'
import { isBlank, layersInOrder, referenceKey } from '../../document/model/selectors.ts'
import { expectedOf } from '../../motion/index.ts'
import type { Shape } from '../../raster/shapeOf.ts'
import { nthPlanned, stretchOf } from '../planned.ts'
import { shownOn, solidityOn, type Survey } from '../survey.ts'
import { thresholdOf } from '../thresholds.ts'
import { compareVolume } from '../volume.ts'
import { percent, type Check, type Finding, type Series, type SeriesValue } from './check.ts'

/** Straight ahead a body may be off its first key by so much more: 12 instead of 8 per cent. */
const DRIFTS = 1.5

/** By how much a body may be off its first key, as the shot is drawn. */
const mostOff = (document: ShotDocument): number =>
  thresholdOf(document, 'volume') * (document.way === 'straight-ahead' ? DRIFTS : 1)

/** Layers that show a body, and what it is held against. */
const bodies = (survey: Survey) =>
  layersInOrder(survey.document)
    .filter(layer => isAnimated(layer) && layer.volume !== 'off')
    .flatMap(layer => {
      const reference = referenceKey(survey.document, survey.take, layer.id)
      const there = reference && survey.shapes.get(reference.id)
      return reference && there ? [{ layer, reference, there }] : []
    })

/**
 * Every silhouette against that of the layer's first key, and straight ahead also against the one before; where an outline stands open, that is said instead. Asked of
 * bodies: of shapes that fill their convex hull, and of what is said to be round. A figure that spreads its limbs changes its area as it should.
 */
export const volume: Check = {
  words: 'volume',
  asks: 'Does every drawing have as much body as the first key?',
  needs: ['shapes'],
  series: survey => [...shares(survey), ...stretches(survey)],
  limits({ document }) {
    const off = mostOff(document)
    return [100 * (1 - off), 100 * (1 + off)]
  },
  inspect: survey =>
    bodies(survey)
      .filter(
        ({ layer }) =>
          layer.volume === 'round' || (solidityOn(survey, layer.id) ?? 1) >= thresholdOf(survey.document, 'solid'),
      )
      .flatMap(body => ofBody(survey, body)),
}

function ofBody(survey: Survey, { layer, reference, there }: ReturnType<typeof bodies>[number]): Finding[] {
  const isAhead = survey.document.way === 'straight-ahead'
  const most = mostOff(survey.document)
  const what = layer.volume === 'round' ? 'volume' : 'area'
  let before: { readonly drawing: Drawing; readonly shape: Shape } | null = null
  return shownOn(survey, layer.id).flatMap(({ drawing, from, to }): Finding[] => {
    const here = survey.shapes.get(drawing.id)
    if (!here || isBlank(drawing)) return []
    const found = { layer: layer.id, from, to, marks: [] }
    if (here.open) {
      const words = `outline of ${drawing.number} open here`
      return [{ ...found, severity: 'note', drawings: [drawing.id], figures: {}, at: here.open, words }]
    }
    const held = [
      ...(there.open ? [] : [{ drawing: reference, shape: there, most }]),
      ...(isAhead && before ? [{ ...before, most: thresholdOf(survey.document, 'step') }] : []),
    ]
    before = { drawing, shape: here }
    const off = held.flatMap(other => {
      const read = compareVolume(here, other.shape, layer.volume, other.most)
      return read && read.verdict !== 'kept' ? [{ ...read, drawing: other.drawing }] : []
    })[0]
    if (!off) return []
    const words = `${drawing.number} has ${percent(off.share)} of the ${what} of ${off.drawing.number}`
    return [
      {
        ...found,
        severity: 'look',
        drawings: [drawing.id, off.drawing.id],
        figures: { share: off.share },
        at: here.centroid,
        words,
      },
    ]
  })
}

/** The body of every drawing against that of the first key, layer by layer; of what stands open nothing is told. */
const shares = (survey: Survey): Series[] =>
  bodies(survey).flatMap(({ layer, reference, there }): Series[] => {
    if (there.open) return []
    const values = shownOn(survey, layer.id).flatMap(({ drawing, from }): SeriesValue[] => {
      const here = survey.shapes.get(drawing.id)
      const read = here && !here.open ? compareVolume(here, there, layer.volume) : null
      return read ? [{ frame: from, drawing: drawing.id, value: 100 * read.share }] : []
    })
    const unit = `% of ${reference.number}`
    return values.length > 1 ? [{ layer: layer.id, mark: null, name: layer.name, unit, values, planned: [] }] : []
  })

/** How far every body is stretched, and how far a guide that lies under it wanted it to be. */
const stretches = (survey: Survey): Series[] =>
  bodies(survey).flatMap(({ layer }): Series[] => {
    const shown = shownOn(survey, layer.id).flatMap(({ drawing, from }) => {
      const shape = survey.shapes.get(drawing.id)
      return shape && shape.area > 0 && !shape.open ? [{ drawing, from, shape }] : []
    })
    const values = shown.map(({ drawing, from, shape }): SeriesValue => ({
      frame: from,
      drawing: drawing.id,
      value: stretchOf(shape.halfAxes),
    }))
    const planned = shown.flatMap(({ drawing, from }): SeriesValue[] => {
      const body = plannedBody(survey, layer.id, drawing.id, from)
      return body ? [{ frame: from, drawing: drawing.id, value: stretchOf(body.axes) }] : []
    })
    return values.length > 1
      ? [
          {
            layer: layer.id,
            mark: null,
            name: `${layer.name}, stretch`,
            unit: 'times as long as a circle',
            isOnlyTold: true,
            values,
            planned,
          },
        ]
      : []
  })

/** The body that a guide plans for a drawing of its layer. */
function plannedBody({ document, take }: Survey, layer: string, drawing: string, frame: number) {
  for (const guide of guidesOf(document, take.id).filter(one => one.layer === layer)) {
    const plan = guidePlan(document, guide)
    const nth = nthPlanned(guide, plan, drawing, frame)
    const body = nth === null ? null : expectedOf(guide.recipe, plan, nth).body
    if (body) return body
  }
  return null
}
