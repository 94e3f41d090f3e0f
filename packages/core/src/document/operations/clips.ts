import { isMediaId } from '../../assets/media.ts'
import { FARTHEST_PX } from '../../geometry/samples.ts'
import { LONGEST_SHOT_FRAMES } from '../../time/length.ts'
import { LIMITS } from '../model/model.ts'
import { refusal } from '../model/refusal.ts'
import { family } from './family.ts'
import { isFrame, PLAIN } from './kinds.ts'

const isSide = (px: number): boolean => Number.isInteger(px) && px >= 1 && px <= LIMITS.picturePx

export const clips = family('clip', {
  facts: PLAIN,
  media: ({ media }) => [media],
  refuse(_document, clip) {
    const { name, media, widthPx, heightPx, seconds, from, inS, outS, rate, matrix, shown, wash, source } = clip
    if (name === '') return refusal('bad-value', 'name of a clip')
    if (!isMediaId(media)) return refusal('bad-value', 'film of a clip')
    if (!isSide(widthPx) || !isSide(heightPx)) return refusal('bad-value', 'size of a clip')
    if (!(seconds > 0 && seconds <= LIMITS.clipSeconds)) return refusal('bad-value', 'length of a clip')
    if (!isFrame(from) || from >= LONGEST_SHOT_FRAMES) return refusal('bad-value', 'frame of a clip')
    if (!(inS >= 0 && outS > inS && outS <= seconds + 1e-6)) return refusal('bad-value', 'part of a clip')
    if (!(rate >= 1 / LIMITS.clipRate && rate <= LIMITS.clipRate)) return refusal('bad-value', 'rate of a clip')
    if (!matrix.every(value => Math.abs(value) <= FARTHEST_PX)) return refusal('bad-value', 'place of a clip')
    if (!(wash >= 0 && wash <= 1)) return refusal('bad-value', 'wash over a clip')
    if (typeof shown !== 'boolean') return refusal('bad-value', 'clip')
    return source.length > LIMITS.sourceLength ? refusal('bad-value', 'source of a clip') : null
  },
})
