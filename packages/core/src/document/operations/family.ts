import {
  LIMITS,
  type Accepted,
  type ActionNote,
  type Beat,
  type Chart,
  type ClipPoint,
  type FilmClip,
  type Guide,
  type Mark,
  type Remark,
  type Saying,
  type ShotDocument,
  type Sound,
  type SpokenWord,
  type Swatch,
} from '../model/model.ts'
import { find, get, has, type Table } from '../model/table.ts'
import type { Bench } from './bench.ts'
import { valuesBefore, type Facts, type Handler, type Operation, type OperationOf } from './kinds.ts'
import { refusal, type Refusal } from '../model/refusal.ts'

/** Things of a shot that are added, changed and removed alike, each in a table of its own. */
interface Families {
  readonly beat: Beat
  readonly note: ActionNote
  readonly accepted: Accepted
  readonly saying: Saying
  readonly remark: Remark
  readonly mark: Mark
  readonly swatch: Swatch
  readonly chart: Chart
  readonly guide: Guide
  readonly sound: Sound
  readonly word: SpokenWord
  readonly clip: FilmClip
  readonly point: ClipPoint
}
type Word = keyof Families

const TABLES = {
  beat: 'beats',
  note: 'notes',
  accepted: 'accepted',
  saying: 'sayings',
  remark: 'remarks',
  mark: 'marks',
  swatch: 'swatches',
  chart: 'charts',
  guide: 'guides',
  sound: 'sounds',
  word: 'words',
  clip: 'clips',
  point: 'points',
} as const satisfies {
  readonly [W in Word]: keyof ShotDocument & keyof typeof LIMITS
}

/** What a family has of its own. */
interface Rules<W extends Word> {
  readonly facts: Facts
  /** what is wrong with a thing as it would be after it was added or changed, or null */
  refuse(document: ShotDocument, thing: Families[W]): Refusal | null
  /** why a thing cannot be removed yet, or null; nothing keeps it unless told */
  kept?(document: ShotDocument, id: string, bench: Bench): Refusal | null
  /** the stored media that a thing refers to */
  media?(thing: Families[W]): readonly string[]
  /** whether things of it refer to drawings, so that what was known of that is to be forgotten */
  readonly refersToDrawings?: boolean
}

/** A change of a thing, whatever it is called. */
interface Change<T> {
  readonly id: string
  readonly patch: Partial<T>
}

/** The three operations of a family: add, set (the patch undone by the values before), remove (undone by adding again). */
export function family<W extends Word>(word: W, rules: Rules<W>) {
  type T = Families[W]
  const table = TABLES[word]
  const unknown = (id: string) => refusal(`unknown-${word}`, id)
  const things = (document: ShotDocument) => document[table] as unknown as Table<T>
  const thingOf = (op: OperationOf<`${W}.add`>) => (op as unknown as Record<W, T>)[word]
  const adding = (thing: T) => ({ kind: `${word}.add`, [word]: thing }) as unknown as Operation

  function withThings(document: ShotDocument, next: Table<T>, bench: Bench): ShotDocument {
    if (rules.refersToDrawings) bench.forgetUse()
    return bench.set(document, { [table]: next } as Partial<ShotDocument>)
  }

  const set = {
    facts: rules.facts,
    joins: ({ id, patch }: Change<T>) => `${id} ${Object.keys(patch).sort().join()}`,
    refuse(document: ShotDocument, { id, patch }: Change<T>) {
      const thing = find(things(document), id)
      return thing ? rules.refuse(document, { ...thing, ...patch }) : unknown(id)
    },
    apply: (document: ShotDocument, { id, patch }: Change<T>, bench: Bench) =>
      withThings(document, bench.put(things(document), id, { ...get(things(document), id), ...patch }), bench),
    invert: (before: ShotDocument, { id, patch }: Change<T>) => [
      { kind: `${word}.set`, id, patch: valuesBefore(get(things(before), id), patch) } as unknown as Operation,
    ],
  }
  const remove = {
    facts: rules.facts,
    refuse: (document: ShotDocument, { id }: { readonly id: string }, bench: Bench) =>
      has(things(document), id) ? (rules.kept?.(document, id, bench) ?? null) : unknown(id),
    apply: (document: ShotDocument, { id }: { readonly id: string }, bench: Bench) =>
      withThings(document, bench.without(things(document), [id]), bench),
    invert: (before: ShotDocument, { id }: { readonly id: string }) => [adding(get(things(before), id))],
  }
  return {
    add: {
      facts: rules.facts,
      ids: (op: OperationOf<`${W}.add`>) => [thingOf(op).id],
      ...(rules.media && { media: (op: OperationOf<`${W}.add`>) => rules.media?.(thingOf(op)) ?? [] }),
      refuse(document: ShotDocument, op: OperationOf<`${W}.add`>, bench: Bench) {
        const thing = thingOf(op)
        if (has(things(document), thing.id)) return refusal('id-taken', thing.id)
        if (bench.size(things(document)) >= LIMITS[table]) return refusal('too-many', table)
        return rules.refuse(document, thing)
      },
      apply(document: ShotDocument, op: OperationOf<`${W}.add`>, bench: Bench) {
        const thing = thingOf(op)
        return withThings(document, bench.put(things(document), thing.id, thing), bench)
      },
      invert: (_before: ShotDocument, op: OperationOf<`${W}.add`>) => [
        { kind: `${word}.remove`, id: thingOf(op).id } as Operation,
      ],
    } as unknown as Handler<`${W}.add`>,
    set: set as unknown as Handler<`${W}.set`>,
    remove: remove as unknown as Handler<`${W}.remove`>,
  }
}
