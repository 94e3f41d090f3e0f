/** Why an operation cannot be done on a document. `what` names the thing that is missing or in the way. */
export interface Refusal {
  readonly code: RefusalCode
  readonly what: string
}

export type RefusalCode =
  | 'unknown-layer'
  | 'unknown-drawing'
  | 'unknown-element'
  | 'unknown-chart'
  | 'unknown-take'
  | 'unknown-swatch'
  | 'unknown-cycle'
  | 'unknown-mark'
  | 'unknown-beat'
  | 'unknown-note'
  | 'unknown-accepted'
  | 'unknown-saying'
  | 'unknown-remark'
  | 'unknown-guide'
  | 'unknown-sound'
  | 'unknown-word'
  | 'unknown-clip'
  | 'unknown-point'
  | 'id-taken'
  | 'number-taken'
  | 'still-exposed'
  | 'still-charted'
  | 'still-pinned'
  | 'still-placed'
  | 'still-used'
  | 'still-guided'
  | 'linked'
  | 'tied'
  | 'still-followed'
  | 'still-tracked'
  | 'current-take'
  | 'layer-not-empty'
  | 'last-layer'
  | 'wrong-layer'
  | 'outside-shot'
  | 'bad-value'
  | 'too-many'

/** Why something is refused, and what it is about. */
export const refusal = (code: RefusalCode, what: string): Refusal => ({ code, what })
