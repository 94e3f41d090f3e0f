import { needWhole } from '../errors.ts'

/** A word over frames `from` up to, but not with, `to`. */
export interface WordSpan {
  readonly text: string
  readonly from: number
  readonly to: number
}

/** The most words a line may hold. */
export const MOST_WORDS = 200
const LONGEST_WORD = 40

/** The words of a typed line, in order: what stands between spaces, the punctuation with it. A word longer than 40 letters is cut. */
export const wordsOf = (line: string): string[] =>
  line
    .split(/\s+/)
    .filter(Boolean)
    .slice(0, MOST_WORDS)
    .map(word => [...word].slice(0, LONGEST_WORD).join(''))

/** A first guess at how long a word takes: its letters, and something for setting in. */
const weightOf = (word: string): number => 1 + [...word.replace(/[^\p{L}\p{N}]/gu, '')].length

/**
 * Words spread over frames `from` up to, but not with, `to` by their letters, one behind the other without a gap; each at least one frame
 * long, so that where frames are fewer than words the last ones are left out. Throws a UsageError on frames that are not whole.
 */
export function spreadWords(words: readonly string[], from: number, to: number): WordSpan[] {
  needWhole(from, 0, 'frame')
  needWhole(to, from, 'frame')
  const fitting = words.slice(0, to - from)
  const all = fitting.reduce((sum, word) => sum + weightOf(word), 0)
  let gone = 0
  let last = from
  return fitting.map((text, i) => {
    gone += weightOf(text)
    const left = fitting.length - 1 - i
    const ends = Math.round(from + ((to - from) * gone) / all)
    const span = { text, from: last, to: Math.min(to - left, Math.max(last + 1, ends)) }
    last = span.to
    return span
  })
}

/**
 * Words tapped along: one tap (frames from 0, rising) for the beginning of each, and one more for the end of the last, without which it is
 * as long as the one before, or `usual` frames. Words without a tap are left out; taps on the same frame begin a frame later.
 */
export function tappedWords(words: readonly string[], taps: readonly number[], usual: number): WordSpan[] {
  const starts: number[] = []
  for (const tap of taps.slice(0, words.length + 1)) starts.push(Math.max(tap, (starts.at(-1) ?? -1) + 1))
  return words.slice(0, starts.length).map((text, i) => {
    const from = starts[i] as number
    const before = i > 0 ? from - (starts[i - 1] as number) : usual
    return { text, from, to: starts[i + 1] ?? from + Math.max(1, before) }
  })
}

/**
 * What becomes of the words of a line when an edge of one is moved to a frame: the neighbour that touched it goes along, and every word keeps
 * at least one frame. `words` in the order of time; answers those that change.
 */
export function withEdgeAt(
  words: readonly WordSpan[],
  index: number,
  edge: 'from' | 'to',
  frame: number,
): { index: number; span: WordSpan }[] {
  const word = words[index]
  if (!word) return []
  const [before, after] = [words[index - 1], words[index + 1]]
  if (edge === 'from') {
    const touches = before !== undefined && before.to === word.from
    const least = before ? (touches ? before.from + 1 : before.to) : 0
    const at = Math.max(least, Math.min(word.to - 1, frame))
    const changed = [{ index, span: { ...word, from: at } }]
    if (touches) changed.push({ index: index - 1, span: { ...before, to: at } })
    return changed
  }
  const touches = after !== undefined && after.from === word.to
  const most = after ? (touches ? after.to - 1 : after.from) : Infinity
  const at = Math.min(most, Math.max(word.from + 1, frame))
  const changed = [{ index, span: { ...word, to: at } }]
  if (touches) changed.push({ index: index + 1, span: { ...after, from: at } })
  return changed
}
