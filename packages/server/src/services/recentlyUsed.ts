/** A table that keeps the `most` most recently used things and forgets the rest. */
export function recentlyUsed<T>(most: number) {
  const things = new Map<string, T>()
  return {
    get(key: string): T | undefined {
      const thing = things.get(key)
      if (thing === undefined) return undefined
      things.delete(key)
      things.set(key, thing)
      return thing
    },
    set(key: string, thing: T): void {
      things.delete(key)
      things.set(key, thing)
      const oldest = things.keys().next()
      if (things.size > most && !oldest.done) things.delete(oldest.value)
    },
  }
}
