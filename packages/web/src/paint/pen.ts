import {
  distance,
  pressed,
  simulatedPressure,
  slowed,
  stamper,
  steadyPen,
  STRAIGHT_PRESSURE,
  type Matrix,
  type Nib,
  type Point,
  type PressureCurve,
  type Sample,
} from '@unhurried/core/geometry'
import { inked, paintInked, paintStamps } from './nibs.ts'
import { toPaper } from './view.ts'

/** A pointer sample as the browser gives it. */
export interface RawSample {
  readonly x: number
  readonly y: number
  readonly pressure: number
  readonly timeMs: number
  readonly isPen: boolean
}

/** Two samples nearer than this (paper pixels) are one: a resting pen does not pile up. */
const LEAST_STEP_PX = 0.35

/** All raw samples of a pointer event, the ones the browser put together included, in pixels of `origin`. */
export function rawSamples(event: PointerEvent, origin: { left: number; top: number }): RawSample[] {
  const all = event.getCoalescedEvents?.() ?? []
  return (all.length ? all : [event]).map(e => ({
    x: e.clientX - origin.left,
    y: e.clientY - origin.top,
    pressure: e.pressure,
    timeMs: e.timeStamp,
    isPen: e.pointerType === 'pen',
  }))
}

/** A stroke under way: takes raw samples on the screen, gives steadied samples on the paper. */
export function strokeUnderWay(
  matrix: Matrix,
  hand: { smoothing: number; bySpeed?: number; pressure?: PressureCurve },
) {
  const { smoothing, bySpeed = 0, pressure: curve = STRAIGHT_PRESSURE } = hand
  const steady = steadyPen(smoothing)
  const simulate = simulatedPressure()
  const samples: Sample[] = []
  let lastRaw: RawSample | null = null
  let end: Sample | null = null

  function pressureOf(raw: RawSample): number {
    const moved = lastRaw ? distance(lastRaw, raw) : 0
    const elapsed = lastRaw ? raw.timeMs - lastRaw.timeMs : 16
    const own = raw.isPen ? pressed(curve, raw.pressure) : simulate(moved, elapsed)
    return bySpeed ? slowed(own, moved / Math.max(1, elapsed), bySpeed) : own
  }

  return {
    samples,
    add(raws: readonly RawSample[]): void {
      for (const raw of raws) {
        const at = toPaper(matrix, raw)
        const pressure = pressureOf(raw)
        lastRaw = raw
        const next = steady({ ...at, pressure })
        end = { ...at, pressure: next.pressure }
        const last = samples[samples.length - 1]
        if (!last || distance(last, next) >= LEAST_STEP_PX) samples.push(next)
      }
    },
    /** The finished samples: steadying lags behind the pen, so the line is led to where the pen was lifted. */
    finish(): Sample[] {
      const last = samples[samples.length - 1]
      if (last && end && distance(last, end) >= LEAST_STEP_PX) {
        samples.push(
          { x: (last.x + end.x) / 2, y: (last.y + end.y) / 2, pressure: end.pressure * 0.8 },
          { ...end, pressure: end.pressure * 0.5 },
        )
      }
      return samples
    },
  }
}

export type StrokeUnderWay = ReturnType<typeof strokeUnderWay>

/** What a stroke under way looks like. */
export interface LiveLook {
  readonly kind: 'line' | 'shape'
  readonly width: number
  readonly nib: Nib
  readonly colour: string
}

/**
 * Paints a stroke under way over nothing but itself: an outline anew with every sample, a brush only by the touches that
 * are new.
 */
export function livePainter(matrix: Matrix, density: number, look: LiveLook) {
  const touches = look.kind === 'line' && look.nib.look === 'brush' ? stamper(look.width, look.nib) : null
  let begun = false
  return (brush: CanvasRenderingContext2D, samples: readonly Sample[]): void => {
    brush.setTransform(1, 0, 0, 1, 0, 0)
    if (!begun || !touches) brush.clearRect(0, 0, brush.canvas.width, brush.canvas.height)
    begun = true
    if (samples.length === 0) return
    const [a, b, c, d, e, f] = matrix
    brush.setTransform(a * density, b * density, c * density, d * density, e * density, f * density)
    if (touches) paintStamps(brush, touches(samples), look.colour)
    else paintInked(brush, inked(samples, look.kind, look.width, look.nib, false), look.colour)
  }
}

/** Paints the track of a rubber, or the loop of a hand gathering strokes. */
export function paintTrack(
  brush: CanvasRenderingContext2D,
  matrix: Matrix,
  density: number,
  track: readonly Point[],
  style: { colour: string; width: number; dash: number[]; close: boolean },
): void {
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.clearRect(0, 0, brush.canvas.width, brush.canvas.height)
  const [a, b, c, d, e, f] = matrix
  brush.setTransform(a * density, b * density, c * density, d * density, e * density, f * density)
  brush.strokeStyle = style.colour
  brush.lineWidth = style.width
  brush.lineCap = 'round'
  brush.lineJoin = 'round'
  brush.setLineDash(style.dash)
  brush.beginPath()
  track.forEach((p, i) => (i === 0 ? brush.moveTo(p.x, p.y) : brush.lineTo(p.x, p.y)))
  if (style.close) brush.closePath()
  brush.stroke()
  brush.setLineDash([])
}
