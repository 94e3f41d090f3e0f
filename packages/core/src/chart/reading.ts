import { ease as easeAt, PRESETS, type Preset } from './ease.ts'
import type { Wish } from './wish.ts'

/** The preset and strength that drawings amount to, and by how much they differ from it (root mean square, share of the way). */
export interface Amount {
  readonly preset: Preset
  readonly strength: number
  readonly error: number
}

const STRENGTH_STEPS = 40

/**
 * What chart the measured shares of the way (in the order of time, evenly timed) amount to: the preset and strength with
 * the least squared error, found by trying all strengths in steps of 1/40. Null for no drawings. Of equally good ones the
 * plainer wins, so that three even drawings read as even. A preset to `prefer` wins when it fits about as well.
 */
export function amountsTo(shares: readonly number[], prefer: Preset | null = null): Amount | null {
  if (shares.length === 0) return null
  // A hair of easing that makes next to no difference is not worth a word.
  const even = nearestAmount(shares, ['even'])
  if (even.error < 0.012) return even
  const ease = nearestAmount(shares, ['slow-out', 'slow-in', 'both'])
  const favoured = nearestAmount(shares, ['favour-a', 'favour-b'])
  // A gentle ease and a favoured middle look alike: favouring must explain it clearly better.
  const any = favoured.error < ease.error - 0.01 ? favoured : ease
  const preferred = prefer && nearestAmount(shares, [prefer])
  return preferred && preferred.error <= any.error + ABOUT_AS_WELL ? preferred : any
}

/** A fit worse by no more than this share of the way is about as good. */
const ABOUT_AS_WELL = 0.03

function nearestAmount(shares: readonly number[], presets: readonly Preset[]): Amount {
  const n = shares.length
  let best: Amount = { preset: 'even', strength: 0, error: Infinity }
  for (const preset of presets) {
    for (let k = preset === 'even' ? STRENGTH_STEPS : 1; k <= STRENGTH_STEPS; k++) {
      const strength = k / STRENGTH_STEPS
      const square = shares.reduce((sum, s, i) => sum + (s - easeAt(preset, (i + 1) / (n + 1), strength)) ** 2, 0)
      const error = Math.sqrt(square / n)
      if (error < best.error - 1e-9) best = { preset, strength: preset === 'even' ? 0 : strength, error }
    }
  }
  return best
}

/** What each preset is called. */
export const PRESET_WORDS: Record<Preset, string> = {
  even: 'even',
  'slow-out': 'slow out',
  'slow-in': 'slow in',
  both: 'slow out and in',
  'favour-a': 'favouring the first key',
  'favour-b': 'favouring the last key',
}

/** A difference in strength up to this much is as planned; up to three times as much is "a little". */
const SAME_STRENGTH = 0.12
/** Drawings that differ from every preset by more than this share of the way follow none. */
const NO_PRESET = 0.07

/**
 * The reading of a chart in words, held against what was planned: "slow in, a little stronger than planned". `planned`
 * are the planned shares, `measured` the drawn ones, in the same order and number.
 */
export function chartInWords(wish: Wish, planned: readonly number[], measured: readonly number[]): string {
  const meant = isPreset(wish.ease) ? wish.ease : (amountsTo(planned)?.preset ?? 'even')
  const drawn = amountsTo(measured, meant)
  if (!drawn) return ''
  if (farthestApart(measured, planned) < AS_PLANNED) return 'as planned'
  const twin = [...planned].reverse().map(t => 1 - t)
  if (farthestApart(measured, twin) < AS_PLANNED) {
    const there = MIRRORED[meant]
    return there === meant
      ? `${PRESET_WORDS[meant]}, seen in a mirror`
      : `${PRESET_WORDS[there]}, not ${PRESET_WORDS[meant]}`
  }
  if (measured.some(m => m > 1 + AS_PLANNED)) return 'past the key and back'
  if (measured.some(m => m < -AS_PLANNED)) return 'back behind the first key'
  if (drawn.error > NO_PRESET) return 'no even spacing: look at each drawing'
  const words = PRESET_WORDS[drawn.preset]
  if (meant !== drawn.preset) return `${words}, not ${PRESET_WORDS[meant]}`
  // Strengths are compared as drawn charts, since halves round what was wished.
  const asked = amountsTo(planned, meant)?.strength ?? wish.strength
  const more = drawn.strength - asked
  if (Math.abs(more) <= SAME_STRENGTH) return `${words}, about as strong as planned`
  const amount = Math.abs(more) <= 3 * SAME_STRENGTH ? 'a little ' : 'much '
  return `${words}, ${amount}${more > 0 ? 'stronger' : 'weaker'} than planned`
}

/** Drawings nearer to their ticks than this share of the way are as planned. */
const AS_PLANNED = 0.02

const farthestApart = (a: readonly number[], b: readonly number[]): number =>
  Math.max(...a.map((t, i) => Math.abs(t - (b[i] as number))))

/** What each preset is from its other end. */
const MIRRORED: Record<Preset, Preset> = {
  even: 'even',
  both: 'both',
  'slow-out': 'slow-in',
  'slow-in': 'slow-out',
  'favour-a': 'favour-b',
  'favour-b': 'favour-a',
}

const isPreset = (name: string): name is Preset => (PRESETS as readonly string[]).includes(name)
