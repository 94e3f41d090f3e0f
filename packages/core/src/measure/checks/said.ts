import { distance, type Point } from '../../geometry/point.ts'
import { isStroke, type Drawing, type Saying, type Stroke } from '../../document/model/model.ts'
import { placeOnLayer } from '../../document/model/carried.ts'
import { elementsInOrder } from '../../document/model/selectors.ts'
import { find } from '../../document/model/table.ts'
import type { Operation } from '../../document/operations/index.ts'
import { median } from '../../median.ts'
import { fingerprint } from '../../fingerprint.ts'
import { counted } from '../../time/counted.ts'
import { markOn, saysOf } from '../said.ts'
import { shownOn, type Shown, type Survey } from '../survey.ts'
import { thresholdOf } from '../thresholds.ts'
import { dragOf, trailing } from '../tracks/drag.ts'
import { tracksOfMarks } from '../tracks/ofMarks.ts'
import { moveThere } from './moved.ts'
import { areasOnLayer } from './paint.ts'
import { percent, type Check, type Finding, type Series } from './check.ts'

/*
 * What can only be judged once somebody has said what is meant: that a part is still, follows, touches, keeps its size.
 */

const isSaid =
  (kind: Saying['kind']) =>
  ({ document }: Pick<Survey, 'document'>) =>
    saysOf(document, kind).length > 0
const nameOf = ({ document }: Survey, mark: string | undefined): string => find(document.marks, mark ?? '')?.name ?? ''

/** Drawings of a layer that are seen in a stretch, once each, in the order of time. */
const shownIn = (survey: Survey, layer: string, { from, to }: Pick<Saying, 'from' | 'to'>): Shown[] =>
  shownOn(survey, layer).filter(one => one.from < to && one.to > from)

/** Two marks on the drawings of a stretch on which both lie, and how far from one another. */
function apartOn(survey: Survey, saying: Saying) {
  const [a, b] = saying.about
  return shownIn(survey, saying.layer, saying).flatMap(one => {
    const [p, q] = [find(one.drawing.marks, a ?? ''), find(one.drawing.marks, b ?? '')]
    return p && q ? [{ ...one, at: { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 }, px: distance(p, q) }] : []
  })
}
const usualOf = (all: readonly { readonly is: number }[]) =>
  median(
    all.map(({ is }) => is),
    0,
  )
/** Of fewer drawings none is unlike the others. */
const FEWEST = 4

/** A size on the drawings of a stretch that is said to stay as it is, and how it is told: the way between two marks, or a colour's area with what is painted under the lines. */
interface Sized {
  readonly saying: Saying
  readonly name: string
  readonly unit: string
  readonly all: readonly (Shown & { readonly at: Point | null; readonly is: number })[]
}

function sizesIn(survey: Survey): Sized[] {
  const { document } = survey
  const apart = saysOf(document, 'size').map((saying): Sized => {
    const [a, b] = saying.about.map(mark => nameOf(survey, mark))
    return {
      saying,
      name: `${a} to ${b}`,
      unit: 'px',
      all: apartOn(survey, saying).map(one => ({ ...one, is: one.px })),
    }
  })
  const large = saysOf(document, 'large').flatMap((saying): Sized[] => {
    const [swatch = ''] = saying.about
    const layer = find(document.layers, saying.layer)
    if (!layer) return []
    const areas = areasOnLayer(survey, layer)
    const all = shownIn(survey, saying.layer, saying).flatMap(one => {
      const is = areas(one.drawing)?.[swatch] ?? 0
      return is > 0 ? [{ ...one, at: null, is }] : []
    })
    return [{ saying, name: find(document.swatches, swatch)?.name ?? '', unit: 'px²', all }]
  })
  return [...apart, ...large]
}

/** Whether what is said to keep its size does: the way between two marks, and areas of colours. */
export const size: Check = {
  words: 'size of parts',
  asks: 'Do parts and colours that are said to keep their size keep it?',
  needs: [],
  isAsked: of => isSaid('size')(of) || isSaid('large')(of),
  limits({ document }) {
    const off = 100 * thresholdOf(document, 'size')
    return [100 - off, 100 + off]
  },
  series: survey =>
    sizesIn(survey).flatMap(({ saying, name, all }): Series[] => {
      const usual = usualOf(all)
      if (all.length < 2 || usual <= 0) return []
      const values = all.map(({ from, drawing, is }) => ({
        frame: from,
        drawing: drawing.id,
        value: (100 * is) / usual,
      }))
      return [{ layer: saying.layer, mark: null, what: name, name, unit: '% of the usual', values, planned: [] }]
    }),
  inspect: survey =>
    sizesIn(survey).flatMap(({ saying, name, unit, all }) => {
      const usual = usualOf(all)
      if (all.length < FEWEST || usual <= 0) return []
      const told = saying.kind === 'size' ? `from ${name} is` : `${name} has`
      return all
        .filter(({ is }) => Math.abs(is / usual - 1) > thresholdOf(survey.document, 'size') + 1e-9)
        .map(({ drawing, from, to, at, is }): Finding => ({
          severity: 'look',
          what: name,
          layer: saying.layer,
          ...{ from, to, drawings: [drawing.id], at },
          marks: saying.kind === 'size' ? saying.about : [],
          figures: { is, usual },
          words: `${told} ${percent(is / usual)} of the usual on ${drawing.number}: ${Math.round(is)} ${unit}, ${Math.round(usual)} otherwise`,
        }))
    }),
}

/** Whether what is said to follow comes later than what it hangs on, and trails behind it. */
export const drag: Check = {
  words: 'drag',
  asks: 'Does everything that is said to follow come later, and trail?',
  needs: ['marks'],
  view: 'onsets',
  isAsked: isSaid('follows'),
  inspect: survey =>
    saysOf(survey.document, 'follows').flatMap((saying): Finding[] => {
      const { document, take } = survey
      const [follower, leader] = saying.about.map(mark => {
        const layer = find(document.marks, mark)?.layer ?? ''
        const track = tracksOfMarks(document, take, layer).find(one => one.id === mark)
        const places = track?.places.filter(({ frame }) => frame >= saying.from && frame < saying.to) ?? []
        return track && places.length > 1 ? { ...track, places } : null
      })
      if (!follower || !leader) return []
      const about = {
        layer: saying.layer,
        ...{ from: saying.from, to: Math.min(saying.to, take.length), drawings: [], marks: saying.about, at: null },
      }
      const read = dragOf(leader, follower)
      const late: Finding[] =
        read.told && read.lagFrames <= 0
          ? [
              {
                ...about,
                severity: 'look',
                figures: { lagFrames: read.lagFrames, alike: read.alike },
                words:
                  read.lagFrames < 0
                    ? `${follower.name} comes ${counted(-read.lagFrames, 'frame')} before ${leader.name}, and is said to follow it`
                    : `${follower.name} moves with ${leader.name}, and is said to follow it: let it come a frame or two later`,
              },
            ]
          : []
      const ahead = trailing(leader, follower).filter(one => one.aheadPx > 0)
      const wrong: Finding[] =
        ahead.length >= 2
          ? [
              {
                ...about,
                severity: 'look',
                from: ahead[0]?.frame ?? about.from,
                to: (ahead[0]?.frame ?? about.from) + 1,
                figures: { drawings: ahead.length },
                at: ahead[0]?.at ?? null,
                isInPicture: true,
                words: `${follower.name} runs ahead of ${leader.name} on ${counted(ahead.length, 'drawing')}, from frame ${(ahead[0]?.frame ?? 0) + 1}: it would trail behind`,
              },
            ]
          : []
      return [...late, ...wrong]
    }),
}

interface Gap {
  readonly frame: number
  readonly drawing: Drawing
  /** where the one is seen, in the picture */
  readonly at: Point
  /** from it to the other, in pixels of its drawing */
  readonly by: Point
  readonly px: number
}

/** How far two marks lie apart on every frame of a stretch on which both are there. */
function gapsOf({ document, take }: Survey, { about, from, to }: Saying): Gap[] {
  const frames = Array.from({ length: Math.max(0, Math.min(to, take.length) - from) }, (_, i) => from + i)
  return frames.flatMap((frame): Gap[] => {
    const [a, b] = about.map(mark => markOn(document, take, mark, frame))
    if (!a || !b) return []
    const to = placeOnLayer(document, take, a.drawing.layer, frame, b.at)
    const by = { x: to.x - a.own.x, y: to.y - a.own.y }
    return [{ frame, drawing: a.drawing, at: a.at, by, px: distance(a.at, b.at) }]
  })
}

/** Whether two marks that are said to touch lie on each other, frame by frame; they may lie on drawings of different layers. */
export const contact: Check = {
  words: 'contacts',
  asks: 'Does everything that is said to touch lie on each other?',
  needs: ['marks'],
  isAsked: isSaid('touches'),
  limits: ({ document }) => [thresholdOf(document, 'gap')],
  series: survey =>
    saysOf(survey.document, 'touches').flatMap((saying): Series[] => {
      const values = gapsOf(survey, saying).map(({ frame, drawing, px }) => ({ frame, drawing: drawing.id, value: px }))
      const name = `${nameOf(survey, saying.about[0])} to ${nameOf(survey, saying.about[1])}`
      return values.length > 1 ? [{ layer: saying.layer, mark: null, name, unit: 'px', values, planned: [] }] : []
    }),
  fix: moveThere,
  inspect: survey =>
    saysOf(survey.document, 'touches').flatMap((saying): Finding[] => {
      const most = thresholdOf(survey.document, 'gap')
      const gaps = gapsOf(survey, saying)
      // One drawing is told once, where its gap is widest.
      const worst = new Map<string, Gap>()
      for (const gap of gaps.filter(one => one.px > most)) {
        const known = worst.get(gap.drawing.id)
        if (!known || known.px < gap.px) worst.set(gap.drawing.id, gap)
      }
      const layer = find(survey.document.marks, saying.about[0] ?? '')?.layer ?? saying.layer
      return [...worst.values()].map(({ frame, drawing, at, by, px }): Finding => ({
        severity: 'look',
        layer,
        ...{ from: frame, to: frame + 1, drawings: [drawing.id], marks: saying.about },
        figures: { px, dx: by.x, dy: by.y },
        ...{ at, isInPicture: true },
        words: `${nameOf(survey, saying.about[0])} of ${drawing.number} lies ${Math.round(px)} px from ${nameOf(survey, saying.about[1])}, which it is said to touch`,
      }))
    }),
}

/** Strokes of a colour on a drawing (or all), from the lowest up. */
const partOf = (drawing: Drawing, swatch: string | undefined): Stroke[] =>
  elementsInOrder(drawing).filter(
    (one): one is Stroke => isStroke(one) && (swatch === undefined || one.swatch === swatch),
  )

/** What a part looks like: the same strokes, laid the same way, are the same pixels. */
const looksOf = (strokes: readonly Stroke[]): string =>
  fingerprint(
    JSON.stringify(
      strokes.map(({ kind, samples, part, matrix, width, nib, swatch }) => [
        kind,
        samples,
        part,
        matrix,
        width,
        nib,
        swatch,
      ]),
    ),
  )

/** Whether parts that are said to be still are the same on every drawing: what is drawn anew shimmers, however alike it is. */
export const still: Check = {
  words: 'still parts',
  asks: 'Is everything that is said to be still the same on every drawing?',
  needs: [],
  fixesApart: true,
  isAsked: isSaid('still'),
  inspect: survey =>
    saysOf(survey.document, 'still').flatMap(saying => {
      const [swatch] = saying.about
      const shown = shownIn(survey, saying.layer, saying).map(one => ({ ...one, part: partOf(one.drawing, swatch) }))
      const first = shown.find(one => one.part.length > 0)
      if (!first) return []
      const looks = looksOf(first.part)
      const name = swatch === undefined ? 'what is drawn' : (find(survey.document.swatches, swatch)?.name ?? '')
      return shown
        .filter(one => one !== first && looksOf(one.part) !== looks)
        .map(({ drawing, from, to, part }): Finding => ({
          severity: 'look',
          layer: saying.layer,
          ...{ from, to, drawings: [drawing.id, first.drawing.id], marks: [], at: null },
          figures: { strokes: part.length },
          words:
            part.length === 0
              ? `${name} is said to be still, and is not on ${drawing.number}`
              : `${name} is said to be still, and is another on ${drawing.number} than on ${first.drawing.number}: it shimmers`,
        }))
    }),
  /** The part as it is on the first drawing is laid here, in place of what is here. */
  fix(survey, { layer, from, drawings: [id, of] }, newId) {
    const { document } = survey
    const [drawing, first] = [find(document.drawings, id ?? ''), find(document.drawings, of ?? '')]
    const saying = saysOf(document, 'still').find(
      one => one.layer === layer && one.from <= from && from < one.to && first && isOff(drawing, first, one),
    )
    if (!drawing || !first || !saying) return null
    const own = partOf(drawing, saying.about[0]).map(stroke => stroke.id)
    const elements = partOf(first, saying.about[0]).map((stroke): Stroke => ({ ...stroke, id: newId() }))
    const ops: Operation[] = [
      ...(own.length > 0 ? [{ kind: 'elements.remove', drawing: drawing.id, ids: own } as const] : []),
      { kind: 'elements.add', drawing: drawing.id, elements },
    ]
    return { words: `lay it as on ${first.number}`, ops }
  },
}

const isOff = (drawing: Drawing | undefined, first: Drawing, { about: [swatch] }: Saying): boolean =>
  drawing !== undefined && looksOf(partOf(drawing, swatch)) !== looksOf(partOf(first, swatch))
