import type { LayerPath } from '../../path/path.ts'
import type { Cycle } from '../../time/cycle.ts'
import type { Run } from '../../time/exposure.ts'
import type { LoopRange } from '../../time/loop.ts'
import type {
  Accepted,
  ActionNote,
  Beat,
  Chart,
  CutName,
  ClipPoint,
  FilmClip,
  Drawing,
  Element,
  Format,
  Guide,
  Layer,
  Mark,
  MarkPlace,
  Picture,
  Remark,
  Role,
  Saying,
  ShotDocument,
  Sound,
  SpokenWord,
  Stroke,
  Swatch,
  Take,
  WayOfWorking,
} from '../model/model.ts'
import type { Refusal } from '../model/refusal.ts'
import type { Table } from '../model/table.ts'
import type { Bench } from './bench.ts'

/** Every change of a document. Small plain values, by id, so that changes to different things can go in either order. */
export interface Operations {
  'format.set': { readonly patch: Partial<Format> }
  /** what is said of the shot as a whole */
  'shot.set': {
    readonly patch: {
      readonly way?: WayOfWorking
      readonly current?: string
      readonly exposure?: number
      readonly scale?: number | null
      readonly ceiling?: number | null
      readonly study?: string
      readonly cuts?: readonly CutName[]
    }
  }
  'layer.add': { readonly layer: Layer }
  'layer.set': {
    readonly id: string
    readonly patch: Partial<Omit<Layer, 'id'>>
  }
  'layer.remove': { readonly id: string }
  'drawing.add': { readonly drawing: Drawing }
  'drawing.set': { readonly id: string; readonly patch: { readonly number?: number; readonly role?: Role } }
  'drawing.remove': { readonly id: string }
  'elements.add': { readonly drawing: string; readonly elements: readonly Element[] }
  'elements.set': { readonly drawing: string; readonly changes: readonly ElementChange[] }
  'elements.remove': { readonly drawing: string; readonly ids: readonly string[] }
  'chart.add': { readonly chart: Chart }
  'chart.set': { readonly id: string; readonly patch: Partial<Pick<Chart, 'wish' | 'ticks'>> }
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
  /** links a stretch to a pattern: its frames show the pattern from then on, over what was there */
  'cycle.add': { readonly take: string; readonly cycle: Cycle }
  'cycle.set': {
    readonly take: string
    readonly id: string
    readonly patch: Partial<Pick<Cycle, 'from' | 'to' | 'offset' | 'pattern'>>
  }
  /** unlinks: the frames stay as they are and can be changed one by one */
  'cycle.remove': { readonly take: string; readonly id: string }
  'take.add': { readonly take: Take }
  'take.set': { readonly id: string; readonly patch: Partial<Pick<Take, 'name' | 'order' | 'open'>> }
  /** only a take that is not the current one */
  'take.remove': { readonly id: string }
  'swatch.add': { readonly swatch: Swatch }
  'swatch.set': { readonly id: string; readonly patch: Partial<Omit<Swatch, 'id'>> }
  'swatch.remove': { readonly id: string }
  'mark.add': { readonly mark: Mark }
  'mark.set': { readonly id: string; readonly patch: Partial<Pick<Mark, 'name' | 'order'>> }
  'mark.remove': { readonly id: string }
  /** places marks on a drawing, or takes them off it (null) */
  'marks.place': { readonly drawing: string; readonly places: Table<MarkPlace | null> }
  'beat.add': { readonly beat: Beat }
  'beat.set': { readonly id: string; readonly patch: Partial<Pick<Beat, 'name' | 'frame'>> }
  'beat.remove': { readonly id: string }
  /** pins a key to a beat in one take, or frees it (null) */
  'pin.set': { readonly take: string; readonly drawing: string; readonly beat: string | null }
  /** how a layer moves as a whole in a take, or that it does not (null) */
  'path.set': { readonly take: string; readonly layer: string; readonly path: LayerPath | null }
  'note.add': { readonly note: ActionNote }
  'note.set': { readonly id: string; readonly patch: Partial<Pick<ActionNote, 'from' | 'to' | 'text'>> }
  'note.remove': { readonly id: string }
  'accepted.add': { readonly accepted: Accepted }
  'accepted.set': { readonly id: string; readonly patch: Partial<Omit<Accepted, 'id'>> }
  'accepted.remove': { readonly id: string }
  'saying.add': { readonly saying: Saying }
  'saying.set': { readonly id: string; readonly patch: Partial<Pick<Saying, 'from' | 'to'>> }
  'saying.remove': { readonly id: string }
  'remark.add': { readonly remark: Remark }
  'remark.set': { readonly id: string; readonly patch: Partial<Omit<Remark, 'id' | 'by' | 'name'>> }
  'remark.remove': { readonly id: string }
  /** drawings that an account has looked at, by their fingerprints; null: not any more */
  'looked.set': { readonly by: string; readonly drawings: Table<string | null> }
  /** at which value a check begins to speak; null: as it comes */
  'threshold.set': { readonly name: string; readonly value: number | null }
  'guide.add': { readonly guide: Guide }
  'guide.set': { readonly id: string; readonly patch: Partial<Omit<Guide, 'id' | 'recipe' | 'take' | 'layer'>> }
  'guide.remove': { readonly id: string }
  'sound.add': { readonly sound: Sound }
  'sound.set': { readonly id: string; readonly patch: Partial<Omit<Sound, 'id' | 'media' | 'seconds'>> }
  'sound.remove': { readonly id: string }
  'word.add': { readonly word: SpokenWord }
  'word.set': { readonly id: string; readonly patch: Partial<Omit<SpokenWord, 'id'>> }
  'word.remove': { readonly id: string }
  'clip.add': { readonly clip: FilmClip }
  'clip.set': {
    readonly id: string
    readonly patch: Partial<Omit<FilmClip, 'id' | 'media' | 'seconds' | 'widthPx' | 'heightPx'>>
  }
  'clip.remove': { readonly id: string }
  'point.add': { readonly point: ClipPoint }
  'point.set': { readonly id: string; readonly patch: Partial<Omit<ClipPoint, 'id' | 'clip'>> }
  'point.remove': { readonly id: string }
}

export type ElementChange = {
  readonly id: string
  /** what may be set depends on the kind of the element; the rest is refused */
  readonly patch: Partial<
    Pick<Stroke, 'matrix' | 'swatch' | 'width' | 'nib' | 'label' | 'z'> &
      Pick<Picture, 'opacity' | 'cut' | 'placeholder'>
  >
}

export type OperationKind = keyof Operations

/** An operation: its kind and what it needs. */
export type OperationOf<K extends OperationKind> = { readonly kind: K } & Operations[K]
export type Operation = { [K in OperationKind]: OperationOf<K> }[OperationKind]

/** What others want to know of a kind of operation, whatever it says. */
export interface Facts {
  /** whether what tied layers show may be another one afterwards: all that touches sheets, their numbers or layers */
  readonly movesTies: boolean
  /** whether the exposures of a shot may be more afterwards */
  readonly grows: boolean
  /** whether it changes what strokes and marks of drawings refer to: earlier versions of a drawing are worked out with it */
  readonly referred: boolean
}

/** What changes nothing but its own table: beats, notes, the format. */
export const PLAIN: Facts = { movesTies: false, grows: false, referred: false }

/** What each kind of operation knows how to do. */
interface Doing<K extends OperationKind> {
  readonly facts: Facts
  /** whether it, or what undoes it, must know what tied layers show: untied, they go on showing it */
  readsTies?(op: OperationOf<K>): boolean
  /** id of the drawing whose look it changes, when it changes one */
  drawing?(op: OperationOf<K>): string
  /** elements that it brings onto drawings: what they show must be stored before it can be done */
  brings?(op: OperationOf<K>): readonly Element[]
  /** SHA-256 of stored media it refers to; they may come later than it does */
  media?(op: OperationOf<K>): readonly string[]
  /** what it sets, as a text: of two in a row that set the same, undoing the earlier undoes both */
  joins?(op: OperationOf<K>): string
  /** the only place that says no; total, never throws on data */
  refuse(document: ShotDocument, op: OperationOf<K>, bench: Bench): Refusal | null
  /** the document after it; parts it does not touch keep their identity. Only after `refuse` said null */
  apply(document: ShotDocument, op: OperationOf<K>, bench: Bench): ShotDocument
  /** the operations that undo it on the document it leads to, in the order to do them */
  invert(before: ShotDocument, op: OperationOf<K>): Operation[]
}

/** Ids of the things, and of places in tables, that an operation brings in: what adds has to say. */
interface Bringing<K extends OperationKind> {
  ids(op: OperationOf<K>): readonly string[]
}

/** What each kind of operation knows. */
export type Handler<K extends OperationKind> = Doing<K> &
  (K extends `${string}.add` ? Bringing<K> : Partial<Bringing<K>>)
/** The same, for those who do not know which kind it is. */
export type AnyHandler = Doing<OperationKind> & Partial<Bringing<OperationKind>>

/** Whether a number can be a frame: whole, from 0. */
export const isFrame = (n: number): boolean => Number.isInteger(n) && n >= 0

/** What the properties of a patch were before: the patch that undoes it. */
export function valuesBefore<T extends object, P extends Partial<T>>(thing: T, patch: P): P {
  return Object.fromEntries(Object.keys(patch).map(key => [key, thing[key as keyof T]])) as P
}
