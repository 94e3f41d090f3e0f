import { isMediaId } from '../../assets/media.ts'
import { LONGEST_SHOT_FRAMES } from '../../time/length.ts'
import { LIMITS } from '../model/model.ts'
import { refusal } from '../model/refusal.ts'
import { family } from './family.ts'
import { isFrame, PLAIN } from './kinds.ts'

/** A part of a recording is told in whole samples of some rate; as seconds it is a hair off. */
const HAIR_S = 1e-6

export const sounds = family('sound', {
  facts: PLAIN,
  media: ({ media }) => [media],
  refuse(_document, { name, media, seconds, order, from, skip, use, gain, muted, mine, source }) {
    if (name === '') return refusal('bad-value', 'name of a sound')
    if (!isMediaId(media)) return refusal('bad-value', 'recording of a sound')
    if (!(seconds > 0 && seconds <= LIMITS.soundSeconds)) return refusal('bad-value', 'length of a sound')
    if (!Number.isFinite(order)) return refusal('bad-value', 'track of a sound')
    if (!isFrame(from) || from >= LONGEST_SHOT_FRAMES) return refusal('bad-value', 'frame of a sound')
    if (!(skip >= 0 && use > 0 && skip + use <= seconds + HAIR_S)) return refusal('bad-value', 'part of a sound')
    if (!(gain >= 0 && gain <= LIMITS.gain)) return refusal('bad-value', 'loudness of a sound')
    if (source.length > LIMITS.sourceLength) return refusal('bad-value', 'source of a sound')
    return typeof muted === 'boolean' && typeof mine === 'boolean' ? null : refusal('bad-value', 'sound')
  },
})

export const words = family('word', {
  facts: PLAIN,
  refuse(_document, { text, from, to }) {
    if (!isFrame(from) || !isFrame(to) || to <= from || to > LONGEST_SHOT_FRAMES) {
      return refusal('bad-value', 'frames of a word')
    }
    return text === '' || text.length > LIMITS.wordLength ? refusal('bad-value', 'text of a word') : null
  },
})
