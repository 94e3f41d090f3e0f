import type { Sound } from '@unhurried/core/document'
import { heardIn } from '@unhurried/core/sound'
import type { LoopRange } from '@unhurried/core/time'

/** A recording that can be heard: as it is, and at its pitch at other speeds where that is there. */
export interface Audible {
  readonly sound: Sound
  readonly buffer: AudioBuffer
  /** the same at a viewing speed, at its pitch: as long as it is heard then */
  at(speed: number): AudioBuffer | null
}

/** How something is played: frames a second as delivered, the viewing speed, and whether it goes round. */
export interface Playing {
  readonly from: number
  readonly range: LoopRange
  readonly fps: number
  readonly speed: number
  readonly round: boolean
}

/** A little time to get ready, so that nothing of the beginning is missing. */
const LEAD_S = 0.06
/** Turns are got ready so long before they are heard. */
const AHEAD_S = 1
const TEND_MS = 200
/** Edges are softened by so much, so that they do not click. */
const SOFT_S = 0.003
/** When the audio clock stands still for so long there is nobody who hears it. */
const STALL_MS = 700
/** Going over frames, at least so much of each is heard. */
const LEAST_SCRUB_S = 0.07

/** One stretch of a recording, heard from a moment of a context's clock on. */
function schedule(
  context: BaseAudioContext,
  one: Audible,
  speed: number,
  when: number,
  offsetS: number,
  seconds: number,
): AudioBufferSourceNode {
  const slowed = speed === 1 ? null : one.at(speed)
  const source = new AudioBufferSourceNode(context, {
    buffer: slowed ?? one.buffer,
    playbackRate: slowed ? 1 : speed,
  })
  const level = new GainNode(context, { gain: 0 })
  const long = seconds / speed
  const soft = Math.min(SOFT_S, long / 2)
  level.gain.setValueAtTime(0, when)
  level.gain.linearRampToValueAtTime(one.sound.gain, when + soft)
  level.gain.setValueAtTime(one.sound.gain, when + long - soft)
  level.gain.linearRampToValueAtTime(0, when + long)
  source.connect(level).connect(context.destination)
  // Of a slowed one as much is taken as is heard; else what it holds.
  source.start(when, slowed ? offsetS / speed : offsetS, slowed ? long : seconds)
  source.addEventListener('ended', () => level.disconnect())
  return source
}

/** Lays everything that is heard while frames pass at a speed, from a moment of a context's clock on. */
export function layHeard(
  context: BaseAudioContext,
  all: readonly Audible[],
  frames: LoopRange,
  { fps, speed }: { readonly fps: number; readonly speed: number },
  when: number,
): AudioBufferSourceNode[] {
  return all.flatMap(one => {
    if (one.sound.muted || one.sound.gain === 0) return []
    const heard = heardIn(one.sound, fps, frames.from, frames.to)
    if (!heard) return []
    const seconds = Math.min(heard.seconds, one.buffer.duration - heard.offsetS)
    return seconds > 0 ? [schedule(context, one, speed, when + heard.afterS / speed, heard.offsetS, seconds)] : []
  })
}

/**
 * A clock that goes by another one, in milliseconds, as long as that one moves: under load it may fall behind, and the picture with it. Once it has
 * stood still for a while it goes on by the machine's.
 */
export function clockOf(heard: () => number, now = () => performance.now()): () => number {
  let last = heard()
  let movedAt = now()
  let isStill = false
  return () => {
    const next = isStill ? last : heard()
    if (next !== last) {
      last = next
      movedAt = now()
      return next
    }
    const stood = now() - movedAt
    isStill ||= stood > STALL_MS
    return isStill ? last + stood : last
  }
}

/** Plays recordings in step with frames. */
export function makePlayer(context: AudioContext) {
  let playing: { end(): void } | null = null
  const loose = new Set<AudioBufferSourceNode>()

  function pass(
    all: readonly Audible[],
    from: number,
    to: number,
    how: Pick<Playing, 'fps' | 'speed'>,
    when: number,
  ): void {
    for (const source of layHeard(context, all, { from, to }, how, when)) {
      loose.add(source)
      source.addEventListener('ended', () => loose.delete(source))
    }
  }

  function stop(): void {
    playing?.end()
    playing = null
    for (const source of loose) source.stop()
    loose.clear()
  }

  /**
   * Begins to play, and answers with a clock for the picture: milliseconds since the first frame is heard (before that below 0), as they come out of
   * the loudspeaker. Where the audio clock stands still the picture goes on by the machine's.
   */
  function start(all: readonly Audible[], how: Playing): () => number {
    stop()
    const { from, range, fps, speed, round } = how
    const began = context.currentTime + LEAD_S
    const turnS = (range.to - range.from) / fps / speed
    let ready = began + (range.to - from) / fps / speed
    pass(all, from, range.to, how, began)
    const tend = () => {
      while (round && turnS > 0 && ready < context.currentTime + AHEAD_S) {
        pass(all, range.from, range.to, how, ready)
        ready += turnS
      }
    }
    tend()
    const timer = setInterval(tend, TEND_MS)
    playing = { end: () => clearInterval(timer) }
    const late = context.outputLatency || context.baseLatency || 0
    return clockOf(() => (context.currentTime - began - late) * 1000)
  }

  /** Lets one frame be heard; what was heard before ends. */
  function scrub(all: readonly Audible[], frame: number, fps: number): void {
    stop()
    const frames = Math.max(1, LEAST_SCRUB_S * fps)
    pass(all, frame, frame + frames, { fps, speed: 1 }, context.currentTime)
  }

  return { start, scrub, stop }
}

export type Player = ReturnType<typeof makePlayer>
