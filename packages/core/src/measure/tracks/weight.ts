import { distance } from '../../geometry/point.ts'
import { onsetOf } from './onset.ts'
import { trackSteps, type Track } from './track.ts'

/** How a part comes to a stop. */
export interface Stop {
  /** the frame on which it has arrived */
  readonly frame: number
  /** px a frame: its speed as it came, over the last three steps at most */
  readonly from: number
  /** how far it goes back, or sinks on, afterwards, px, and over how many frames */
  readonly gives: number
  readonly frames: number
}

const AROUND = 3
const HARD_SPEED = 10
/** What gives by less of the last step than this does not give. */
const GIVES_SHARE = 0.05

/** How a part stops: how fast it came, and what gives afterwards. Null for one that does not move, or has not stopped yet on its last frame. */
export function stopOf(track: Track): Stop | null {
  const { stops, fastest } = onsetOf(track)
  const last = track.places[track.places.length - 1]
  if (stops === null || !last || last.frame === stops) return null
  const steps = trackSteps(track)
  const until = steps.findIndex(step => step.frame === stops)
  // The stop is where its speed was lost; what comes after it, slower, is what gives.
  const hard = steps.reduce((last, step, i) => (i <= until && step.pxPerFrame >= fastest / 2 ? i : last), 0)
  const before = steps.slice(Math.max(0, hard - AROUND + 1), hard + 1)
  const after = steps.slice(hard + 1)
  const from = before.length ? Math.max(...before.map(step => step.pxPerFrame)) : 0
  const gives = after.reduce((sum, step) => sum + distance(step.from, step.to), 0)
  const frame = (steps[hard] ?? { frame: stops }).frame
  return { frame, from, gives, frames: after.length ? (after[after.length - 1]?.frame ?? frame) - frame : 0 }
}

/** Whether a part stops without weight: from more than 10 px a frame, and nothing gives. */
export const isHardStop = ({ from, gives }: Stop): boolean => from > HARD_SPEED && gives < GIVES_SHARE * from
