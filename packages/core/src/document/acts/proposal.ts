import type { Operation } from '../operations/index.ts'

/** Why a change that was asked for cannot be made, with the figures to say it in words. */
export type NotDone = { readonly ok: false } & (
  | {
      readonly code:
        /** the frames belong partly to a linked cycle, or to more than one turn of it */
        'crosses-cycle' | 'in-a-cycle' | 'nothing-left' | 'past-a-key' | 'not-a-key' | 'too-much'
    }
  | { readonly code: 'too-little-room'; readonly frames: number; readonly needed: number }
  /** it does not fit by so many frames, in the manner asked for */
  | { readonly code: 'no-room'; readonly over: number }
  /** these drawings would no longer be shown in the take */
  | { readonly code: 'would-cover'; readonly drawings: readonly string[] }
  /** so many drawings of a chart are drawn already, more than are asked for */
  | { readonly code: 'more-are-drawn'; readonly drawn: number }
)

/** A change that can be made, by these operations, and what else is known of it. */
export interface Doable {
  readonly ok: true
  readonly ops: readonly Operation[]
  /** the frame (from 0) to stand on afterwards; where one stands when it is left out */
  readonly frame?: number
}

/**
 * What everything answers that is asked for a change: how it is made, or why it cannot be. Nothing is changed by asking; one
 * place carries proposals out and tells of them.
 */
export type Proposal<More = unknown> = (Doable & More) | NotDone

/** A proposal of these operations. */
export const proposed = (ops: readonly Operation[]): Doable => ({ ok: true, ops })
