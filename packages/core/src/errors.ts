/**
 * A caller's mistake: a value handed to core that it cannot compute with. Data that a user can get wrong is answered with
 * a result carrying a code instead; this is thrown only when the code calling core is at fault.
 */
export class UsageError extends Error {
  override readonly name = 'UsageError'
}

/** Throws a UsageError unless `value` is a whole number of at least `least`. `what` names it in the message. */
export function needWhole(value: number, least: number, what: string): void {
  if (!Number.isInteger(value) || value < least) {
    throw new UsageError(`${what} must be a whole number of at least ${least}, not ${value}`)
  }
}

/** Throws a UsageError unless `value` is a finite number above zero. `what` names it in the message. */
export function needPositive(value: number, what: string): void {
  if (!Number.isFinite(value) || value <= 0) throw new UsageError(`${what} must be a number above 0, not ${value}`)
}
