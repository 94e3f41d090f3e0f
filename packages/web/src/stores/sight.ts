import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { NO_AIDS, type PaperAids } from '../paint/aids.ts'
import { coloursOf } from '../paint/colours.ts'
import { PLAINLY, withLook, type LayerLook, type Looks } from '../paint/looks.ts'
import { FLAT, type View } from '../paint/view.ts'
import { useDesk } from './desk.ts'
import { keptFor } from './kept.ts'
import { keepSettings, readSettings, type SheetShape } from './settings.ts'
import { useShot } from './shot.ts'

/** How the paper and what lies on it are looked at. None of it is ever sent off. */
export const useSight = defineStore('sight', () => {
  const shot = useShot()
  const desk = useDesk()
  const kept = readSettings()
  const view = shallowRef<View>(FLAT)
  const bare = ref(false)
  const marginFolded = ref(false)
  const sheetShape = ref<SheetShape>(kept.sheetShape)
  const dim = ref(kept.dim)
  const beside = shallowRef(kept.beside)
  /** outlines open by no more than so many pixels count as closed, when areas are measured */
  const closedGapPx = ref(kept.closedGapPx)
  /** the drawing shown instead of the present one while a key is held */
  const flippedTo = ref<string | null>(null)
  /** the drawing seen on one side of a line over the paper, `x` in screen pixels */
  const wiped = shallowRef<{ drawing: string; x: number } | null>(null)
  /** whether labelled strokes are shown in working colours */
  const workingColours = ref(true)
  const looks = shallowRef<Looks>({})
  const aids = shallowRef<PaperAids>(NO_AIDS)
  const onlyLayer = ref(false)
  /** the animation is seen as shapes without anything inside, and nothing else */
  const silhouettes = ref(false)
  /** what is found on the drawing in the hand is ringed on the paper */
  const ringed = ref(false)

  watch([sheetShape, closedGapPx, dim, beside], () =>
    keepSettings({
      sheetShape: sheetShape.value,
      closedGapPx: closedGapPx.value,
      dim: dim.value,
      beside: beside.value,
    }),
  )
  watch([looks, aids], () => {
    if (shot.id) keptFor(shot.id).write({ looks: looks.value, aids: aids.value })
  })

  const colours = computed(() => coloursOf(shot.document?.swatches ?? {}, workingColours.value))

  const hidden = (id: string): LayerLook => ({ ...PLAINLY, ...looks.value[id], hidden: true })
  /** looks of layers as they are seen now: one layer alone, or silhouettes, hide others */
  const seenLooks = computed<Looks>(() => {
    const layers = Object.values(shot.document?.layers ?? {})
    const away = layers.filter(
      layer =>
        (onlyLayer.value && layer.id !== desk.layerId) ||
        (silhouettes.value && layer.kind !== 'drawn') ||
        (layer.left !== null && !looks.value[layer.id] && layer.id !== desk.layerId),
    )
    return away.length ? { ...looks.value, ...Object.fromEntries(away.map(({ id }) => [id, hidden(id)])) } : looks.value
  })
  /** layers whose columns are on the sheet, topmost first; passes that were left only while they are looked at */
  const columns = computed(() =>
    desk.allColumns.filter(one => one.left === null || looks.value[one.id] !== undefined || one.id === desk.layerId),
  )

  return {
    view,
    bare,
    marginFolded,
    sheetShape,
    dim,
    beside,
    closedGapPx,
    flippedTo,
    wiped,
    workingColours,
    colours,
    looks,
    setLook: (id: string, patch: Partial<LayerLook>) => (looks.value = withLook(looks.value, id, patch)),
    aids,
    onlyLayer,
    silhouettes,
    ringed,
    seenLooks,
    columns,
    /** Starts afresh on another shot. */
    reset() {
      const left = keptFor(shot.id).read()
      looks.value = left.looks
      aids.value = left.aids
      onlyLayer.value = false
      silhouettes.value = false
      ringed.value = false
      wiped.value = null
      flippedTo.value = null
      view.value = FLAT
      bare.value = false
    },
  }
})
