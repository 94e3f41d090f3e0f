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

interface InAir {
  readonly drawing: string
  readonly number: number
  readonly frame: number
  readonly at: Point
}

/** Stretches of a layer between two on which something is planted, on which nothing is: the drawings in the air, where the middle of each is known. */
function flightsOn(survey: Survey, layer: Layer): InAir[][] {
  const { document, take } = survey
  const flights: InAir[][] = []
  let free: InAir[] | null = null
  let isWhole = true
  for (const { drawing: id, start } of exposures(take, layer.id)) {
    const drawing = find(document.drawings, id ?? '')
    if (!drawing) continue
    if (Object.values(drawing.marks).some(mark => mark.planted)) {
      if (free && free.length >= FEWEST && isWhole) flights.push(free)
      free = []
      isWhole = true
      continue
    }
    const at = placeOn(survey, drawing, null)
    if (!at) isWhole = false
    else if (free && free.at(-1)?.drawing !== drawing.id) {
      const seen = placeSeen(document, take, layer.id, start, at)
      free.push({ drawing: drawing.id, number: drawing.number, frame: start, at: seen })
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
      .flatMap(layer => flightsOn(survey, layer).flatMap(free => ofFlight(layer, free))),
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
