/** Things by id. A plain object, so that it serialises; read it only through these functions, for ids come from outside. */
export type Table<T> = Readonly<Record<string, T>>

/** The thing with an id, or undefined; never something inherited, whatever the id spells. */
export function find<T>(table: Table<T>, id: string): T | undefined {
  return Object.hasOwn(table, id) ? table[id] : undefined
}

/** Whether a table has an id of its own; names that every object inherits are none. */
export const has = (table: Table<unknown>, id: string): boolean => Object.hasOwn(table, id)

/** The thing with an id that is known to be there. Throws when it is not: a refusal was overlooked. */
export function get<T>(table: Table<T>, id: string): T {
  const found = find(table, id)
  if (found === undefined) throw new RangeError(`nothing has the id ${JSON.stringify(id)}`)
  return found
}

/** A table with `thing` under `id`, added or replaced. */
export function put<T>(table: Table<T>, id: string, thing: T): Table<T> {
  return { ...table, [id]: thing }
}

/** How many things a table holds. */
export const sizeOf = (table: Table<unknown>): number => Object.keys(table).length
