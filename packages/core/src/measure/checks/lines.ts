import { isAnimated, isStroke, type Drawing, type Layer, type Stroke } from '../../document/model/model.ts'
import { layersInOrder } from '../../document/model/selectors.ts'
import { find } from '../../document/model/table.ts'
import { followersOf, sheetsByNumber } from '../../document/acts/paintSheets.ts'
import { IDENTITY, scaleOf } from '../../geometry/matrix.ts'
import { packSamples } from '../../geometry/samples.ts'
import { counted } from '../../time/counted.ts'
import { median } from '../../median.ts'
import { medianWidth } from '../../raster/index.ts'
import { shownOn, type Shown, type Survey } from '../survey.ts'
import { thresholdOf } from '../thresholds.ts'
import { trembles } from '../trembles.ts'
import { percent, type Check, type Finding, type Fix, type Series } from './check.ts'

/** Of fewer drawings none is unlike the others. */
const FEWEST = 4

const round = (px: number): number => Math.round(px * 10) / 10

/** Whether final lines are as wide on every drawing, hold the paint in, and nothing has slipped from the hand. */
export const lines: Check = {
  words: 'lines',
  asks: 'Do the lines hold the paint in, and are they as wide on every drawing?',
  needs: ['shapes'],
  fixesApart: true,
  series: survey => [...widths(survey), ...wobbles(survey)],
  *prepare(survey) {
    for (const { shown } of linedLayers(survey)) yield* trembles(survey, shown)
  },
  fix(survey, { drawings: [id], figures, at }, newId) {
    const drawing = find(survey.document.drawings, id ?? '')
    if (!drawing) return null
    if (figures.gapPx !== undefined) return closeGap(survey, drawing, at, newId, 'seen')
    if (figures.stray !== undefined) return takeOff(survey, drawing, at)
    return figures.usualPx === undefined ? null : evenOut(drawing, figures.widthPx ?? 0, figures.usualPx)
  },
  /** Where another part lies over the gap, or the line is to stand open: a hair holds the paint, and is not seen. */
  otherFix(survey, { drawings: [id], figures, at }, newId) {
    const drawing = find(survey.document.drawings, id ?? '')
    return drawing && figures.gapPx !== undefined ? closeGap(survey, drawing, at, newId, 'out of sight') : null
  },
  inspect: survey =>
    linedLayers(survey).flatMap(({ layer, shown }) => [
      ...uneven(survey, layer, shown),
      ...leaks(survey, layer, shown),
      ...strays(survey, layer, shown),
      ...trembling(survey, layer, shown),
    ]),
}

/** Layers whose lines are final: paint lies under them or with them, or they are art over a rough. Of roughs nothing is asked. */
function linedLayers(survey: Survey): { layer: Layer; shown: Shown[] }[] {
  const { document } = survey
  return layersInOrder(document)
    .filter(isAnimated)
    .flatMap(layer => {
      const isPaintedUnder = followersOf(document, layer.id).some(other => !other.counted)
      const shown = shownOn(survey, layer.id)
      const isPainted = shown.some(({ drawing }) => hasPaint(drawing))
      return isPaintedUnder || isPainted || layer.follows !== null ? [{ layer, shown }] : []
    })
}

const about = (layer: Layer, { drawing, from, to }: Shown) => ({
  layer: layer.id,
  from,
  to,
  drawings: [drawing.id],
  marks: [],
})

const withLines = ({ facts }: Survey, shown: readonly Shown[]) =>
  shown.flatMap(one => {
    const lines = facts.get(one.drawing.id)?.lines
    return lines && lines.count > 0 ? [{ one, lines }] : []
  })

function widths(survey: Survey): Series[] {
  return linedLayers(survey).flatMap(({ layer, shown }): Series[] => {
    const all = withLines(survey, shown)
    const values = all.map(({ one, lines: { widthPx } }) => ({
      frame: one.from,
      drawing: one.drawing.id,
      value: widthPx,
    }))
    return values.length > 0
      ? [{ layer: layer.id, mark: null, what: 'width', name: layer.name, unit: 'px wide', values, planned: [] }]
      : []
  })
}

const tremblingOn = (survey: Survey, shown: readonly Shown[]) => [...trembles(survey, shown)].flatMap(one => one ?? [])

/** How the lines of each drawing tremble against the drawings beside it. */
function wobbles(survey: Survey): Series[] {
  return linedLayers(survey).flatMap(({ layer, shown }): Series[] => {
    const values = tremblingOn(survey, shown).map(({ one, px }) => ({
      frame: one.from,
      drawing: one.drawing.id,
      value: px,
    }))
    const name = `${layer.name}, tremble`
    return values.length > 0
      ? [{ layer: layer.id, mark: null, what: 'tremble', name, unit: 'px to the side', values, planned: [] }]
      : []
  })
}

/** Lines of fewer drawings do not say what is usual; what trembles less, px, nobody sees. */
const FEWEST_TREMBLES = 8
const LEAST_TREMBLE_PX = 0.75
/** So many robust standard deviations above the usual is no chance: median absolute deviations times 1.4826 (P. J. Rousseeuw and C. Croux, 1993). */
const DEVIATIONS = 4
const MAD_TO_SIGMA = 1.4826

/** Drawings that were traced with a less steady hand than the others of their layer. */
function trembling(survey: Survey, layer: Layer, shown: readonly Shown[]): Finding[] {
  if (layer.volume === 'off') return []
  const all = tremblingOn(survey, shown)
  // The first and the last have a drawing on one side only.
  if (all.length < FEWEST_TREMBLES - 2) return []
  const usualPx = median(all.map(({ px }) => px))
  const spread = MAD_TO_SIGMA * median(all.map(({ px }) => Math.abs(px - usualPx)))
  const most = Math.max(
    LEAST_TREMBLE_PX,
    usualPx * thresholdOf(survey.document, 'wobble'),
    usualPx + DEVIATIONS * spread,
  )
  return all
    .filter(({ px }) => px > most)
    .map(({ one, px }): Finding => ({
      severity: 'note',
      what: 'tremble',
      ...about(layer, one),
      figures: { tremblePx: px, tremblesPx: usualPx },
      at: null,
      words: `lines of ${one.drawing.number} tremble against both drawings beside it: by ${round(px)} px, ${round(usualPx)} otherwise`,
    }))
}

function uneven(survey: Survey, layer: Layer, shown: readonly Shown[]): Finding[] {
  // What comes and goes is drawn with other lines when it comes than when it goes.
  if (layer.volume === 'off') return []
  const all = withLines(survey, shown)
  if (all.length < FEWEST) return []
  const usualPx = medianWidth(all.map(({ lines }) => lines))
  return all.flatMap(({ one, lines: { widthPx } }): Finding[] => {
    if (Math.abs(widthPx / usualPx - 1) <= thresholdOf(survey.document, 'width')) return []
    const told = widthPx > usualPx ? 'wider' : 'thinner'
    return [
      {
        severity: 'look',
        what: 'width',
        ...about(layer, one),
        figures: { widthPx, usualPx },
        at: null,
        words: `lines of ${one.drawing.number} are ${told}: ${round(widthPx)} px, ${round(usualPx)} otherwise`,
      },
    ]
  })
}

/** Where paint has been laid it holds by itself: asked are drawings that are still to be painted. */
function leaks(survey: Survey, layer: Layer, shown: readonly Shown[]): Finding[] {
  const sheets = sheetsByNumber(survey.document, layer.id)
  const isPainted = (drawing: Drawing) => hasPaint(drawing) || (sheets.get(drawing.number) ?? []).some(hasPaint)
  const unpainted = shown.filter(one => !isPainted(one.drawing))
  return withLines(survey, unpainted).flatMap(({ one, lines }) =>
    lines.leaks.map(({ at, gapPx }): Finding => ({
      severity: 'look',
      what: 'leak',
      ...about(layer, one),
      figures: { gapPx },
      at,
      words: `a line of ${one.drawing.number} stands open by ${round(gapPx)} px: paint would run out`,
    })),
  )
}

function strays({ facts }: Survey, layer: Layer, shown: readonly Shown[]): Finding[] {
  const on = (one: Shown | undefined) => (one ? (facts.get(one.drawing.id)?.lines.strays ?? []) : [])
  return shown.flatMap((one, i) => {
    // What the drawings beside it have too, an eye or a drop, is drawn on purpose.
    if (on(shown[i - 1]).length > 0 || on(shown[i + 1]).length > 0) return []
    return on(one).map(({ at }): Finding => ({
      severity: 'look',
      what: 'stray',
      ...about(layer, one),
      figures: { stray: 1 },
      at,
      words: `a short stroke of ${one.drawing.number} lies far from everything else`,
    }))
  })
}

const hasPaint = ({ elements }: Drawing): boolean => Object.values(elements).some(one => one.kind === 'shape')

/** The element that is told of at a place. */
function strokeAt(drawing: Drawing, element: string | undefined): Stroke | null {
  const found = element === undefined ? undefined : find(drawing.elements, element)
  return found && isStroke(found) ? found : null
}

/** A line as thin as this, px, is not seen, and bounds paint like any other. */
const HAIR_PX = 0.05

/** A short line leads on to the other: like the one that ends there, or too thin to be seen. */
function closeGap(
  { facts }: Survey,
  drawing: Drawing,
  at: Finding['at'],
  newId: () => string,
  how: 'seen' | 'out of sight',
): Fix | null {
  const leak = facts.get(drawing.id)?.lines.leaks.find(one => one.at.x === at?.x && one.at.y === at.y)
  const line = strokeAt(drawing, leak?.element)
  if (!leak || !line) return null
  const samples = newId()
  const bridge: Stroke = {
    ...line,
    id: newId(),
    samples,
    part: null,
    matrix: null,
    width: how === 'seen' ? line.width * scaleOf(line.matrix ?? IDENTITY) : HAIR_PX,
  }
  const path = packSamples([
    { ...leak.at, pressure: 0.5 },
    { x: (leak.at.x + leak.to.x) / 2, y: (leak.at.y + leak.to.y) / 2, pressure: 0.5 },
    { ...leak.to, pressure: 0.5 },
  ])
  return {
    words: how === 'seen' ? `close the gap on ${drawing.number}` : 'close it out of sight',
    ops: [{ kind: 'elements.add', drawing: drawing.id, elements: [bridge] }],
    samples: new Map([[samples, path]]),
  }
}

function takeOff({ facts }: Survey, drawing: Drawing, at: Finding['at']): Fix | null {
  const stray = facts.get(drawing.id)?.lines.strays.find(one => one.at.x === at?.x && one.at.y === at.y)
  if (!stray || !strokeAt(drawing, stray.element)) return null
  return {
    words: `take the stroke off ${drawing.number}`,
    ops: [{ kind: 'elements.remove', drawing: drawing.id, ids: [stray.element] }],
  }
}

function evenOut(drawing: Drawing, widthPx: number, usualPx: number): Fix | null {
  const own = Object.values(drawing.elements).filter(element => isStroke(element) && element.kind === 'line')
  if (own.length === 0 || !(widthPx > 0)) return null
  const by = usualPx / widthPx
  const changes = own.flatMap(element =>
    isStroke(element) ? [{ id: element.id, patch: { width: element.width * by } }] : [],
  )
  return {
    words: `make ${counted(changes.length, 'line')} of ${drawing.number} ${percent(by)} as wide`,
    ops: [{ kind: 'elements.set', drawing: drawing.id, changes }],
  }
}
