import { LIMITS, type ShotDocument } from '../model/model.ts'
import type { Table } from '../model/table.ts'
import type { Refusal } from '../model/refusal.ts'

/**
 * Where a batch is worked out. A table or thing that the batch has made is changed in place, everything else is copied
 * once and then belongs to it: a batch costs what it changes, however many operations it has, and never changes what it was
 * given. It also keeps what the operations of one batch ask for again and again.
 */
export interface Bench {
  /** whether bounds are held against what is done; what was taken in before is not asked again */
  readonly bounded: boolean
  /** `thing` with some properties changed */
  set<T extends object>(thing: T, patch: Partial<T>): T
  /** `table` with `thing` under `id`, added or replaced */
  put<T>(table: Table<T>, id: string, thing: T): Table<T>
  /** `table` without some ids */
  without<T>(table: Table<T>, ids: readonly string[]): Table<T>
  /** how many things a table holds */
  size(table: Table<unknown>): number
  /** sheet numbers of a layer with the drawing that has each */
  numbers(document: ShotDocument, layer: string): Map<number, string>
  /** drawings that a column of the layer they are on, a linked cycle, a chart or a pin refers to, by what does */
  inUse(document: ShotDocument): InUse
  /** forgets what refers to drawings: it may have changed */
  forgetUse(): void
  /** counts things looked through; says no when one batch would look through too many */
  spend(things: number): Refusal | null
  /** says no to what would make a shot larger than any may be, and how much would fit */
  room(has: number, more: number, limit: RoomLimit): Refusal | null
  /** what the shot holds altogether; counted once and then kept by those who change it */
  totals(document: ShotDocument): Totals
}

/** What is bounded over the whole shot. */
export interface Totals {
  elements: number
  places: number
}

export interface InUse {
  readonly exposed: ReadonlySet<string>
  readonly charted: ReadonlySet<string>
  readonly pinned: ReadonlySet<string>
}

/** The most things that one batch may look through: some tenths of a second of work on any machine. */
const MOST_LOOKED_THROUGH = 5_000_000

/** A fresh bench. What was taken in before is worked out again without a bound: it must not be refused afterwards. */
export function makeBench(bounded = true): Bench {
  const made = new WeakSet<object>()
  const ownSizes = new WeakMap<object, number>()
  const numbersOf = new Map<string, Map<number, string>>()
  let use: InUse | null = null
  let totals: Totals | null = null
  let spent = 0

  function own<T extends object>(thing: T): T {
    if (made.has(thing)) return thing
    const copy = { ...thing }
    made.add(copy)
    return copy
  }
  const size = (table: Table<unknown>): number => {
    const kept = made.has(table) ? ownSizes : sizes
    const known = kept.get(table) ?? Object.keys(table).length
    kept.set(table, known)
    return known
  }

  return {
    bounded,
    set: (thing, patch) => Object.assign(own(thing), patch),
    put<T>(table: Table<T>, id: string, thing: T): Table<T> {
      const before = size(table)
      const mine = own(table) as Record<string, T>
      ownSizes.set(mine, Object.hasOwn(mine, id) ? before : before + 1)
      // Assigning to this one name would change what the table inherits.
      if (id === '__proto__') Object.defineProperty(mine, id, { value: thing, ...PLAIN })
      else mine[id] = thing
      return mine
    },
    without<T>(table: Table<T>, ids: readonly string[]): Table<T> {
      const before = size(table)
      const mine = own(table) as Record<string, T>
      let gone = 0
      for (const id of ids) {
        if (Object.hasOwn(mine, id)) gone++
        delete mine[id]
      }
      ownSizes.set(mine, before - gone)
      return mine
    },
    size,
    numbers(document, layer) {
      const known = numbersOf.get(layer)
      if (known) return known
      const fresh = new Map<number, string>()
      for (const drawing of Object.values(document.drawings)) {
        if (drawing.layer === layer) fresh.set(drawing.number, drawing.id)
      }
      numbersOf.set(layer, fresh)
      return fresh
    },
    inUse(document) {
      if (!use) spent += runsOf(document) + size(document.charts)
      return (use ??= useOf(document))
    },
    forgetUse: () => (use = null),
    spend(things) {
      spent += things
      return bounded && spent > MOST_LOOKED_THROUGH
        ? { code: 'too-many', what: 'changes of a large shot at once; do it in parts' }
        : null
    },
    room: (has, more, limit) => (bounded && more > 0 && has + more > LIMITS[limit] ? noRoom(has, limit) : null),
    totals: document => (totals ??= totalsOf(document, size)),
  }
}

/** Sizes of tables that nobody changes any more. */
const sizes = new WeakMap<object, number>()

const PLAIN = { enumerable: true, configurable: true, writable: true }

function useOf(document: ShotDocument): InUse {
  const exposed = new Set<string>()
  const pinned = new Set<string>()
  for (const take of Object.values(document.takes)) {
    for (const [layer, column] of Object.entries(take.columns)) {
      // The sheets of a tied layer are exposed by what it follows, and leave nothing but an empty place.
      if (document.layers[layer]?.follows) continue
      for (const run of column) if (run.drawing !== null) exposed.add(run.drawing)
    }
    for (const cycle of Object.values(take.cycles)) {
      for (const run of cycle.pattern) if (run.drawing !== null) exposed.add(run.drawing)
    }
    for (const id of Object.keys(take.pins)) pinned.add(id)
  }
  const charted = new Set<string>()
  for (const chart of Object.values(document.charts)) {
    charted.add(chart.from).add(chart.to)
    for (const tick of chart.ticks) if (tick.drawing !== null) charted.add(tick.drawing)
  }
  return { exposed, charted, pinned }
}

/** Strokes and placed marks of all drawings. */
function totalsOf(document: ShotDocument, size: Bench['size']): Totals {
  let elements = 0
  let places = 0
  for (const drawing of Object.values(document.drawings)) {
    elements += size(drawing.elements)
    places += size(drawing.marks)
  }
  return { elements, places }
}

/** Runs of all columns and patterns of all takes: what the exposure sheet amounts to. */
export function runsOf(document: ShotDocument): number {
  let runs = 0
  for (const take of Object.values(document.takes)) {
    for (const column of Object.values(take.columns)) runs += column.length
    for (const cycle of Object.values(take.cycles)) runs += cycle.pattern.length
  }
  return runs
}

function noRoom(has: number, limit: RoomLimit): Refusal {
  const fit = Math.max(0, LIMITS[limit] - has).toLocaleString('en')
  return { code: 'too-many', what: `${ROOM[limit]}: ${fit} more would fit` }
}

const ROOM = {
  elementsPerShot: 'strokes in the shot',
  placesPerShot: 'placed marks in the shot',
  runsPerShot: 'exposures in the shot',
} as const
type RoomLimit = keyof typeof ROOM
