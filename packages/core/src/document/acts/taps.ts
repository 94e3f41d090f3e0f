import { drawingAt, plain, placed, slice, type Run } from '../../time/exposure.ts'
import { settleAll } from './changes.ts'
import { freeStretch, touchesCycle } from './layerForm.ts'
import type { Proposal } from './proposal.ts'
import type { Drawing, ShotDocument, Take } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'
import { columnOf, freeNumber } from '../model/selectors.ts'

/**
 * Taps made while the film played become exposures of a layer: its drawings from the first tap on begin where the taps fell,
 * in their order, each held to the next tap, the last one to where it ended or the end of the shot. Taps beyond the drawings
 * there are get new blank ones; drawings beyond the taps follow the last of them as they were held. Refused where linked
 * cycles lie, and where drawings would not be shown any more.
 */
export function tapExposures(
  document: ShotDocument,
  take: Take,
  layer: string,
  taps: readonly number[],
  newId: () => string,
): Proposal {
  const frames = [...new Set(taps)].filter(f => f >= 0 && f < take.length).sort((a, b) => a - b)
  const first = frames[0]
  if (first === undefined) return { ok: false, code: 'nothing-left' }
  if (touchesCycle(take, layer, first, take.length)) return { ok: false, code: 'crosses-cycle' }
  const room = freeStretch(take, layer, first)
  const column = slice(columnOf(take, layer), 0, room.to)
  const ahead = placed(column).filter(run => run.drawing !== null && run.start + run.frames > first)
  const covering = ahead[0] && ahead[0].start < first && frames.length < ahead.length ? ahead.slice(1) : ahead
  const made: Drawing[] = []
  const shown = frames.map((frame, i): Run => {
    const until = frames[i + 1] ?? frame
    const drawing = covering[i]?.drawing ?? null
    if (drawing !== null) return { drawing, frames: until - frame }
    const number = freeNumber(
      document,
      layer,
      frame,
      made.map(d => d.number),
    )
    const sheet: Drawing = { id: newId(), layer, number, role: 'key', elements: {}, marks: {} }
    made.push(sheet)
    return { drawing: sheet.id, frames: until - frame }
  })
  const last = frames[frames.length - 1] as number
  const rest = covering.slice(frames.length - 1)
  const tail = rest.length
    ? rest.map(run => ({ drawing: run.drawing, frames: run.frames }))
    : [{ drawing: (shown[shown.length - 1] as Run).drawing, frames: room.to - last }]
  const stretch = plain([...shown.slice(0, -1), ...tail])
  // One that began before its tap begins there now: what is before it is held up to it.
  const began = covering[0]?.start ?? first
  const before = began > 0 && began < first ? drawingAt(column, began - 1) : null
  const from = before === null ? first : began
  const held = before === null ? [] : [{ drawing: before, frames: first - began }]
  const put = plain([...held, ...fitted(stretch, room.to - first)])
  const change = { layer, from, to: room.to, stretch: put, cycle: null }
  const firstOps = made.map((drawing): Operation => ({ kind: 'drawing.add', drawing }))
  return settleAll(document, take, [change], 'stay', { first: firstOps })
}

/** Runs made so many frames long: cut at the end, or the last one held. */
function fitted(runs: readonly Run[], frames: number): Run[] {
  const cut = slice(runs, 0, frames)
  const missing = frames - cut.reduce((sum, run) => sum + run.frames, 0)
  const last = cut[cut.length - 1]
  return last && missing > 0 ? [...cut.slice(0, -1), { ...last, frames: last.frames + missing }] : cut
}
