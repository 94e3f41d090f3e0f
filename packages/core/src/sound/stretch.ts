import { needPositive } from '../errors.ts'

/** Seconds of a piece, and how far its neighbour is looked for around where it should be. */
const [PIECE_S, SEARCH_S] = [0.05, 0.012]
/** Every so many samples are compared: pitch is far slower. */
const SKIP = 4

/**
 * A sound made `factor` times as long (0.25–8) at the pitch it has, in the channels it has: pieces of it are laid over each other, each taken where it
 * goes on best from the one before (WSOLA; W. Verhelst and M. Roelands, 1993). `channels` are alike long, −1 … 1, `rate` samples a second.
 * Throws a UsageError on a rate or a factor that is not above 0.
 */
export function stretched(channels: readonly Float32Array[], rate: number, factor: number): Float32Array[] {
  needPositive(rate, 'rate')
  needPositive(factor, 'factor')
  const length = channels[0]?.length ?? 0
  const size = 2 * Math.round((rate * PIECE_S) / 2)
  const half = size / 2
  const reach = Math.round(rate * SEARCH_S)
  const total = Math.round(length * factor)
  const out = channels.map(() => new Float32Array(total + size))
  const guide = mixed(channels)
  const window = Float32Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / size))
  // Where the last piece would go on by itself.
  let goesOn = 0
  for (let at = 0; at < total; at += half) {
    const wished = Math.round(at / factor)
    const taken = at === 0 ? 0 : bestNear(guide, wished, reach, goesOn, half)
    channels.forEach((channel, c) => {
      const into = out[c] as Float32Array
      for (let i = 0; i < size; i++) {
        // The very first half has nothing to be laid over.
        const share = at === 0 && i < half ? 1 : (window[i] as number)
        into[at + i] = (into[at + i] as number) + (channel[taken + i] ?? 0) * share
      }
    })
    goesOn = taken + half
  }
  return out.map(channel => channel.subarray(0, total))
}

function mixed(channels: readonly Float32Array[]): Float32Array {
  const [first, ...others] = channels
  if (!first) return new Float32Array(0)
  if (others.length === 0) return first
  return first.map((value, i) => others.reduce((sum, other) => sum + (other[i] ?? 0), value))
}

/** The place near `wished` from which a sound goes on most like it does from `like`. */
function bestNear(sound: Float32Array, wished: number, reach: number, like: number, size: number): number {
  let [best, most] = [wished, -Infinity]
  const least = Math.max(0, wished - reach)
  for (let at = least; at <= wished + reach; at += 2) {
    let [same, power] = [0, 1e-9]
    for (let i = 0; i < size; i += SKIP) {
      const value = sound[at + i] ?? 0
      same += value * (sound[like + i] ?? 0)
      power += value * value
    }
    const now = same / Math.sqrt(power)
    if (now > most) [best, most] = [at, now]
  }
  return best
}
