import { carriedOn, seenPath } from '../../document/model/carried.ts'
import { isAnimated, type CutName, type Drawing, type Layer, type ShotDocument } from '../../document/model/model.ts'
import { exposures, isBlank, layersInOrder } from '../../document/model/selectors.ts'
import { find } from '../../document/model/table.ts'
import type { Matrix } from '../../geometry/matrix.ts'
import { centreOf, type Box } from '../../geometry/point.ts'
import { cutBox, cutInWords, hasShape, safeBox } from '../../work/seen.ts'
import { boxSeen, framingOf, wayInto, type Framing, type Side } from '../framing.ts'
import { shownOn, type Survey } from '../survey.ts'
import { thresholdOf } from '../thresholds.ts'
import { percent, type Check, type Finding, type Series } from './check.ts'
import { moveThere } from './moved.ts'

/** A part of the picture in which things are to stay. */
interface Part {
  readonly name: 'picture' | 'safe' | CutName
  readonly box: Box
  /** what lies beyond it, on a plot */
  readonly outside: string
  readonly severity: Finding['severity']
  /** what is said of the share of some drawings that lies beyond it */
  said(share: string, numbers: string, where: string): string
}

/** The picture, what of it is safe from cut edges, and what the shapes leave that it is cut to. */
function partsOf({ format, cuts }: ShotDocument): Part[] {
  const { width, height } = format
  const whole = { left: 0, top: 0, right: width, bottom: height }
  return [
    {
      name: 'picture',
      box: whole,
      outside: 'outside the picture',
      severity: 'look',
      said: (share, numbers, where) => `${share} of ${numbers} lies outside the picture, ${where}`,
    },
    {
      name: 'safe',
      box: safeBox(width, height),
      outside: 'outside the safe margin',
      severity: 'note',
      said: (share, numbers, where) => `${share} of ${numbers} lies in the safe margin, ${where}: edges may be cut off`,
    },
    ...cuts
      .filter(cut => !hasShape(format, cut))
      .map((cut): Part => ({
        name: cut,
        box: cutBox(format, cut),
        outside: `lost when cut to ${cutInWords(cut)}`,
        severity: 'look',
        said: (share, numbers, where) => `cut to ${cutInWords(cut)}, ${share} of ${numbers} is lost, ${where}`,
      })),
  ]
}

const WHERE: Readonly<Record<Side, string>> = {
  left: 'on the left',
  right: 'on the right',
  top: 'at the top',
  bottom: 'at the bottom',
}

/** A drawing on the frames on which it lies in one place: from, and up to but not with. */
interface Laid {
  readonly drawing: Drawing
  readonly from: number
  readonly to: number
  readonly through: Matrix | null
}

/** What a layer shows, where it is seen: each drawing once, or wherever the layer is carried. */
function laidOn(survey: Survey, layer: Layer): Laid[] {
  const { document, take } = survey
  const path = seenPath(document, take, layer.id, 'sent off')
  // What is laid down without end always reaches beyond the picture.
  if (path && path.closes !== null) return []
  const has = ({ drawing }: { readonly drawing: Drawing }) =>
    !isBlank(drawing) && survey.shapes.get(drawing.id)?.coverage
  if (!path)
    return shownOn(survey, layer.id)
      .filter(has)
      .map(one => ({ ...one, through: null }))
  const laid: Laid[] = []
  for (const { drawing: id, start, frames } of exposures(take, layer.id)) {
    const drawing = find(document.drawings, id as string)
    if (!drawing || !has({ drawing })) continue
    for (let frame = start; frame < start + frames; frame++) {
      const through = carriedOn(document, take, layer.id, frame, 'sent off')
      const last = laid.at(-1)
      const isSame = last?.drawing === drawing && last.to === frame && `${last.through}` === `${through}`
      if (last && isSame) laid[laid.length - 1] = { ...last, to: frame + 1 }
      else laid.push({ drawing, from: frame, to: frame + 1, through })
    }
  }
  return laid
}

const bodiesOf = (survey: Survey): { layer: Layer; laid: Laid[] }[] =>
  layersInOrder(survey.document)
    .filter(layer => isAnimated(layer) && layer.volume !== 'off')
    .map(layer => ({ layer, laid: laidOn(survey, layer) }))
    .filter(({ laid }) => laid.length > 0)

const coverageOn = ({ shapes }: Survey, { drawing }: Laid) => {
  const coverage = shapes.get(drawing.id)?.coverage
  if (!coverage) throw new Error(`drawing ${drawing.id} is not measured`)
  return coverage
}

/** Whether what is drawn stays in the picture, wherever its layer is carried. What comes in from its edge, or goes out for good, is meant to. */
export const framed: Check = {
  words: 'in the picture',
  asks: 'Is anything cut off by an edge that is not cut off elsewhere: of the picture, the safe margin, other shapes?',
  needs: ['shapes'],
  series: survey => bodiesOf(survey).flatMap(({ layer, laid }) => seriesOf(survey, layer, laid)),
  limits: ({ document }) => [100 * thresholdOf(document, 'cut')],
  *prepare(survey) {
    const parts = partsOf(survey.document)
    for (const { laid } of bodiesOf(survey)) {
      for (const one of laid) yield parts.map(part => framingOf(coverageOn(survey, one), one.through, part.box))
    }
  },
  inspect: survey =>
    bodiesOf(survey)
      .flatMap(({ layer, laid }) => {
        const parts = partsOf(survey.document)
        const [picture] = parts
        const lost = laid.map(one =>
          picture ? framingOf(coverageOn(survey, one), one.through, picture.box).outside : 0,
        )
        return parts.flatMap(part => ofPart(survey, layer, laid, part, lost))
      })
      .sort((a, b) => a.from - b.from),
  // A drawing that goes in is moved there, with what is painted for it.
  fix: moveThere,
}

function seriesOf(survey: Survey, layer: Layer, laid: readonly Laid[]): Series[] {
  const series = (what: string, unit: string, value: (one: Laid) => number): Series => ({
    layer: layer.id,
    mark: null,
    name: `${layer.name}, ${what}`,
    unit,
    values: laid.map(one => ({ frame: one.from, drawing: one.drawing.id, value: value(one) })),
    planned: [],
  })
  const { height } = survey.document.format
  const room = (one: Laid) => (100 * boxSeen(coverageOn(survey, one), one.through).top) / height
  return [
    ...partsOf(survey.document).map(({ name: what, outside, box }) => ({
      what,
      ...series(outside, '%', one => 100 * framingOf(coverageOn(survey, one), one.through, box).outside),
    })),
    { ...series('head room', '% of the height', room), isOnlyTold: true },
  ]
}

/** Drawings one behind the other, and how they lie. */
type Stretch = readonly { readonly one: Laid; readonly framing: Framing }[]

/**
 * What of a layer lies beyond a part, and within it elsewhere. What begins outside the picture and comes in, or goes out of it for good, is meant to; what only ends near an
 * edge is not. What the picture has lost already (`lost`, by drawing) is told once, there.
 */
function ofPart(survey: Survey, layer: Layer, laid: readonly Laid[], part: Part, lost: readonly number[]): Finding[] {
  const most = thresholdOf(survey.document, 'cut')
  const isPicture = part.name === 'picture'
  const all = laid.map((one, i) => {
    const framing = framingOf(coverageOn(survey, one), one.through, part.box)
    const gone = lost[i] ?? 0
    const isToldOfPicture = part.name === 'safe' && gone > most
    const isTold = framing.outside - (isPicture ? 0 : gone) > most && !isToldOfPicture
    return { one, framing, isOut: framing.outside > most, hasLeft: gone > most, isTold }
  })
  if (all.every(({ isOut }) => isOut)) return []
  // A drawing that was drawn too far out is put right by itself; what is carried out, or lies near the edge, is one stretch.
  const isAlone = part.name === 'picture' && laid.every(one => one.through === null)
  return stretchesOf(all, ({ isOut }) => isOut)
    .filter(stretch => !(stretch[0] === all[0] && stretch[0]?.hasLeft))
    .filter(stretch => !(stretch.at(-1) === all.at(-1) && stretch.at(-1)?.hasLeft))
    .flatMap(stretch => (isAlone ? stretch.map(one => [one]) : [stretch]))
    .map(stretch => stretch.filter(({ isTold }) => isTold))
    .filter(stretch => stretch.length > 0)
    .map(stretch => ofStretch(survey, layer, stretch, part))
}

/** Runs of what is so, one behind the other. */
function stretchesOf<T>(all: readonly T[], is: (one: T) => boolean): (readonly T[])[] {
  const runs: T[][] = []
  let open: T[] | null = null
  for (const one of all) {
    if (!is(one)) open = null
    else if (open) open.push(one)
    else runs.push((open = [one]))
  }
  return runs
}

function ofStretch(survey: Survey, layer: Layer, stretch: Stretch, part: Part): Finding {
  const worst = stretch.reduce((most, one) => (one.framing.outside > most.framing.outside ? one : most))
  const { drawing, through } = worst.one
  const drawings = [...new Set(stretch.map(({ one }) => one.drawing))]
  const share = percent(worst.framing.outside)
  const { side, px } = worst.framing.beyond ?? { side: 'left', px: 0 }
  // Where the layer is carried, it is its way that would have to be another.
  const by = drawings.length === 1 && !through ? wayInto(coverageOn(survey, worst.one), null, part.box) : null
  return {
    severity: part.severity,
    what: part.name,
    layer: layer.id,
    from: stretch[0]?.one.from ?? 0,
    to: stretch.at(-1)?.one.to ?? 0,
    drawings: [drawing, ...drawings.filter(one => one !== drawing)].map(({ id }) => id),
    marks: [],
    figures: { outside: worst.framing.outside, beyondPx: px, ...(by && { dx: by.x, dy: by.y }) },
    at: centreOf(boxSeen(coverageOn(survey, worst.one), through)),
    isInPicture: true,
    within: part.box,
    words: part.said(drawings.length > 1 ? `up to ${share}` : share, numbersTold(drawings), WHERE[side]),
  }
}

/** Numbers of drawings as they are told: all of a few, else the first and the last. */
function numbersTold(drawings: readonly Drawing[]): string {
  const numbers = drawings.map(({ number }) => number)
  return numbers.length > 4 ? `${numbers[0]} to ${numbers.at(-1)}` : numbers.join(', ')
}
