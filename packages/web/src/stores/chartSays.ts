import { readGap, valueOf, type GapMove, type GapReading } from '@unhurried/core/chart'
import { moveKey, type Chart, type Drawing, type KeyPair, type ShotDocument, type Take } from '@unhurried/core/document'
import { meetsChart, type ChartReading } from '@unhurried/core/measure'
import type { Following } from '@unhurried/core/time'

/** What the rail says of a chart, and whether it is met. */
export interface Verdict {
  readonly words: string
  readonly met: boolean
}

/** The drawing that misses its tick by most, in words; else what the drawings amount to. Nothing of a chart that is not the one that was read. */
export function verdictOf(
  reading: ChartReading | null,
  chart: Chart | null,
  drawingOf: (id: string | null) => Drawing | null,
): Verdict {
  if (!reading || reading.chart.id !== chart?.id) return { words: '', met: true }
  const off = reading.chart.ticks.flatMap((tick, i) => {
    const read = reading.ticks[i]
    const planned = valueOf(tick.at)
    return read && !meetsChart(read, planned, reading.within)
      ? [{ ...read, planned, drawing: drawingOf(tick.drawing) }]
      : []
  })
  const worst = off.sort((a, b) => Math.abs(b.aheadPx) - Math.abs(a.aheadPx))[0]
  if (!worst) return { words: reading.words, met: true }
  const px = Math.round(Math.abs(worst.aheadPx))
  const way = worst.aheadPx < 0 ? 'on' : 'back'
  const words = `${worst.drawing?.number} lies at ${worst.share.toFixed(2)}, wanted ${worst.planned.toFixed(2)}: ${px} px ${way}`
  return { words, met: false }
}

/** What to do when the breakdown of `count` evenly timed inbetweens falls on no whole frame: only moves that can be made. Null where there is nothing to say. */
export function gapBetween(
  document: ShotDocument,
  take: Take,
  { from, to, fromFrame, toFrame }: KeyPair,
  count: number,
  following: Following,
): GapReading | null {
  const room = toFrame - fromFrame
  if (count === 0 || room < 2 || room % (count + 1) === 0) return null
  const reading = readGap(fromFrame, toFrame, Math.floor((count - 1) / 2), count)
  if (reading.exact) return null
  const fits = ({ key, frame }: GapMove) =>
    moveKey(document, take, (key === 'from' ? from : to).id, frame, following).ok
  return { ...reading, moves: reading.moves.filter(fits) }
}
