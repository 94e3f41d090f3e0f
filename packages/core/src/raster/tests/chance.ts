const { imul } = Math

/** Chance from −1 to 1 for made pictures, the same for the same seed. */
export function chance(seed: number): () => number {
  let state = imul(seed, 2_654_435_761) + 7
  return () => (state = (imul(state, 1_664_525) + 1_013_904_223) | 0) / 2 ** 31
}
