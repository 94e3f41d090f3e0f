/** How far something swings from one frame (from 0, may lie between frames) up to another, −1 … 1. */
export type Swing = (from: number, to: number) => readonly [low: number, high: number]

/** A stretch of frames laid out along pixels, and how much room there is across them. */
export interface WaveRoom {
  readonly from: number
  readonly to: number
  readonly along: number
  readonly across: number
  /** frames run down; else to the right */
  readonly down: boolean
}

/** Loud and soft are told apart better when soft is drawn larger than it is. */
const shown = (value: number): number => Math.sign(value) * Math.min(1, Math.abs(value)) ** 0.6

/** Draws a waveform into a room that begins at (0, 0): one thin bar a pixel, about the middle. Silence is nothing. */
export function paintWave(pen: CanvasRenderingContext2D, swing: Swing, room: WaveRoom, ink: string): void {
  const { from, to, along, across, down } = room
  const step = (to - from) / along
  const half = across / 2
  pen.fillStyle = ink
  for (let i = 0; i < along; i++) {
    const [low, high] = swing(from + i * step, from + (i + 1) * step)
    if (low === 0 && high === 0) continue
    const start = half - shown(high) * half
    const size = Math.max(1, half - shown(low) * half - start)
    if (down) pen.fillRect(start, i, size, 1)
    else pen.fillRect(i, start, 1, size)
  }
}

/** The widest of some swings. */
export const widest =
  (all: readonly Swing[]): Swing =>
  (from, to) => {
    let [low, high] = [0, 0]
    for (const swing of all) {
      const [l, h] = swing(from, to)
      low = Math.min(low, l)
      high = Math.max(high, h)
    }
    return [low, high]
  }
