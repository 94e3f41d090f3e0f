import { aidsFrom, NO_AIDS, type PaperAids } from '../desk/aids.ts'
import type { LayerLook } from './desk.ts'

/** What this machine remembers of a shot that is no business of anyone else's. */
export interface KeptOfShot {
  readonly looks: Readonly<Record<string, LayerLook>>
  readonly deferred: readonly string[]
  readonly aids: PaperAids
}

const NOTHING: KeptOfShot = { looks: {}, deferred: [], aids: NO_AIDS }

/** Reads and writes it. Anything unreadable counts as nothing. */
export function keptFor(shot: string) {
  const key = `shot ${shot}`
  return {
    read(): KeptOfShot {
      try {
        const stored = JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<KeptOfShot>
        const looks = Object.entries(stored.looks ?? {}).filter(([, look]) => look === 'dimmed' || look === 'hidden')
        const deferred = Array.isArray(stored.deferred) ? stored.deferred.filter(id => typeof id === 'string') : []
        return { looks: Object.fromEntries(looks), deferred, aids: aidsFrom(stored.aids) }
      } catch {
        return NOTHING
      }
    },
    write: (kept: KeptOfShot) => localStorage.setItem(key, JSON.stringify(kept)),
  }
}
