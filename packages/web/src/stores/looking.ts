import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import { NO_AIDS, type PaperAids } from '../paint/aids.ts'
import { PLAINLY, withLook, type LayerLook, type Looks } from '../paint/looks.ts'
import { keptFor } from './kept.ts'
import type { useShot } from './shot.ts'

/** What this machine remembers of the shot, and how its layers are looked at now. None of it is ever sent off. */
export function makeLooking(shot: ReturnType<typeof useShot>, layerId: Ref<string>) {
  const looks = shallowRef<Looks>({})
  /** other layers whose drawings show through, and the share of the light table's strength they get */
  const lit = shallowRef<Readonly<Record<string, number>>>({})
  /** drawings put off in the queue */
  const deferred = shallowRef<readonly string[]>([])
  const aids = shallowRef<PaperAids>(NO_AIDS)
  const onlyLayer = ref(false)
  /** the animation is seen as shapes without anything inside, and nothing else */
  const silhouettes = ref(false)

  watch([looks, lit, deferred, aids], () => {
    if (!shot.id) return
    keptFor(shot.id).write({ looks: looks.value, lit: lit.value, deferred: deferred.value, aids: aids.value })
  })

  /** looks of layers as they are seen now: one layer alone, or silhouettes, hide others */
  const seenLooks = computed<Looks>(() => {
    const layers = Object.values(shot.document?.layers ?? {})
    const away = layers.filter(
      layer =>
        (onlyLayer.value && layer.id !== layerId.value) ||
        (silhouettes.value && layer.kind !== 'drawn') ||
        (layer.left !== null && !looks.value[layer.id] && layer.id !== layerId.value),
    )
    return away.length ? { ...looks.value, ...Object.fromEntries(away.map(({ id }) => [id, hidden(id)])) } : looks.value
  })
  const hidden = (id: string): LayerLook => ({ ...PLAINLY, ...looks.value[id], hidden: true })

  function setLit(id: string, share: number): void {
    const rest = Object.fromEntries(Object.entries(lit.value).filter(([known]) => known !== id))
    lit.value = share > 0 ? { ...rest, [id]: share } : rest
  }

  return {
    looks,
    lit,
    deferred,
    aids,
    onlyLayer,
    silhouettes,
    seenLooks,
    setLit,
    setLook: (id: string, patch: Partial<LayerLook>) => (looks.value = withLook(looks.value, id, patch)),
    /** Starts afresh on another shot. */
    readAgain(): void {
      onlyLayer.value = false
      silhouettes.value = false
      const left = keptFor(shot.id).read()
      looks.value = left.looks
      lit.value = left.lit
      deferred.value = left.deferred
      aids.value = left.aids
    },
  }
}
