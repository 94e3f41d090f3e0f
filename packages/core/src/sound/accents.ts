/** An accent held against the poses: the nearest one, and how many frames after the accent it comes (early: below 0). */
export interface AccentHeld {
  readonly frame: number
  readonly pose: number | null
  readonly offFrames: number | null
}

/** Accents and poses held against each other. */
export interface Holding {
  /** every accent in the order of frames; without a pose where none is near enough */
  readonly accents: readonly AccentHeld[]
  /** poses no accent is near, in the order of frames */
  readonly alone: readonly number[]
}

/**
 * Which pose goes with which accent: each pose with one accent at most, nearest pairs first (of equally near ones the earlier pose, as hits
 * are better early than late), none farther apart than `within` frames. Frames from 0.
 */
export function accentsAndPoses(accents: readonly number[], poses: readonly number[], within: number): Holding {
  const [hits, keys] = [accents, poses].map(frames => [...new Set(frames)].sort((a, b) => a - b)) as [
    number[],
    number[],
  ]
  const near = hits.flatMap(frame =>
    keys.filter(pose => Math.abs(pose - frame) <= within).map(pose => ({ frame, pose, off: pose - frame })),
  )
  near.sort((a, b) => Math.abs(a.off) - Math.abs(b.off) || a.off - b.off || a.frame - b.frame)
  const taken = new Map<number, number>()
  const given = new Set<number>()
  for (const { frame, pose } of near) {
    if (taken.has(frame) || given.has(pose)) continue
    taken.set(frame, pose)
    given.add(pose)
  }
  const held = hits.map(frame => {
    const pose = taken.get(frame) ?? null
    return { frame, pose, offFrames: pose === null ? null : pose - frame }
  })
  return { accents: held, alone: keys.filter(pose => !given.has(pose)) }
}
