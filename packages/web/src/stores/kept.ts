import { aidsFrom, NO_AIDS, type PaperAids } from '../desk/aids.ts'
import { looksFrom, type Looks } from '../desk/looks.ts'

/** What this machine remembers of a shot that is no business of anyone else's. */
export interface KeptOfShot {
  readonly looks: Looks
  readonly deferred: readonly string[]
  readonly aids: PaperAids
  /** other layers whose drawings show through too, and how much of the light table's strength they get */
  readonly lit: Readonly<Record<string, number>>
}

const NOTHING: KeptOfShot = { looks: {}, deferred: [], aids: NO_AIDS, lit: {} }

function litFrom(stored: unknown): KeptOfShot['lit'] {
  const given = Object.entries(typeof stored === 'object' && stored !== null ? stored : {})
  return Object.fromEntries(given.filter(([, share]) => typeof share === 'number' && share > 0 && share <= 1))
}

/** Reads and writes it. Anything unreadable counts as nothing. */
export function keptFor(shot: string) {
  const key = `shot ${shot}`
  return {
    read(): KeptOfShot {
      try {
        const stored = JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<KeptOfShot>
        const deferred = Array.isArray(stored.deferred) ? stored.deferred.filter(id => typeof id === 'string') : []
        return { looks: looksFrom(stored.looks), deferred, lit: litFrom(stored.lit), aids: aidsFrom(stored.aids) }
      } catch {
        return NOTHING
      }
    },
    write: (kept: KeptOfShot) => localStorage.setItem(key, JSON.stringify(kept)),
  }
}
