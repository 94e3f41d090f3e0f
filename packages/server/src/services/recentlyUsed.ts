/**
 * A table that keeps the most recently used things and forgets the rest: at most `most` of them, weighing at most
 * `heaviest` altogether (the newest is kept whatever it weighs).
 */
export function recentlyUsed<T>(most: number, heaviest = Infinity, weightOf: (thing: T) => number = () => 0) {
  const things = new Map<string, { readonly thing: T; readonly weight: number }>()
  let weight = 0

  function remove(key: string): void {
    weight -= things.get(key)?.weight ?? 0
    things.delete(key)
  }

  return {
    get(key: string): T | undefined {
      const found = things.get(key)
      if (found === undefined) return undefined
      things.delete(key)
      things.set(key, found)
      return found.thing
    },
    set(key: string, thing: T): void {
      remove(key)
      const own = weightOf(thing)
      things.set(key, { thing, weight: own })
      weight += own
      for (const oldest of things.keys()) {
        if (oldest === key || (things.size <= most && weight <= heaviest)) break
        remove(oldest)
      }
    },
  }
}
