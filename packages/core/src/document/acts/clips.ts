import { changedIn } from './changes.ts'
import { frameOver, type ClipReading } from '../../clip/index.ts'
import type { Run } from '../../time/exposure.ts'
import { exposures, freeNumber } from '../model/selectors.ts'
import { newLayer } from '../model/fresh.ts'
import { LIMITS, type FilmClip, type Drawing, type ShotDocument, type Take } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'
import { touchesCycle } from './layerForm.ts'
import { fittedOn } from './bringIn.ts'
import { proposed, type Proposal } from './proposal.ts'
import { copyTake } from './takes.ts'

/** A clip as it is known when it is brought in. */
export type NewClip = Pick<FilmClip, 'id' | 'name' | 'media' | 'widthPx' | 'heightPx' | 'seconds'>

/** How much paper lies over a clip as it comes: it is seen, and lines over it are too. */
const USUAL_WASH = 0.5

/** Lays all of a clip under the paper from a frame (from 0) on, as large as the paper has room for it. */
export function addClip(document: ShotDocument, clip: NewClip, from: number): Operation[] {
  const { widthPx, heightPx, seconds } = clip
  const { width, height } = document.format
  // Small ones are made as large as the paper: they are there to be drawn over.
  const scale = Math.max(1, Math.min(width / widthPx, height / heightPx))
  const was = { widthPx: widthPx * scale, heightPx: heightPx * scale }
  const matrix = fittedOn({ widthPx, heightPx, was }, document.format)
  const laid = {
    from,
    inS: 0,
    outS: seconds,
    rate: 1,
    matrix,
    shown: true,
    wash: USUAL_WASH,
    mine: false,
    source: '',
    notes: [],
  }
  return [{ kind: 'clip.add', clip: { ...clip, ...laid } }]
}

/** What of a clip can be changed. */
export type ClipChange = Partial<Omit<FilmClip, 'id' | 'media' | 'seconds' | 'widthPx' | 'heightPx'>>

/**
 * Another place, stretch, rate or look for a clip, kept within what there is of it; what is one's own has no other source, and the other way round. Nothing where it changes
 * nothing.
 */
export function changeClip(clip: FilmClip, change: ClipChange): Operation[] {
  const wished = { ...clip, ...change }
  const inS = Math.max(0, Math.min(clip.seconds - 0.01, wished.inS))
  const outS = Math.max(inS + 0.01, Math.min(clip.seconds, wished.outS))
  const rate = Math.max(1 / LIMITS.clipRate, Math.min(LIMITS.clipRate, wished.rate))
  const wash = Math.max(0, Math.min(1, wished.wash))
  const source = change.mine ? '' : wished.source
  const next = { ...wished, inS, outS, rate, wash, source, mine: wished.mine && source === '' }
  const patch = changedIn(clip, next)
  return patch ? [{ kind: 'clip.set', id: clip.id, patch }] : []
}

/** Notes something of the picture of a clip at a moment (seconds), in place of what was noted there; an empty text takes the note off. */
export function noteOnClip(clip: FilmClip, s: number, text: string, id: string): Operation[] {
  const others = clip.notes.filter(note => Math.abs(note.s - s) >= SAME_PICTURE_S)
  const notes = text === '' ? others : [...others, { id, s, text }].sort((a, b) => a.s - b.s)
  return changeClip(clip, { notes })
}
/** Pictures of a clip are farther apart than this, seconds. */
const SAME_PICTURE_S = 0.002

/** What was noted of the picture that begins at a moment of a clip; empty where nothing was. */
export const noteAt = (clip: FilmClip, s: number): string =>
  clip.notes.find(note => Math.abs(note.s - s) < SAME_PICTURE_S)?.text ?? ''

/** Frames of the shot on which drawings of a clip begin, as it was read; `times` are the beginnings of its pictures in seconds. */
export const framesOfReading = (
  clip: FilmClip,
  fps: number,
  { starts }: ClipReading,
  times: readonly number[],
): number[] => [...new Set(starts.flatMap(start => frameOver(clip, fps, times[start] ?? -1) ?? []))]

/** Drawings of a layer that are shown on some of the frames `from` up to, but not with, `to`, each once, in the order they come. */
function drawingsBetween(take: Take, layer: string, from: number, to: number): string[] {
  const shown = exposures(take, layer).filter(run => run.start + run.frames > from && run.start < to)
  return [...new Set(shown.map(run => run.drawing as string))]
}

/** The frame of the shot behind the last under which a clip lies. */
export const clipEnds = (clip: FilmClip, fps: number): number =>
  clip.from + Math.ceil(((clip.outS - clip.inS) / clip.rate) * fps - 1e-6)

/**
 * A new take in which the drawings of a layer begin on some frames (rising, as those of a clip do) and the last of them is held up to `to`: the drawings that are shown
 * there, in their order, and blank ones where they do not suffice. Those that are more are not shown in that take, and stay in the others; all else is as it was. Refused
 * where linked cycles lie.
 */
export function takeItsTiming(
  document: ShotDocument,
  take: Take,
  layer: string,
  timing: { readonly frames: readonly number[]; readonly to: number },
  { id, name }: { readonly id: string; readonly name: string },
  newId: () => string,
): Proposal {
  const to = Math.min(take.length, timing.to)
  const frames = timing.frames.filter(frame => frame < to)
  const [first] = frames
  if (first === undefined) return { ok: false, code: 'nothing-left' }
  if (touchesCycle(take, layer, first, to)) return { ok: false, code: 'crosses-cycle' }
  const there = drawingsBetween(take, layer, first, to)
  const made: Drawing[] = []
  const runs = frames.map((frame, i): Run => {
    const until = frames[i + 1] ?? to
    const drawing = there[i]
    if (drawing !== undefined) return { drawing, frames: until - frame }
    const taken = made.map(one => one.number)
    const number = freeNumber(document, layer, frame, taken)
    const sheet: Drawing = { id: newId(), layer, number, role: 'key', elements: {}, marks: {} }
    made.push(sheet)
    return { drawing: sheet.id, frames: until - frame }
  })
  return proposed([
    ...made.map((drawing): Operation => ({ kind: 'drawing.add', drawing })),
    ...copyTake(document, take.id, id, name, newId),
    { kind: 'exposure.write', take: id, layer, from: first, runs },
    { kind: 'shot.set', patch: { current: id } },
  ])
}

/**
 * Everything that is needed to trace a clip: a layer over all others with a blank drawing for every so many frames (`on`) under which there is something of it, and the
 * clip seen. Refused where nothing of it lies under the take.
 */
export function tracingSetUp(
  document: ShotDocument,
  take: Take,
  clip: FilmClip,
  { id, name, on }: { readonly id: string; readonly name: string; readonly on: number },
  newId: () => string,
): Proposal {
  const to = Math.min(take.length, clipEnds(clip, document.format.fps))
  if (to <= clip.from) return { ok: false, code: 'nothing-left' }
  const order = Math.max(...Object.values(document.layers).map(layer => layer.order)) + 1
  const drawings: Drawing[] = []
  for (let frame = clip.from; frame < to; frame += on) {
    drawings.push({ id: newId(), layer: id, number: frame + 1, role: 'key', elements: {}, marks: {} })
  }
  const runs = drawings.map((drawing, i) => ({ drawing: drawing.id, frames: Math.min(on, to - clip.from - i * on) }))
  return proposed([
    { kind: 'layer.add', layer: newLayer(id, name, order, { volume: 'off' }) },
    ...drawings.map((drawing): Operation => ({ kind: 'drawing.add', drawing })),
    { kind: 'exposure.write', take: take.id, layer: id, from: clip.from, runs },
    ...changeClip(clip, { shown: true }),
  ])
}

/** Numbers of blank drawings of a layer under which something of a clip lies, in the order of frames: what is not traced yet. */
export function untraced(document: ShotDocument, take: Take, layer: string, clip: FilmClip): number[] {
  const ids = drawingsBetween(take, layer, clip.from, clipEnds(clip, document.format.fps))
  return ids.flatMap(id => {
    const drawing = document.drawings[id]
    return drawing && Object.keys(drawing.elements).length === 0 ? [drawing.number] : []
  })
}

/** Clips that may be sent off under the drawings: seen, and said to be one's own. */
export const clipsToSend = ({ clips }: Pick<ShotDocument, 'clips'>): FilmClip[] =>
  Object.values(clips).filter(clip => clip.shown && clip.mine && clip.source === '')
