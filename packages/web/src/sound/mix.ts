import type { LoopRange } from '@unhurried/core/time'
import type { Mix } from '../protocols/sound.ts'
import { layHeard, type Audible } from './player.ts'

/** Samples a second of what is sent off. */
export const MIX_RATE = 48_000

/** What is heard while frames pass once, mixed; louder than loud is brought down as a whole. Null where nothing is heard. */
export async function mixedSound(all: readonly Audible[], fps: number, range: LoopRange): Promise<Mix | null> {
  const length = Math.round(((range.to - range.from) / fps) * MIX_RATE)
  const context = new OfflineAudioContext(2, Math.max(1, length), MIX_RATE)
  if (layHeard(context, all, range, { fps, speed: 1 }, 0).length === 0) return null
  const buffer = await context.startRendering()
  const channels = [0, 1].map(i => buffer.getChannelData(i))
  const loudest = channels.reduce((most, one) => one.reduce((high, value) => Math.max(high, Math.abs(value)), most), 0)
  if (loudest > 1) for (const one of channels) one.forEach((value, i) => (one[i] = value / loudest))
  return { rate: MIX_RATE, channels }
}
