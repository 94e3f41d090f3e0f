/** What it is called to hold every drawing one, two, three, four frames. */
export const EXPOSURES = ['ones', 'twos', 'threes', 'fours'] as const

/** "on twos"; "on 7s" past those that have names. */
export const onWords = (frames: number): string => `on ${EXPOSURES[frames - 1] ?? `${frames}s`}`
