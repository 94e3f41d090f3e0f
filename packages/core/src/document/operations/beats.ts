import { LONGEST_SHOT_FRAMES } from '../../time/length.ts'
import { LIMITS } from '../model/model.ts'
import { find, get, has } from '../model/table.ts'
import { family } from './family.ts'
import { isFrame, PLAIN, type Handler } from './kinds.ts'
import { refusal } from '../model/refusal.ts'

export const beats = family('beat', {
  facts: PLAIN,
  refuse(_document, { name, frame }) {
    if (!isFrame(frame) || frame >= LONGEST_SHOT_FRAMES) return refusal('bad-value', 'frame of a beat')
    return name === '' ? refusal('bad-value', 'name of a beat') : null
  },
  kept(document, id, bench) {
    const takes = Object.values(document.takes)
    const much = bench.spend(takes.reduce((sum, take) => sum + bench.size(take.pins), 0))
    if (much) return much
    return takes.some(take => Object.values(take.pins).includes(id)) ? refusal('still-pinned', id) : null
  },
})

export const pinSet: Handler<'pin.set'> = {
  facts: PLAIN,
  refuse(document, op) {
    if (!has(document.takes, op.take)) return refusal('unknown-take', op.take)
    if (!has(document.drawings, op.drawing)) return refusal('unknown-drawing', op.drawing)
    return op.beat !== null && !has(document.beats, op.beat) ? refusal('unknown-beat', op.beat) : null
  },
  apply(document, op, bench) {
    const take = get(document.takes, op.take)
    const pins = op.beat === null ? bench.without(take.pins, [op.drawing]) : bench.put(take.pins, op.drawing, op.beat)
    bench.forgetUse()
    return bench.set(document, { takes: bench.put(document.takes, take.id, bench.set(take, { pins })) })
  },
  invert(before, op) {
    const beat = find(get(before.takes, op.take).pins, op.drawing) ?? null
    return [{ kind: 'pin.set', take: op.take, drawing: op.drawing, beat }]
  },
}

export const notes = family('note', {
  facts: PLAIN,
  refuse(_document, { from, to, text }) {
    if (!isFrame(from) || !isFrame(to) || to <= from || to > LONGEST_SHOT_FRAMES) {
      return refusal('bad-value', 'frames of a note')
    }
    return text === '' || text.length > LIMITS.noteLength ? refusal('bad-value', 'text of a note') : null
  },
})

/** Findings that are meant so. */
export const accepted = family('accepted', {
  facts: PLAIN,
  refuse(_document, { about, print, reason }) {
    if (about === '' || about.length > LIMITS.aboutLength || print === '' || print.length > LIMITS.aboutLength) {
      return refusal('bad-value', 'accepted finding')
    }
    return reason.length > LIMITS.noteLength ? refusal('bad-value', 'reason of a finding') : null
  },
})
