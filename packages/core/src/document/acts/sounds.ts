import { changedIn } from './changes.ts'
import { accentsAndPoses, withEdgeAt, type Holding, type WordSpan } from '../../sound/index.ts'
import { isAnimated, LIMITS, type ShotDocument, type Sound, type SpokenWord, type Take } from '../model/model.ts'
import { exposures } from '../model/selectors.ts'
import { find } from '../model/table.ts'
import type { Operation } from '../operations/index.ts'

/** A recording as it is known when it is brought in. */
export interface NewSound {
  readonly id: string
  readonly name: string
  readonly media: string
  readonly seconds: number
  /** one's own, that may go out with the film; what comes from outside is not, until one says so */
  readonly mine?: boolean
}

/** Lays a whole recording on the shot from a frame (from 0) on, below the tracks there are. */
export function addSound(document: ShotDocument, sound: NewSound, from: number): Operation[] {
  const order = Math.max(-1, ...Object.values(document.sounds).map(other => other.order)) + 1
  const laid = {
    order,
    from,
    skip: 0,
    use: sound.seconds,
    gain: 1,
    muted: false,
    mine: sound.mine ?? false,
    source: '',
  }
  return [{ kind: 'sound.add', sound: { ...sound, ...laid } }]
}

/** The sounds of a shot, track by track. */
export const soundsInOrder = (document: ShotDocument): Sound[] =>
  Object.values(document.sounds).sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1))

/** What of a sound can be changed. */
export type SoundChange = Partial<Omit<Sound, 'id' | 'media' | 'seconds'>>

/** Another place, part, loudness or name for a sound, kept within what there is of it. Nothing where it changes nothing. */
export function changeSound(sound: Sound, change: SoundChange): Operation[] {
  const wished = { ...sound, ...change }
  const skip = Math.max(0, Math.min(sound.seconds - LEAST_USE_S, wished.skip))
  const use = Math.max(LEAST_USE_S, Math.min(sound.seconds - skip, wished.use))
  const gain = Math.max(0, Math.min(LIMITS.gain, wished.gain))
  const next = { ...wished, skip, use, gain }
  const patch = changedIn(sound, next)
  return patch ? [{ kind: 'sound.set', id: sound.id, patch }] : []
}

/** Less of a recording than this is not laid. */
const LEAST_USE_S = 0.02

/** A sound whose beginning is moved to a frame while what is heard stays on its moments; as far as there is something of it. */
export function trimSoundStart(sound: Sound, fps: number, frame: number): Operation[] {
  const earliest = Math.ceil(sound.from - sound.skip * fps - 1e-6)
  const from = Math.max(0, earliest, Math.min(frame, sound.from + Math.ceil(sound.use * fps) - 1))
  const by = (from - sound.from) / fps
  return changeSound(sound, { from, skip: Math.max(0, sound.skip + by), use: sound.use - by })
}

/** A sound that ends with a frame (the first that is silent again). */
export const trimSoundEnd = (sound: Sound, fps: number, frame: number): Operation[] =>
  changeSound(sound, { use: (Math.max(sound.from + 1, frame) - sound.from) / fps })

/** The spoken words of a shot in the order of time. */
export const wordsInOrder = (document: ShotDocument): SpokenWord[] =>
  Object.values(document.words).sort((a, b) => a.from - b.from || (a.id < b.id ? -1 : 1))

/** Lays words over frames; those that lay on any of these frames are taken away. */
export function layWords(document: ShotDocument, spans: readonly WordSpan[], newId: () => string): Operation[] {
  const [first, last] = [spans[0], spans.at(-1)]
  if (!first || !last) return []
  const under = Object.values(document.words).filter(word => word.from < last.to && word.to > first.from)
  return [
    ...under.map(({ id }): Operation => ({ kind: 'word.remove', id })),
    ...spans.map((span): Operation => ({ kind: 'word.add', word: { id: newId(), ...span } })),
  ]
}

/** Moves an edge of a word to a frame; a neighbour that touches it there goes along. */
export function moveWordEdge(document: ShotDocument, id: string, edge: 'from' | 'to', frame: number): Operation[] {
  const words = wordsInOrder(document)
  const changed = withEdgeAt(
    words,
    words.findIndex(word => word.id === id),
    edge,
    frame,
  )
  return changed.flatMap(({ index, span }): Operation[] => {
    const word = words[index] as SpokenWord
    if (word.from === span.from && word.to === span.to) return []
    return [{ kind: 'word.set', id: word.id, patch: { from: span.from, to: span.to } }]
  })
}

/** Takes words away: one, or all of them. */
export const removeWords = (document: ShotDocument, ids: readonly string[]): Operation[] =>
  ids.filter(id => find(document.words, id)).map((id): Operation => ({ kind: 'word.remove', id }))

/** The frames on which keys of what is animated come into sight in a take. */
export const poseFrames = (document: ShotDocument, take: Take): number[] =>
  Object.values(document.layers)
    .filter(isAnimated)
    .flatMap(layer => exposures(take, layer.id))
    .filter(run => find(document.drawings, run.drawing as string)?.role === 'key')
    .map(run => run.start)

/** The beats of a shot held against the poses of a take: which goes with which, within so many frames. */
export const beatsHeld = (document: ShotDocument, take: Take, within: number): Holding =>
  accentsAndPoses(
    Object.values(document.beats).flatMap(({ frame }) => (frame < take.length ? [frame] : [])),
    poseFrames(document, take),
    within,
  )
