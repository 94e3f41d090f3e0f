/** The middle of some numbers in the order of their size, of two the larger; another number where there are none. */
export const median = (values: readonly number[], ofNone = 0): number =>
  [...values].sort((a, b) => a - b)[values.length >> 1] ?? ofNone
