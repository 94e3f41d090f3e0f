import { counted } from '@unhurried/core/time'
import type { BatchVerdict } from '@unhurried/contract'
import type { NotDone, Refusal, RefusalCode } from '@unhurried/core/document'

/** What the desk says when something cannot be done. Codes are data; these are the words for them. */
const REFUSED: Record<RefusalCode, string> = {
  'unknown-layer': 'that layer is gone',
  'unknown-drawing': 'that drawing is gone',
  'unknown-element': 'that stroke is gone',
  'unknown-chart': 'that chart is gone',
  'unknown-take': 'that take is gone',
  'unknown-swatch': 'that colour is gone',
  'unknown-cycle': 'that linked cycle is gone',
  'unknown-mark': 'that mark is gone',
  'unknown-beat': 'that beat is gone',
  'unknown-note': 'that note is gone',
  'unknown-accepted': 'that finding is asked about again already',
  'unknown-saying': 'that is not said any more',
  'unknown-remark': 'that remark is gone',
  'unknown-guide': 'that guide is gone',
  'unknown-sound': 'that sound is gone',
  'unknown-word': 'that word is gone',
  'unknown-clip': 'that clip is gone',
  'unknown-point': 'that followed point is gone',
  'id-taken': 'it is there already',
  'number-taken': 'another drawing of the layer has this number',
  'still-exposed': 'the drawing is still on the sheet',
  'still-charted': 'a chart still uses it',
  'still-pinned': 'it is still pinned to a beat',
  'still-placed': 'the mark still lies on drawings',
  'still-used': 'strokes still use this colour',
  'still-guided': 'guides still lie on it',
  'layer-not-empty': 'the layer still has drawings, marks, guides or a cycle',
  'last-layer': 'a shot keeps at least one layer',
  'wrong-layer': 'the drawing belongs to another layer',
  'outside-shot': 'it reaches outside the shot',
  linked: 'these frames belong to a linked cycle: change its pattern, or unlink it',
  tied: 'the layer is tied to another and is timed with it',
  'still-tracked': 'points are followed through it: take them away first',
  'still-followed': 'a paint layer is tied to it: untie that first',
  'current-take': 'it is the take being worked on: make another one current first',
  'bad-value': 'the value does not fit',
  'too-many': 'there are too many already',
}

/** Drawn before this desk was opened, and not in the copy the server was put back to. */
export const EARLIER_COPY = 'earlier-copy'

/** Given up by whoever made it, while it was on its way. */
export const STOPPED = 'stopped'

/** Why the server gives a change up, besides. */
const VERDICTS: Record<BatchVerdict | 'too-large' | typeof EARLIER_COPY | typeof STOPPED, string> = {
  unfit: 'the server cannot read it',
  'unknown-asset': 'strokes or pictures it needs are not stored',
  'unfit-asset': 'strokes or pictures it brings cannot be read',
  'other-content': 'something else is stored under its name',
  'no-room': 'there is no room for it',
  'not-yours': 'who looks the shot through may remark on it, not change it',
  'too-large': 'it is too large to be sent',
  [STOPPED]: 'it was not to be sent any more',
  [EARLIER_COPY]: 'the server’s earlier copy of this shot does not have it',
}

/** Why something was set aside. Most often another desk got there first. */
export function verdictInWords(code: string, what: string): string {
  const verdict = (VERDICTS as Record<string, string | undefined>)[code]
  if (verdict) return code === 'no-room' ? `${verdict} (${what})` : verdict
  return code in REFUSED ? `another desk got there first: ${refusedInWords({ code: code as RefusalCode, what })}` : what
}

const VALUED: ReadonlySet<RefusalCode> = new Set(['bad-value', 'too-many', 'outside-shot'])

/** Paint lies under a line drawing: without one there is nothing to lie under. */
export const NO_LINE = 'Nothing is drawn here on the layer this one is tied to: paint lies under a line drawing.'

export const LOCKED_GUIDE = 'This guide is locked. Unlock it to change it.'
export const LOCKED = 'This layer is locked. Unlock it to change it.'

export const TIMED_ELSEWHERE =
  'This layer is tied to another: its sheets lie under that layer’s drawings and are shown with them.'

export const refusedInWords = ({ code, what }: Refusal): string =>
  VALUED.has(code) ? `${REFUSED[code]} (${what})` : REFUSED[code]

/** Why a change that was asked for was not made. */
export function whyNotInWords(not: NotDone): string {
  switch (not.code) {
    case 'crosses-cycle':
      return 'These frames lie partly in a linked cycle, or in more than one turn of it. Mark frames of one turn, or unlink it.'
    case 'in-a-cycle':
      return 'A linked cycle lies between these keys; unlink it first.'
    case 'too-little-room':
      return `${counted(not.frames, 'frame is', 'frames are')} too few for ${counted(not.needed, 'drawing')}; each needs at least one.`
    case 'more-are-drawn':
      return `${counted(not.drawn, 'drawing between these keys is', 'drawings between these keys are')} drawn already; ask for at least as many.`
    case 'nothing-left':
      return 'Nothing would be left.'
    case 'past-a-key':
      return 'A key cannot pass the key before or after it.'
    case 'not-a-key':
      return 'That drawing is not on the sheet.'
    case 'too-much':
      return 'That is more than a shot can hold.'
    case 'no-room':
      return `It needs ${counted(not.over, 'frame')} more than there are free; the shot keeps its length unless you say so.`
    case 'would-cover':
      return 'Drawings would no longer be shown.'
  }
}

/** Why the drawings of a chart were not made: told of the room between the keys. */
export const makingInWords = (not: NotDone): string =>
  not.code === 'too-little-room'
    ? `Between the keys ${counted(not.frames, 'frame is', 'frames are')} free; ${not.needed} are needed. Ask for fewer, or put them on ones.`
    : whyNotInWords(not)
