import type { Beat, ShotDocument } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'

/** Beats on those of the frames (from 0) that have none; numbered where there are several. */
export function addBeats(
  document: ShotDocument,
  frames: readonly number[],
  word: string,
  newId: () => string,
): Operation[] {
  const taken = new Set(Object.values(document.beats).map(beat => beat.frame))
  return frames
    .filter(frame => !taken.has(frame))
    .map((frame, i): Operation => ({
      kind: 'beat.add',
      beat: { id: newId(), name: frames.length > 1 ? `${word} ${i + 1}` : word, frame },
    }))
}

/** Another name for a beat. */
export const renameBeat = (beat: Beat, name: string): Operation[] =>
  name === beat.name ? [] : [{ kind: 'beat.set', id: beat.id, patch: { name } }]

/** Pins a key to a beat in a take, or frees it (null). */
export const pinKey = (take: string, drawing: string, beat: string | null): Operation[] => [
  { kind: 'pin.set', take, drawing, beat },
]

/** Frees the keys that are pinned to a beat in any take, and takes it away. */
export function removeBeat(document: ShotDocument, beat: string): Operation[] {
  const free = Object.values(document.takes).flatMap(take =>
    Object.entries(take.pins).flatMap(([drawing, id]) => (id === beat ? pinKey(take.id, drawing, null) : [])),
  )
  return [...free, { kind: 'beat.remove', id: beat }]
}
