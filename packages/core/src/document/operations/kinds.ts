import type { Run } from '../../time/exposure.ts'
import type { LoopRange } from '../../time/loop.ts'
import type { Chart, Drawing, Element, Format, Layer, Role, ShotDocument } from '../model.ts'
import type { Table } from '../table.ts'

/** Every change of a document. Small plain values, by id, so that changes to different things can go in either order. */
export interface Operations {
  'format.set': { readonly patch: Partial<Format> }
  'layer.add': { readonly layer: Layer }
  'layer.set': { readonly id: string; readonly patch: Partial<Pick<Layer, 'name' | 'order'>> }
  'layer.remove': { readonly id: string }
  'drawing.add': { readonly drawing: Drawing }
  'drawing.set': { readonly id: string; readonly patch: { readonly number?: number; readonly role?: Role } }
  'drawing.remove': { readonly id: string }
  'elements.add': { readonly drawing: string; readonly elements: readonly Element[] }
  'elements.set': { readonly drawing: string; readonly changes: readonly ElementChange[] }
  'elements.remove': { readonly drawing: string; readonly ids: readonly string[] }
  'chart.add': { readonly chart: Chart }
  'chart.set': { readonly id: string; readonly patch: Partial<Pick<Chart, 'preset' | 'ticks'>> }
  'chart.remove': { readonly id: string }
  /** writes runs over a column from a frame on; the shot keeps its length */
  'exposure.write': {
    readonly take: string
    readonly layer: string
    readonly from: number
    readonly runs: readonly Run[]
  }
  /** puts frames in before `at`, on every layer; a layer without a filling holds what it showed before */
  'frames.insert': {
    readonly take: string
    readonly at: number
    readonly count: number
    readonly fill: Table<readonly Run[]>
  }
  /** takes frames out on every layer; what follows moves up */
  'frames.remove': { readonly take: string; readonly at: number; readonly count: number }
  'loop.set': { readonly take: string; readonly loop: LoopRange | null }
}

export type ElementChange = {
  readonly id: string
  readonly patch: Partial<Pick<Element, 'matrix' | 'swatch' | 'width' | 'z'>>
}

export type OperationKind = keyof Operations

/** An operation: its kind and what it needs. */
export type OperationOf<K extends OperationKind> = { readonly kind: K } & Operations[K]
export type Operation = { [K in OperationKind]: OperationOf<K> }[OperationKind]

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
  | 'id-taken'
  | 'number-taken'
  | 'still-exposed'
  | 'still-charted'
  | 'layer-not-empty'
  | 'last-layer'
  | 'wrong-layer'
  | 'outside-shot'
  | 'bad-value'
  | 'too-many'

/** What each kind of operation knows how to do. */
export interface Handler<K extends OperationKind> {
  /** the only place that says no; total, never throws on data */
  refuse(document: ShotDocument, op: OperationOf<K>): Refusal | null
  /** the document after it; parts it does not touch keep their identity. Only after `refuse` said null */
  apply(document: ShotDocument, op: OperationOf<K>): ShotDocument
  /** the operations that undo it on the document it leads to, in the order to do them */
  invert(before: ShotDocument, op: OperationOf<K>): Operation[]
}

export const refusal = (code: RefusalCode, what: string): Refusal => ({ code, what })
