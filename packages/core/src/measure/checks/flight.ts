import { placeSeen } from '../../document/model/carried.ts'
import { isAnimated, type Layer } from '../../document/model/model.ts'
import { exposures, layersInOrder } from '../../document/model/selectors.ts'
import { find } from '../../document/model/table.ts'
import type { Point } from '../../geometry/point.ts'
import { counted } from '../../time/counted.ts'
import { placeOn, type Survey } from '../survey.ts'
import { parabolaThrough } from '../tracks/parabola.ts'
import type { Check, Finding } from './check.ts'

/** With fewer drawings in the air nothing can be said of them. */
const FEWEST = 5
/** Off its parabola by more than this share of the height, and so many px, it does not fly like a thrown thing. */
const OFF_SHARE = 0.05
const OFF_PX = 2
/** Up and down differ from what they would be by more than this share, and by more than a drawing. */
const SPLIT_SHARE = 1 / 3

/** In the last third of a flight the weight goes over to what will land. */
const LANDING = 1 / 3

interface InAir {
  readonly drawing: string
  readonly number: number
  readonly frame: number
  readonly at: Point
  /** half of its length, px */
  readonly halfPx: number
  /** its marks as they are seen in the picture, by id */
  readonly marks: Readonly<Record<string, Point>>
}

/** What is in the air between two that stand, and the marks on which it comes down. */
interface Flight {
  readonly free: readonly InAir[]
  readonly lands: readonly string[]
}

/** Stretches of a layer between two on which something is planted, on which nothing is: the drawings in the air, where the middle of each is known. */
function flightsOn(survey: Survey, layer: Layer): Flight[] {
  const { document, take } = survey
  const flights: Flight[] = []
  let free: InAir[] | null = null
  let isWhole = true
  for (const { drawing: id, start } of exposures(take, layer.id)) {
    const drawing = find(document.drawings, id ?? '')
    if (!drawing) continue
    const lands = Object.keys(drawing.marks).filter(mark => find(drawing.marks, mark)?.planted)
    if (lands.length > 0) {
      if (free && free.length >= FEWEST && isWhole) flights.push({ free, lands })
      free = []
      isWhole = true
      continue
    }
    const at = placeOn(survey, drawing, null)
    if (!at) isWhole = false
    else if (free && free.at(-1)?.drawing !== drawing.id) {
      const seen = (place: Point) => placeSeen(document, take, layer.id, start, place)
      const marks = Object.fromEntries(Object.entries(drawing.marks).map(([mark, place]) => [mark, seen(place)]))
      const halfPx = survey.shapes.get(drawing.id)?.halfAxes[0] ?? 0
      free.push({ drawing: drawing.id, number: drawing.number, frame: start, at: seen(at), halfPx, marks })
    }
  }
  return flights
}

/** Whether what has left the ground flies like something thrown: on a parabola, as long up as down for its heights. */
export const flight: Check = {
  words: 'flight',
  asks: 'Does what has left the ground fly like something thrown?',
  needs: ['shapes', 'marks'],
  inspect: survey =>
    layersInOrder(survey.document)
      .filter(layer => isAnimated(layer) && layer.volume !== 'off')
      .flatMap(layer =>
        flightsOn(survey, layer).flatMap(({ free, lands }) => [
          ...ofFlight(layer, free),
          ...ofLanding(layer, free, lands),
        ]),
      ),
}

function ofFlight(layer: Layer, free: readonly InAir[]): Finding[] {
  const [first, last] = [free[0] as InAir, free[free.length - 1] as InAir]
  const ys = free.map(({ at }) => at.y)
  const [top, low] = [Math.min(...ys), Math.max(...ys)]
  const height = low - top
  const about = {
    severity: 'look' as const,
    layer: layer.id,
    ...{ from: first.frame, to: last.frame + 1, marks: [], isInPicture: true },
  }
  const told = `${first.number} to ${last.number}`
  const apex = free[ys.indexOf(top)] as InAir
  const [up, down] = [apex.frame - first.frame, last.frame - apex.frame]
  const [rise, fall] = [(ys[0] as number) - top, (ys[ys.length - 1] as number) - top]
  // The same pull up as down: the time each takes goes with the root of its height.
  const share = Math.sqrt(rise) / Math.max(1e-9, Math.sqrt(rise) + Math.sqrt(fall))
  const wanted = share * (up + down)
  const oneDrawing = (up + down) / (free.length - 1)
  if (Math.abs(up - wanted) > Math.max(oneDrawing, SPLIT_SHARE * wanted)) {
    return [
      {
        ...about,
        drawings: [apex.drawing, first.drawing, last.drawing],
        figures: { up, down, wanted },
        at: apex.at,
        words: `${told} rise in ${counted(up, 'frame')} and fall in ${down}: thrown, it would be ${Math.round(wanted)} and ${Math.round(up + down - wanted)}`,
      },
    ]
  }
  const fit = parabolaThrough(free.map(({ frame, at }) => ({ t: frame, y: at.y })))
  if (fit && fit.rms > Math.max(OFF_SHARE * height, OFF_PX)) {
    const off = (one: InAir) => Math.abs(one.at.y - (fit.a + fit.b * one.frame + fit.c * one.frame ** 2))
    const worst = free.reduce((most, one) => (off(one) > off(most) ? one : most))
    return [
      {
        ...about,
        from: worst.frame,
        to: worst.frame + 1,
        drawings: [worst.drawing, first.drawing, last.drawing],
        figures: { rms: fit.rms, height },
        at: worst.at,
        words: `${told} do not fly on a parabola: off by ${Math.round(fit.rms)} px of ${Math.round(height)}, ${worst.number} by ${Math.round(off(worst))}`,
      },
    ]
  }
  return []
}

/** Whether the weight goes over what lands while it comes down: on none of the last drawings its feet are below the body. Where they have no marks in the air nothing is said. */
function ofLanding(layer: Layer, free: readonly InAir[], lands: readonly string[]): Finding[] {
  const last = free.slice(Math.ceil(free.length * (1 - LANDING)))
  const off = last.map(one => {
    const feet = lands.flatMap(mark => find(one.marks, mark) ?? []).map(({ x }) => x)
    if (feet.length === 0) return null
    const beyond = Math.max(Math.min(...feet) - one.at.x, one.at.x - Math.max(...feet), 0)
    return beyond - one.halfPx
  })
  const known = off.filter(px => px !== null)
  if (known.length < last.length || known.some(px => px <= 0)) return []
  const at = last[last.length - 1] as InAir
  const px = (known[known.length - 1] as number) + at.halfPx
  return [
    {
      severity: 'note',
      layer: layer.id,
      ...{ from: at.frame, to: at.frame + 1, drawings: [at.drawing], marks: lands, isInPicture: true },
      figures: { px, half: at.halfPx },
      at: at.at,
      words: `${at.number} comes down with its weight ${Math.round(px)} px beside what lands: it would go over it in the last third`,
    },
  ]
}
