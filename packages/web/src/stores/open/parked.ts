import { assetIds } from '@unhurried/core/document'
import { shallowRef } from 'vue'
import * as local from '../../local/database.ts'
import type { GivenUp } from './link.ts'

/** Keys of what this machine's storage could not take: it lies here until the desk is closed. */
let unkept = -1

/** What the server will not take of the shot on the desk: set aside, with its strokes, until somebody decides. */
export function makeParked() {
  const entries = shallowRef<readonly local.Parked[]>([])

  return {
    entries,
    async read(shot: string): Promise<void> {
      entries.value = await local.parkedOf(shot)
    },
    forget: () => (entries.value = []),

    /** Sets batches aside. In sight at once; kept on this machine in the same step that takes them off what waits. */
    async add(shot: string, given: readonly GivenUp[], bytes: (id: string) => Uint8Array | undefined): Promise<void> {
      const parked = given.map(({ batch, code, what }) => {
        const own = assetIds(batch.ops).flatMap(id => {
          const known = bytes(id)
          return known ? [[id, known] as const] : []
        })
        return { batch, code, what, at: Date.now(), samples: new Map(own) }
      })
      const shown = parked.map(one => ({ ...one, key: unkept-- }))
      entries.value = [...entries.value, ...shown]
      const keys = await local.park(shot, parked)
      entries.value = entries.value.map(one => {
        const at = shown.indexOf(one as (typeof shown)[number])
        return at < 0 ? one : { ...one, key: keys[at] as number }
      })
    },

    async remove(key: number): Promise<void> {
      entries.value = entries.value.filter(one => one.key !== key)
      if (key >= 0) await local.unpark(key)
    },
  }
}

export type Parked = ReturnType<typeof makeParked>
