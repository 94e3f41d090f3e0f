import { after, IDENTITY, translation, type Matrix } from '../../geometry/matrix.ts'
import { movedPath, retimedPath, type LayerPath } from '../../path/path.ts'
import { movedNumbers, refuseNumbers } from '../../motion/table.ts'
import { recipeShot } from '../model/guides.ts'
import { cycleEnd, periodOf, type Cycle } from '../../time/cycle.ts'
import { lengthOf, plain, shareFrames, type Run } from '../../time/exposure.ts'
import { nearestFrame } from '../../time/frames.ts'
import { LONGEST_SHOT_FRAMES } from '../../time/length.ts'
import { proposed, type Proposal } from './proposal.ts'
import {
  CUT_NAMES,
  LIMITS,
  type CutName,
  type Format,
  type ShotDocument,
  type Take,
  type WayOfWorking,
} from '../model/model.ts'
import type { Operation } from '../operations/index.ts'
import { columnOf } from '../model/selectors.ts'

/*
 * Another rate or another size for a shot that has drawings. Both ask what is to be kept.
 */

/** Changes the sheet the film is drawn on, where there is nothing on it that would have to follow. */
export const setFormat = (patch: Partial<Format>): Operation[] => [{ kind: 'format.set', patch }]

/** How many paper pixels a metre is: `px` of them are `metres`; null forgets it. */
export const setScale = (px: number, metres: number | null): Operation[] => [
  { kind: 'shot.set', patch: { scale: metres === null ? null : px / metres } },
]

/** Operations that keep a step (paper pixels a frame) as the one that nothing goes beyond; null lets it go. */
export const setCeiling = (px: number | null): Operation[] => [{ kind: 'shot.set', patch: { ceiling: px } }]

/** Says whose work all of the shot is redrawn from; empty where it is one's own. */
export const markStudy = (source: string): Operation[] => [{ kind: 'shot.set', patch: { study: source } }]

/** Says of a shape whether the picture is also cut to it; they stay in the order of the table. */
export const cutTo = ({ cuts }: Pick<ShotDocument, 'cuts'>, cut: CutName, on: boolean): Operation[] => [
  { kind: 'shot.set', patch: { cuts: CUT_NAMES.filter(name => (name === cut ? on : cuts.includes(name))) } },
]

/** Works in another order. */
export const workWay = (way: WayOfWorking): Operation[] => [{ kind: 'shot.set', patch: { way } }]

/** A take so many frames longer: what it ends on is held. */
export const lengthen = (take: Take, by: number): Operation[] => [
  { kind: 'frames.insert', take: take.id, at: take.length, count: by, fill: {} },
]

/** What a change of rate comes to. */
export interface RateChange {
  readonly step: Proposal
  /** frames of the current take before and after */
  readonly frames: readonly [number, number]
  /** exposures that cannot last as long as they did, of how many; and by how much the worst is off, in seconds */
  readonly rounded: number
  readonly exposures: number
  readonly worstSeconds: number
}

/**
 * Another rate, with the frames kept (it all runs faster or slower), or the seconds: every exposure ends on the frame nearest
 * to its moment, each drawing keeps at least one frame; beats, notes, words, where sounds, clips and guides begin, loops, linked cycles, ways of layers that move and the exposure of new drawings
 * follow. Refused when drawings outnumber the frames.
 */
export function changeRate(document: ShotDocument, fps: number, keep: 'frames' | 'seconds'): RateChange {
  const set: Operation = { kind: 'format.set', patch: { fps } }
  const take = document.takes[document.current] as Take
  const still = { frames: [take.length, take.length] as const, rounded: 0, exposures: 0, worstSeconds: 0 }
  if (keep === 'frames') return { ...still, step: proposed([set]) }
  const ratio = fps / document.format.fps
  const scaled = (frame: number) => nearestFrame(frame * ratio)
  const tally = { rounded: 0, exposures: 0, worst: 0 }
  const ops: Operation[] = [set]
  for (const one of Object.values(document.takes)) {
    const retimed = retimedTake(document, one, ratio, tally)
    if (!Array.isArray(retimed)) return { ...still, step: retimed }
    ops.push(...retimed)
  }
  for (const beat of Object.values(document.beats)) {
    ops.push({ kind: 'beat.set', id: beat.id, patch: { frame: scaled(beat.frame) } })
  }
  for (const note of Object.values(document.notes)) {
    const from = scaled(note.from)
    ops.push({ kind: 'note.set', id: note.id, patch: { from, to: Math.max(from + 1, scaled(note.to)) } })
  }
  for (const guide of Object.values(document.guides)) {
    ops.push({ kind: 'guide.set', id: guide.id, patch: { from: scaled(guide.from) } })
  }
  for (const sound of Object.values(document.sounds)) {
    ops.push({ kind: 'sound.set', id: sound.id, patch: { from: scaled(sound.from) } })
  }
  for (const clip of Object.values(document.clips)) {
    ops.push({ kind: 'clip.set', id: clip.id, patch: { from: scaled(clip.from) } })
  }
  for (const word of Object.values(document.words)) {
    const from = scaled(word.from)
    ops.push({ kind: 'word.set', id: word.id, patch: { from, to: Math.max(from + 1, scaled(word.to)) } })
  }
  ops.push({ kind: 'shot.set', patch: { exposure: Math.max(1, scaled(document.exposure)) } })
  const frames = [take.length, lengthAt(take, ratio)] as const
  const { rounded, exposures, worst } = tally
  return { step: proposed(ops), frames, rounded, exposures, worstSeconds: worst / fps }
}

const lengthAt = (take: Take, ratio: number): number => Math.max(1, nearestFrame(take.length * ratio))

interface Tally {
  rounded: number
  exposures: number
  worst: number
}

function retimedTake(document: ShotDocument, take: Take, ratio: number, tally: Tally): Operation[] | Proposal {
  const length = lengthAt(take, ratio)
  if (length > LONGEST_SHOT_FRAMES) return { ok: false, code: 'too-much' }
  const writes: Operation[] = []
  for (const layer of Object.values(document.layers)) {
    if (layer.follows !== null) continue
    const column = columnOf(take, layer.id)
    if (column.length > length) return { ok: false, code: 'too-little-room', frames: length, needed: column.length }
    const runs = sharedOut(column, length)
    column.forEach((run, i) => {
      const off = Math.abs((runs[i]?.frames ?? 0) - run.frames * ratio)
      tally.exposures += 1
      tally.rounded += Number(off > 1e-6)
      tally.worst = Math.max(tally.worst, off)
    })
    writes.push({ kind: 'exposure.write', take: take.id, layer: layer.id, from: 0, runs })
  }
  const cycles = Object.values(take.cycles)
  const by = length - take.length
  const resized: Operation[] =
    by > 0
      ? [{ kind: 'frames.insert', take: take.id, at: take.length, count: by, fill: {} }]
      : by < 0
        ? [{ kind: 'frames.remove', take: take.id, at: length, count: -by }]
        : []
  const loop = take.loop && loopAt(take.loop, ratio, length)
  return [
    ...cycles.map((cycle): Operation => ({ kind: 'cycle.remove', take: take.id, id: cycle.id })),
    ...resized,
    ...writes,
    ...cyclesAt(take, cycles, ratio, length).map((cycle): Operation => ({ kind: 'cycle.add', take: take.id, cycle })),
    ...(take.loop ? [{ kind: 'loop.set', take: take.id, loop } as const] : []),
    ...pathsChanged(take, path => retimedPath(path, ratio)),
  ]
}

/** The paths of a take, changed. */
const pathsChanged = (take: Take, change: (path: LayerPath) => LayerPath): Operation[] =>
  Object.entries(take.paths).map(([layer, path]) => ({ kind: 'path.set', take: take.id, layer, path: change(path) }))

function sharedOut(runs: readonly Run[], frames: number): Run[] {
  const holds = shareFrames(
    frames,
    runs.map(run => run.frames),
  )
  return plain(runs.map((run, i) => ({ drawing: run.drawing, frames: holds[i] as number })))
}

function loopAt(loop: { from: number; to: number }, ratio: number, length: number) {
  const from = Math.min(length - 1, nearestFrame(loop.from * ratio))
  return { from, to: Math.min(length, Math.max(from + 1, nearestFrame(loop.to * ratio))) }
}

/** Linked cycles at another rate, each beginning where the one before ends or later; one that has no frame left goes. */
function cyclesAt(take: Take, cycles: readonly Cycle[], ratio: number, length: number): Cycle[] {
  const ends = new Map<string, number>()
  return [...cycles]
    .sort((a, b) => a.from - b.from)
    .flatMap(cycle => {
      const from = Math.max(ends.get(cycle.layer) ?? 0, nearestFrame(cycle.from * ratio))
      const wanted = Math.max(cycle.pattern.length, nearestFrame(periodOf(cycle) * ratio))
      const pattern = sharedOut(cycle.pattern, wanted)
      const end = cycleEnd(cycle, take.length)
      const whole = cycle.to !== null && (end - cycle.from) % periodOf(cycle) === 0
      const turns = (end - cycle.from) / periodOf(cycle)
      const to =
        cycle.to === null ? null : Math.min(length, whole ? from + turns * wanted : nearestFrame(cycle.to * ratio))
      const until = to ?? length
      if (until <= from) return []
      ends.set(cycle.layer, until)
      const offset = Math.min(lengthOf(pattern) - 1, nearestFrame(cycle.offset * ratio))
      return [{ ...cycle, from, to, offset, pattern }]
    })
}

/** What happens to drawings when the picture gets another size. */
export type Resizing = 'fit' | 'centre' | 'leave'

/** The map that another size puts all drawings through: scaled to fit and centred, only centred, or left where they are. */
export function resizing(document: ShotDocument, width: number, height: number, how: Resizing): Matrix {
  const { format } = document
  if (how === 'leave') return IDENTITY
  const k = how === 'fit' ? Math.min(width / format.width, height / format.height) : 1
  const [dx, dy] = [(width - k * format.width) / 2, (height - k * format.height) / 2]
  return after([k, 0, 0, k, 0, 0], translation(dx, dy))
}

/** Operations that give the picture another size, all drawings and marks, the ways of layers that move, and guides, going through the map. */
export function changeSize(document: ShotDocument, width: number, height: number, how: Resizing): Operation[] {
  const through = resizing(document, width, height, how)
  const set: Operation = { kind: 'format.set', patch: { width, height } }
  if (how === 'leave') return [set]
  const [k, , , , dx, dy] = through
  const moved = Object.values(document.drawings).flatMap((drawing): Operation[] => {
    const changes = Object.values(drawing.elements).map(element => ({
      id: element.id,
      patch: { matrix: after(element.matrix ?? IDENTITY, through) },
    }))
    const places = Object.fromEntries(
      Object.entries(drawing.marks).map(([id, at]) => [id, { ...at, x: k * at.x + dx, y: k * at.y + dy }]),
    )
    const ops: Operation[] = []
    if (changes.length) ops.push({ kind: 'elements.set', drawing: drawing.id, changes })
    if (Object.keys(places).length) ops.push({ kind: 'marks.place', drawing: drawing.id, places })
    return ops
  })
  const carried = Object.values(document.takes).flatMap(take => pathsChanged(take, path => movedPath(path, k, dx, dy)))
  const shot = { ...recipeShot(document), width, height }
  const guides = Object.values(document.guides).flatMap(({ id, recipe, numbers }): Operation[] => {
    const along = movedNumbers(recipe, numbers, k, dx, dy)
    // One that would not fit its bounds stays as it is.
    if (refuseNumbers(recipe, along, shot)) return []
    return [{ kind: 'guide.set', id, patch: { numbers: along } }]
  })
  const scaled: Operation[] =
    document.scale === null ? [] : [{ kind: 'shot.set', patch: { scale: Math.min(LIMITS.scale, k * document.scale) } }]
  const lower: Operation[] =
    document.ceiling === null
      ? []
      : [{ kind: 'shot.set', patch: { ceiling: Math.min(LIMITS.ceiling, k * document.ceiling) } }]
  return [set, ...moved, ...carried, ...guides, ...scaled, ...lower]
}
