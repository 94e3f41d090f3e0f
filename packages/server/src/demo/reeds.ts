/** The made-up film of three reeds, and the shot it is traced in: 72 frames on ones, twos, threes and holds. */
export const WALTZ = {
  width: 1280,
  height: 720,
  fps: 24,
  frames: 72,
  paper: '#fdfaf3',
  film: { width: 480, height: 270 },
} as const

/** How many frames each pose is held: a waltz, the first of three the longest. */
export const WALTZ_HOLDS = [
  3, 2, 2, 1, 1, 2, 6, 2, 2, 1, 1, 1, 3, 2, 2, 8, 1, 1, 2, 2, 2, 3, 2, 2, 1, 1, 6, 2, 2, 6,
] as const

/** The pose of every frame. */
export const WALTZ_POSES: readonly number[] = WALTZ_HOLDS.flatMap((frames, pose) => Array<number>(frames).fill(pose))

/** Where a reed of the film goes through in a pose, from its foot to its tip, in pixels of the film. */
export function reedLine(pose: number, reed: number): { x: number; y: number }[] {
  const { width, height } = WALTZ.film
  const foot = width * (0.34 + 0.16 * reed)
  const high = height * (0.72 - 0.09 * Math.abs(reed - 1))
  const bend = width * (0.13 * Math.sin(pose * 0.42 + 0.5 * reed) + 0.025 * Math.sin(pose * 0.95 + reed))
  // What bends to the side comes down: it is as long as it was.
  const sinks = (0.6 * bend ** 2) / high
  return [0, 0.25, 0.5, 0.75, 1].map(share => ({
    x: foot + bend * share ** 2,
    y: height * 0.94 - high * share + sinks * share ** 3,
  }))
}
