import { colourDifference } from '../../colour/difference.ts'
import { sheetsByNumber } from '../../document/acts/paintSheets.ts'
import { isAnimated, type Drawing, type Layer } from '../../document/model/model.ts'
import { isBlank, layersInOrder } from '../../document/model/selectors.ts'
import { find } from '../../document/model/table.ts'
import type { Areas } from '../../raster/areas.ts'
import { saysOf } from '../said.ts'
import { shownOn, type Shown, type Survey } from '../survey.ts'
import { thresholdOf } from '../thresholds.ts'
import { percent, type Check, type Finding, type Series } from './check.ts'

/** Less of a colour than this, px², comes and goes with the line. */
const LEAST_AREA = 200

/** A layer that carries something with a body, its drawings, and the sheets that go along with them by their numbers. */
interface Body {
  readonly layer: Layer
  readonly shown: readonly Shown[]
  readonly sheets: ReadonlyMap<number, readonly Drawing[]>
}

/** Layers with something to be measured. Mist and blinking eyes come and go, and blank drawings have no colours. */
const bodies = (survey: Survey): Body[] =>
  layersInOrder(survey.document)
    .filter(layer => isAnimated(layer) && layer.volume !== 'off')
    .map(layer => ({
      layer,
      shown: shownOn(survey, layer.id).filter(({ drawing }) => !isBlank(drawing)),
      sheets: sheetsByNumber(survey.document, layer.id),
    }))
    .filter(({ shown }) => shown.length > 0)

/** Areas of the colours of a layer's drawings, px² by swatch, with the sheets that go along; null where they are not measured. */
export function areasOnLayer(survey: Survey, layer: Layer): (drawing: Drawing) => Areas | null {
  const sheets = sheetsByNumber(survey.document, layer.id)
  return drawing => areasOn(survey, { sheets }, { drawing })
}

/** A drawing and the sheets that go along with it: paint under lines is measured with them. */
function areasOn(
  { facts }: Survey,
  { sheets }: Pick<Body, 'sheets'>,
  { drawing }: Pick<Shown, 'drawing'>,
): Areas | null {
  const own = facts.get(drawing.id)?.areas
  if (!own) return null
  const sum = new Map(Object.entries(own))
  for (const sheet of sheets.get(drawing.number) ?? []) {
    const areas = facts.get(sheet.id)?.areas
    if (!areas) return null
    for (const [swatch, area] of Object.entries(areas)) sum.set(swatch, (sum.get(swatch) ?? 0) + area)
  }
  return Object.fromEntries(sum)
}

/** Whether every colour keeps about its size from drawing to drawing. */
export const paint: Check = {
  words: 'colours',
  asks: 'Does every colour keep its size from drawing to drawing?',
  needs: ['shapes'],
  series: survey =>
    bodies(survey).flatMap(body => {
      const { layer, shown } = body
      const areas = shown.map(one => areasOn(survey, body, one))
      const swatches = [...new Set(areas.flatMap(one => Object.keys(one ?? {})))]
      return swatches.map((swatch): Series => ({
        layer: layer.id,
        mark: null,
        name: `${layer.name}, ${find(survey.document.swatches, swatch)?.name ?? swatch}`,
        unit: 'px²',
        values: shown.flatMap(({ from, drawing }, i) => {
          const own = areas[i]
          return own ? [{ frame: from, drawing: drawing.id, value: Math.round(own[swatch] ?? 0) }] : []
        }),
        planned: [],
      }))
    }),
  inspect: survey => [...grown(survey), ...nearlyEqual(survey)],
}

const grown = (survey: Survey): Finding[] =>
  bodies(survey).flatMap(body => {
    const { layer, shown } = body
    const areas = shown.map(one => areasOn(survey, body, one))
    // What is said to come and go grows and shrinks as well.
    const goes = new Set(
      saysOf(survey.document, 'goes').flatMap(({ layer: on, about }) => (on === layer.id ? about : [])),
    )
    const times = thresholdOf(survey.document, 'colour')
    return shown.flatMap((one, i): Finding[] => {
      const [before, own, after] = [areas[i - 1], areas[i], areas[i + 1]]
      if (!before || !own || !after) return []
      return Object.keys({ ...before, ...own }).flatMap((swatch): Finding[] => {
        if (goes.has(swatch)) return []
        const [a, b, c] = [before[swatch] ?? 0, own[swatch] ?? 0, after[swatch] ?? 0]
        // What is not there at all is told by the grid of parts.
        if (Math.min(a, b, c) === 0 || Math.max(a, c) < LEAST_AREA) return []
        const isMore = b > times * Math.max(a, c)
        if (!isMore && b >= Math.min(a, c) / times) return []
        const name = find(survey.document.swatches, swatch)?.name ?? swatch
        const share = b / ((a + c) / 2)
        return [
          {
            severity: 'look',
            layer: layer.id,
            from: one.from,
            to: one.to,
            drawings: [one.drawing.id],
            marks: [],
            figures: { area: b, before: a, after: c },
            at: null,
            words: `${name} of ${one.drawing.number} has ${percent(share)} of its size on ${shown[i - 1]?.drawing.number} and ${shown[i + 1]?.drawing.number}`,
          },
        ]
      })
    })
  })

/** Colours of a layer that are two swatches and hardly two colours: one was mixed anew instead of taken. */
function nearlyEqual(survey: Survey): Finding[] {
  const { document } = survey
  const most = thresholdOf(document, 'near')
  return bodies(survey).flatMap(body => {
    const { layer, shown } = body
    // The first drawing that has each colour.
    const first = new Map<string, Shown>()
    for (const one of shown) {
      for (const swatch of Object.keys(areasOn(survey, body, one) ?? {})) if (!first.has(swatch)) first.set(swatch, one)
    }
    const used = [...first].flatMap(([id, one]) => {
      const swatch = find(document.swatches, id)
      return swatch ? [{ swatch, one }] : []
    })
    return used.flatMap(({ swatch: a }, i) =>
      used.slice(i + 1).flatMap(({ swatch: b, one }): Finding[] => {
        const difference = colourDifference(a.colour, b.colour)
        if (difference >= most) return []
        return [
          {
            severity: 'note',
            layer: layer.id,
            ...{ from: one.from, to: one.to, drawings: [one.drawing.id], marks: [], at: null },
            figures: { difference },
            words: `${a.name} and ${b.name} are nearly the same colour: ${Math.round(difference * 10) / 10} of ΔE apart`,
          },
        ]
      }),
    )
  })
}
