import { isMediaId } from '../../assets/media.ts'
import { FARTHEST_PX } from '../../geometry/samples.ts'
import { LONGEST_SHOT_FRAMES } from '../../time/length.ts'
import { LIMITS, type ClipNote, type SeenPlace } from '../model/model.ts'
import { refusal } from '../model/refusal.ts'
import { has } from '../model/table.ts'
import { family } from './family.ts'
import { isFrame, PLAIN } from './kinds.ts'

const isSide = (px: number): boolean => Number.isInteger(px) && px >= 1 && px <= LIMITS.picturePx

/** Notes in the order of moments, each once, within the clip, and none of them empty. */
const areNotes = (notes: readonly ClipNote[], seconds: number): boolean =>
  new Set(notes.map(note => note.id)).size === notes.length &&
  notes.every(
    ({ s, text }, i) => s >= (notes[i - 1]?.s ?? 0) && s <= seconds && text !== '' && text.length <= LIMITS.noteLength,
  )

export const clips = family('clip', {
  facts: PLAIN,
  media: ({ media }) => [media],
  refuse(_document, clip) {
    const { name, media, widthPx, heightPx, seconds, from, inS, outS, rate, matrix, shown, wash, mine, source, notes } =
      clip
    if (name === '') return refusal('bad-value', 'name of a clip')
    if (!isMediaId(media)) return refusal('bad-value', 'film of a clip')
    if (!isSide(widthPx) || !isSide(heightPx)) return refusal('bad-value', 'size of a clip')
    if (!(seconds > 0 && seconds <= LIMITS.clipSeconds)) return refusal('bad-value', 'length of a clip')
    if (!isFrame(from) || from >= LONGEST_SHOT_FRAMES) return refusal('bad-value', 'frame of a clip')
    if (!(inS >= 0 && outS > inS && outS <= seconds + 1e-6)) return refusal('bad-value', 'part of a clip')
    if (!(rate >= 1 / LIMITS.clipRate && rate <= LIMITS.clipRate)) return refusal('bad-value', 'rate of a clip')
    if (!matrix.every(value => Math.abs(value) <= FARTHEST_PX)) return refusal('bad-value', 'place of a clip')
    if (!(wash >= 0 && wash <= 1)) return refusal('bad-value', 'wash over a clip')
    if (typeof shown !== 'boolean' || typeof mine !== 'boolean') return refusal('bad-value', 'clip')
    if (notes.length > LIMITS.clipNotes) return refusal('too-many', 'notes of a clip')
    if (!areNotes(notes, seconds)) return refusal('bad-value', 'notes of a clip')
    return source.length > LIMITS.sourceLength ? refusal('bad-value', 'source of a clip') : null
  },
  kept: (document, id) =>
    Object.values(document.points).some(point => point.clip === id) ? refusal('still-tracked', id) : null,
})

/** Put by the hand, and as sure as anything can be. */
export const BY_HAND = 2

const isPlace = ({ s, x, y, sure }: SeenPlace): boolean =>
  s >= 0 &&
  s <= LIMITS.clipSeconds &&
  Math.abs(x) <= LIMITS.picturePx &&
  Math.abs(y) <= LIMITS.picturePx &&
  sure >= 0 &&
  sure <= BY_HAND

/** Points that are followed through clips. */
export const points = family('point', {
  facts: PLAIN,
  refuse(document, { clip, name, order, places }) {
    if (!has(document.clips, clip)) return refusal('unknown-clip', clip)
    if (name === '' || !Number.isFinite(order)) return refusal('bad-value', 'followed point')
    if (places.length > LIMITS.placesPerPoint) return refusal('too-many', 'places of a followed point')
    const isRising = places.every((place, i) => isPlace(place) && (i === 0 || place.s > (places[i - 1] as SeenPlace).s))
    return isRising ? null : refusal('bad-value', 'places of a followed point')
  },
})
