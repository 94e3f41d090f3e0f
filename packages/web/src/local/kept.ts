/** Reads a text as a value; what cannot be read is nothing. */
function read(storage: Storage, key: string): unknown {
  try {
    return JSON.parse(storage.getItem(key) ?? 'null')
  } catch {
    return null
  }
}

/**
 * Something this machine remembers: each tab goes on with its own, also after a reload; a new tab begins with what was last
 * kept by any. What cannot be read is null, and readers give it a meaning by a schema.
 */
export const kept = (key: string) => ({
  read: (): unknown => read(sessionStorage, key) ?? read(localStorage, key),
  write(value: unknown): void {
    const text = JSON.stringify(value)
    sessionStorage.setItem(key, text)
    localStorage.setItem(key, text)
  },
})

/** Lets go of all that is remembered under keys that begin so. */
export function forgetKept(begins: string): void {
  for (const storage of [sessionStorage, localStorage]) {
    for (const key of Object.keys(storage)) if (key.startsWith(begins)) storage.removeItem(key)
  }
}
