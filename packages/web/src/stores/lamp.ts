import type { Matrix } from '@unhurried/core/geometry'
import { defineStore, storeToRefs } from 'pinia'
import { reactive, shallowRef, watch } from 'vue'
import { useDesk } from './desk.ts'
import { makeGhosts, type Parents } from './ghosts.ts'
import { keptFor } from './kept.ts'
import { keepSettings, readSettings, type LightTable } from './settings.ts'
import { useShot } from './shot.ts'

/** The light table: which drawings show through the present one, and how. */
export const useLamp = defineStore('lamp', () => {
  const shot = useShot()
  const desk = useDesk()
  const lightTable = reactive<LightTable>(readSettings().lightTable)
  const parents = shallowRef<Parents | null>(null)
  /** other layers whose drawings show through, and the share of the light table's strength they get */
  const lit = shallowRef<Readonly<Record<string, number>>>({})
  /** drawings that show through wherever one stands */
  const pinned = shallowRef<readonly string[]>([])
  /** shown-through drawings laid elsewhere to trace them; the drawings themselves stay as they are */
  const shifts = shallowRef<ReadonlyMap<string, Matrix>>(new Map())

  watch(lightTable, () => keepSettings({ lightTable }), { deep: true })
  watch(lit, () => {
    if (shot.id) keptFor(shot.id).write({ lit: lit.value })
  })
  // What the queue put there is for the drawing it led to.
  watch(
    () => desk.frame,
    () => (parents.value = null),
    { flush: 'sync' },
  )

  const { frame, layerId, loop, drawing } = storeToRefs(desk)
  const shown = makeGhosts({ shot, lightTable, layerId, frame, loop, parents, pinned, drawing, lit })

  function setLit(id: string, share: number): void {
    const rest = Object.fromEntries(Object.entries(lit.value).filter(([known]) => known !== id))
    lit.value = share > 0 ? { ...rest, [id]: share } : rest
  }
  function pin(id: string): void {
    pinned.value = pinned.value.includes(id) ? pinned.value.filter(other => other !== id) : [...pinned.value, id]
  }

  return {
    lightTable,
    parents,
    lit,
    setLit,
    pinned,
    pin,
    shifts,
    ghosts: shown.ghosts,
    wrapped: shown.wrapped,
    shownThrough: shown.through,
    /** Starts afresh on another shot. */
    reset() {
      lit.value = keptFor(shot.id).read().lit
      pinned.value = []
      parents.value = null
      shifts.value = new Map()
    },
  }
})
