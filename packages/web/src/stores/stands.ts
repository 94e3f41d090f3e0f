import type { PictureSize } from '@unhurried/core/assets'
import type { Point } from '@unhurried/core/geometry'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { newId } from '../local/ids.ts'
import { MOST_STANDS, PLAIN_VIEW, STAND_PX, type Over, type Stand, type StandKind, type Tones } from '../paint/stand.ts'
import { keptFor } from './kept.ts'
import { useShot } from './shot.ts'

/** What stands beside the paper, and what of the film is laid over it, only to look. This machine remembers it for each shot. */
export const useStands = defineStore('stands', () => {
  const shot = useShot()
  const all = shallowRef<readonly Stand[]>([])
  const over = shallowRef<Over | null>(null)
  const tones = ref<Tones>(null)

  watch(
    () => shot.id,
    id => {
      const left = id ? keptFor(id).read() : { stands: [], over: null }
      all.value = left.stands
      over.value = left.over
      tones.value = null
    },
    { immediate: true },
  )
  watch([all, over], () => {
    if (shot.id) keptFor(shot.id).write({ stands: all.value, over: over.value })
  })

  const change = (key: string, patch: Partial<Omit<Stand, 'key'>>) =>
    (all.value = all.value.map(one => (one.key === key ? { ...one, ...patch } : one)))

  return {
    all,
    over,
    tones,
    /** how reference and paper are seen, as CSS has it */
    filter: computed(() =>
      tones.value === null ? '' : tones.value === 0 ? 'grayscale(1)' : `url(#tones-${tones.value})`,
    ),
    /** Puts something up, once, in a window of its shape; the oldest goes where there are too many. */
    put(of: StandKind, id: string, { widthPx, heightPx }: PictureSize): void {
      if (all.value.some(one => one.of === of && one.id === id)) return
      const at = 24 + 28 * (all.value.length % MOST_STANDS)
      const { least, fresh: width, most } = STAND_PX
      const height = Math.round(Math.max(least, Math.min(most, (width * heightPx) / widthPx)))
      const stand: Stand = {
        key: newId(),
        of,
        id,
        side: '',
        x: at,
        y: at,
        width,
        height,
        step: 'laid',
        offset: 0,
        ...PLAIN_VIEW,
      }
      all.value = [...all.value, stand].slice(-MOST_STANDS)
    },
    change,
    remove: (key: string) => (all.value = all.value.filter(one => one.key !== key)),
    lay: (model: string, side: string, low: Point, high: Point) =>
      (over.value = { model, side, low, high, strength: over.value?.strength ?? 0.4 }),
  }
})
