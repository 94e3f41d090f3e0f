import {
  exposures,
  find,
  firstFrameOf,
  get,
  isBlank,
  layersInOrder,
  neighbours,
  plannedPlace,
  type Drawing,
} from '@unhurried/core/document'
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
  readonly lit: Ref<Readonly<Record<string, number>>>
}

/** A drawing that shows through. */
export interface Ghost {
  readonly drawing: string
  readonly side: 'past' | 'future'
  /** 0 for the nearest; those behind it are weaker */
  readonly rank: number
  /** frame whose place of its layer it is seen in: the nearest on its side that shows it */
  readonly frame: number
  /** share of the light table's strength that its layer gets */
  readonly share: number
}

/** What lies on the light table. */
export function makeGhosts({ shot, lightTable, layerId, frame, loop, parents, pinned, drawing, lit }: Standing) {
  function near(layer: string, direction: -1 | 1, count: number): string[] {
    const { document, take } = shot
    if (!document || !take) return []
    const round = lightTable.wrap ? loop.value : null
    return neighbours(document, take, layer, frame.value, direction, count, round, lightTable.keysOnly)
  }

  function beside(layer: string) {
    const past = near(layer, -1, lightTable.before)
    return { past, future: near(layer, 1, lightTable.after).filter(id => !past.includes(id)) }
  }

  /** What a charted drawing is made from, on either side: it always shows. */
  const madeFrom = computed(() => {
    const { document, take } = shot
    const place = document && take && drawing.value ? plannedPlace(document, take, drawing.value) : null
    const drawn = (one: Drawing | undefined) => (one && !isBlank(one) ? [one.id] : [])
    return { past: drawn(place?.left), future: drawn(place?.right) }
  })

  /** Drawings of the layer in the hand that show through, nearest first. */
  const ghosts = computed(() => {
    const { document, take } = shot
    if (!document || !take || !lightTable.on) return { past: [], future: [] }
    if (parents.value) {
      const { left, right } = parents.value
      return { past: left === null ? [] : [left], future: right === null ? [] : [right] }
    }
    const near = beside(layerId.value)
    const past = [...near.past, ...madeFrom.value.past.filter(id => ![...near.past, ...near.future].includes(id))]
    const future = [...near.future, ...madeFrom.value.future.filter(id => ![...past, ...near.future].includes(id))]
    // What is pinned lies farthest, on the side of the frame it is shown on.
    const known = new Set([...past, ...future, drawing.value?.id])
    const laid = pinned.value.filter(id => !known.has(id) && document.drawings[id]?.layer === layerId.value)
    const isBefore = (id: string) => (firstFrameOf(take, get(document.drawings, id)) ?? 0) < frame.value
    return { past: [...past, ...laid.filter(isBefore)], future: [...future, ...laid.filter(id => !isBefore(id))] }
  })

  /** The frame nearest to the present one, on a side of it, on which a drawing begins to be shown; round the loop where it is shown only there. */
  function shownNear(id: string, side: Ghost['side']): number {
    const { document, take } = shot
    const sheet = document && find(document.drawings, id)
    if (!take || !sheet) return frame.value
    const starts = exposures(take, sheet.layer).flatMap(run => (run.drawing === id ? [run.start] : []))
    const before = starts.filter(start => start <= frame.value)
    const after = starts.filter(start => start > frame.value)
    return (side === 'past' ? (before.at(-1) ?? after.at(-1)) : (after[0] ?? before[0])) ?? frame.value
  }

  /** Everything that shows through: of other layers first, then of the layer in the hand. */
  const through = computed<readonly Ghost[]>(() => {
    const { document } = shot
    if (!document || !lightTable.on) return []
    const ranked = (ids: readonly string[], side: Ghost['side'], share: number) =>
      ids.map((id, rank): Ghost => ({ drawing: id, side, rank, frame: shownNear(id, side), share }))
    const both = ({ past, future }: ReturnType<typeof beside>, share: number) => [
      ...ranked(past, 'past', share),
      ...ranked(future, 'future', share),
    ]
    const others = layersInOrder(document).filter(({ id }) => id !== layerId.value && lit.value[id])
    return [...others.flatMap(({ id }) => both(beside(id), lit.value[id] as number)), ...both(ghosts.value, 1)]
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

  return { ghosts, through, wrapped }
}
