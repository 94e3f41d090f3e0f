import { firstFrameOf, get, neighbours, type Drawing } from '@unhurried/core/document'
import type { LoopRange } from '@unhurried/core/time'
import { computed, type Ref } from 'vue'
import type { LightTable } from './settings.ts'
import type { useShot } from './shot.ts'

/** Drawings put on the light table by the queue: what the next one is drawn from. */
export interface Parents {
  readonly left: string | null
  readonly right: string | null
}

/** Where one stands, and how the light table is set. */
interface Standing {
  readonly shot: ReturnType<typeof useShot>
  readonly lightTable: LightTable
  readonly layerId: Ref<string>
  readonly frame: Ref<number>
  readonly loop: Ref<LoopRange>
  readonly parents: Ref<Parents | null>
  readonly pinned: Ref<readonly string[]>
  readonly drawing: Ref<Drawing | null>
}

/** What lies on the light table. */
export function makeGhosts({ shot, lightTable, layerId, frame, loop, parents, pinned, drawing }: Standing) {
  /** Drawings that show through, nearest first. */
  const ghosts = computed(() => {
    const { document, take } = shot
    if (!document || !take || !lightTable.on) return { past: [], future: [] }
    if (parents.value) {
      const { left, right } = parents.value
      return { past: left === null ? [] : [left], future: right === null ? [] : [right] }
    }
    const round = lightTable.wrap ? loop.value : null
    const near = (direction: -1 | 1, count: number) =>
      neighbours(document, take, layerId.value, frame.value, direction, count, round, lightTable.keysOnly)
    const past = near(-1, lightTable.before)
    const future = near(1, lightTable.after).filter(id => !past.includes(id))
    // What is pinned lies farthest, on the side of the frame it is shown on.
    const known = new Set([...past, ...future, drawing.value?.id])
    const laid = pinned.value.filter(id => !known.has(id) && document.drawings[id]?.layer === layerId.value)
    const isBefore = (id: string) => (firstFrameOf(take, get(document.drawings, id)) ?? 0) < frame.value
    return { past: [...past, ...laid.filter(isBefore)], future: [...future, ...laid.filter(id => !isBefore(id))] }
  })

  /** Drawings that show through from the other side of the loop. */
  const wrapped = computed<ReadonlySet<string>>(() => {
    const { document, take } = shot
    if (!document || !take || !lightTable.wrap) return new Set()
    const from = (id: string) => firstFrameOf(take, get(document.drawings, id)) ?? 0
    return new Set([
      ...ghosts.value.past.filter(id => from(id) > frame.value),
      ...ghosts.value.future.filter(id => from(id) < frame.value),
    ])
  })

  return { ghosts, wrapped }
}
