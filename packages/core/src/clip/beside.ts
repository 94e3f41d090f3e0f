/** A drawing of the clip and one of one's own that belong together, by the frames they begin on; `by` is how much later one's own begins. */
export interface TimedPair {
  readonly theirs: number
  readonly own: number
  readonly by: number
}

/** A timing held against another one; frames of the shot, rising. */
export interface TimingBeside {
  readonly pairs: readonly TimedPair[]
  /** where only the clip, and only one's own, begins a drawing */
  readonly onlyTheirs: readonly number[]
  readonly onlyOwn: readonly number[]
}

/** Drawings farther apart than this, frames, are not the same one. */
export const APART_FRAMES = 6

/**
 * Pairs the frames on which drawings begin, each with at most one and never crossing, so that they are the least frames apart altogether; what stands alone counts as half of
 * what pairs may be apart (alignment by dynamic programming; S. Needleman and C. Wunsch, 1970).
 */
export function besideTiming(theirs: readonly number[], own: readonly number[]): TimingBeside {
  const alone = APART_FRAMES / 2
  const wide = own.length + 1
  const cost = new Float64Array((theirs.length + 1) * wide)
  const at = (i: number, j: number) => cost[i * wide + j] as number
  const apart = (i: number, j: number) => Math.abs((theirs[i] as number) - (own[j] as number))
  for (let i = 0; i <= theirs.length; i++) {
    for (let j = 0; j <= own.length; j++) {
      if (i === 0 || j === 0) cost[i * wide + j] = (i + j) * alone
      else
        cost[i * wide + j] = Math.min(
          at(i - 1, j - 1) + apart(i - 1, j - 1),
          Math.min(at(i - 1, j), at(i, j - 1)) + alone,
        )
    }
  }
  const pairs: TimedPair[] = []
  const [onlyTheirs, onlyOwn]: [number[], number[]] = [[], []]
  let [i, j] = [theirs.length, own.length]
  while (i > 0 || j > 0) {
    if (i > 0 && j > 0 && at(i, j) === at(i - 1, j - 1) + apart(i - 1, j - 1)) {
      const [t, o] = [theirs[--i] as number, own[--j] as number]
      pairs.push({ theirs: t, own: o, by: o - t })
    } else if (i > 0 && (j === 0 || at(i, j) === at(i - 1, j) + alone)) onlyTheirs.push(theirs[--i] as number)
    else onlyOwn.push(own[--j] as number)
  }
  return { pairs: pairs.reverse(), onlyTheirs: onlyTheirs.reverse(), onlyOwn: onlyOwn.reverse() }
}
