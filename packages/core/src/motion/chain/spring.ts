import type { Point } from '../../geometry/point.ts'

/** A place that moves: where it is, how fast (px a frame) and how fast that changes (px a frame, a frame), at any frame. */
export interface Root {
  at(frame: number): Point
  velocity(frame: number): Point
  acceleration(frame: number): Point
}

/** What is asked of a chain of springs. */
export interface Spring {
  readonly links: number
  readonly linkPx: number
  /** the angle that the springs pull to, from straight down in the world, radians */
  readonly restRad: number
  /** frames of a spring's own period, without weight */
  readonly own: number
  /** 1: back to rest without swinging past */
  readonly damping: number
  /** how much gravity and being carried along count; 0: only the springs and the air */
  readonly weight: number
  /** how much the air holds it back, a frame */
  readonly air: number
  /** px a frame, a frame */
  readonly gravity: number
}

/** Angles and turning speeds of all links: θ₀, θ̇₀, θ₁, θ̇₁ … in radians and radians a frame. */
export type SpringState = readonly number[]

/** At rest: every link as its spring and its weight would have it before anything moves. */
export const atRest = ({ links, restRad }: Spring): SpringState =>
  Array.from({ length: links }, () => [restRad, 0]).flat()

/** Steps in a frame: none is longer than an eighth of a frame, nor than a thirty-second of a spring's period. */
const stepsPerFrame = ({ own }: Spring): number => Math.max(8, Math.ceil(32 / own))

/**
 * How the state changes on a frame: one way, from the root to the tip. Every link is a pendulum from the moving end of the
 * one before it, θ from straight down, ω₀ = 2π/P:
 * θ̈ = −ω₀²(θ − ρ) − 2ζω₀θ̇ − w[aₓ cos θ + (g − a_y) sin θ]/ℓ − c[(vₓ cos θ − v_y sin θ)/ℓ + θ̇].
 */
function change(spring: Spring, root: Root, state: SpringState, frame: number): number[] {
  const { links, linkPx, restRad, own, damping, weight, air, gravity } = spring
  const omega = (2 * Math.PI) / own
  let { x: vx, y: vy } = root.velocity(frame)
  let { x: ax, y: ay } = root.acceleration(frame)
  const out: number[] = []
  for (let i = 0; i < links; i++) {
    const [angle, speed] = [state[2 * i] as number, state[2 * i + 1] as number]
    const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
    const turning =
      -omega * omega * (angle - restRad) -
      2 * damping * omega * speed -
      (weight * (ax * cos + (gravity - ay) * sin)) / linkPx -
      air * ((vx * cos - vy * sin) / linkPx + speed)
    out.push(speed, turning)
    vx += linkPx * speed * cos
    vy -= linkPx * speed * sin
    ax += linkPx * (turning * cos - speed * speed * sin)
    ay -= linkPx * (turning * sin + speed * speed * cos)
  }
  return out
}

const plus = (state: SpringState, by: readonly number[], times: number): number[] =>
  state.map((value, i) => value + times * (by[i] as number))

/**
 * The state one frame after `frame`: by steps of a fixed length of the frame itself (Runge and Kutta, fourth order), so that
 * it does not depend on how it is played.
 */
export function oneFrameOn(spring: Spring, root: Root, state: SpringState, frame: number): SpringState {
  const steps = stepsPerFrame(spring)
  const h = 1 / steps
  let now = state
  for (let i = 0; i < steps; i++) {
    const at = frame + i * h
    const a = change(spring, root, now, at)
    const b = change(spring, root, plus(now, a, h / 2), at + h / 2)
    const c = change(spring, root, plus(now, b, h / 2), at + h / 2)
    const d = change(spring, root, plus(now, c, h), at + h)
    now = now.map(
      (value, k) =>
        value + (h / 6) * ((a[k] as number) + 2 * (b[k] as number) + 2 * (c[k] as number) + (d[k] as number)),
    )
  }
  return now
}

/** The angles in a state. */
export const anglesIn = (state: SpringState): number[] => state.filter((_, i) => i % 2 === 0)

/** A spring that was let run. */
export interface Ran {
  /** angles of the links on every frame, from 0 on */
  readonly angles: readonly (readonly number[])[]
  /** whether it came to what was asked: a turn like the one before it */
  readonly settled: boolean
}

/** Beyond so many radians a frame it is no chain any more. */
const RUNS_AWAY = 60
const isSound = (state: SpringState): boolean => state.every(value => Math.abs(value) < RUNS_AWAY)

/** `frames` frames from rest. Unsettled where it runs away: from there on it stays as it was. */
export function ranOnce(spring: Spring, root: Root, frames: number): Ran {
  let state = atRest(spring)
  let settled = true
  const angles = [anglesIn(state)]
  for (let frame = 0; frame < frames - 1; frame++) {
    const next = settled ? oneFrameOn(spring, root, state, frame) : state
    if (isSound(next)) state = next
    else settled = false
    angles.push(anglesIn(state))
  }
  return { angles, settled }
}

/** So many turns it is given to find its cycle. */
export const MOST_TURNS = 60
/** Two turns are alike when no joint is farther off. */
const ALIKE_PX = 0.1

/**
 * One turn of a cycle of `period` frames, run until it is like the one before it within a tenth of a pixel. What is left of
 * a difference between its end and its beginning is spread over the turn, so that it closes exactly.
 */
export function ranRound(spring: Spring, root: Root, period: number): Ran {
  let state = atRest(spring)
  let before: (readonly number[])[] | null = null
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    const angles = [anglesIn(state)]
    for (let frame = 0; frame < period; frame++) {
      state = oneFrameOn(spring, root, state, frame)
      if (!isSound(state))
        return { angles: Array.from({ length: period }, () => anglesIn(atRest(spring))), settled: false }
      angles.push(anglesIn(state))
    }
    if (before && alike(spring, before, angles)) return { angles: closed(angles), settled: true }
    before = angles
  }
  return { angles: closed(before ?? []), settled: false }
}

/** Whether no joint is farther off in one turn than in the other than counts; joints move with all angles before them. */
function alike({ linkPx }: Spring, a: readonly (readonly number[])[], b: readonly (readonly number[])[]): boolean {
  return a.every((angles, frame) => {
    let [dx, dy] = [0, 0]
    return angles.every((angle, i) => {
      const other = b[frame]?.[i] as number
      dx += linkPx * (Math.sin(angle) - Math.sin(other))
      dy += linkPx * (Math.cos(angle) - Math.cos(other))
      return Math.max(Math.abs(dx), Math.abs(dy)) <= ALIKE_PX
    })
  })
}

/** A turn without its last frame, which is to be its first: what is left of a difference is spread evenly over the frames. Radians. */
export function closed(angles: readonly (readonly number[])[]): number[][] {
  const period = angles.length - 1
  const [first, last] = [angles[0] ?? [], angles[period] ?? []]
  return angles
    .slice(0, period)
    .map((now, frame) => now.map((angle, i) => angle - (frame / period) * ((last[i] as number) - (first[i] as number))))
}
