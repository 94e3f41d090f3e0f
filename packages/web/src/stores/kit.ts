import { alikeIn, type Drawing, type Label } from '@unhurried/core/document'
import type { Wish } from '@unhurried/core/chart'
import type { Point, PressureCurve } from '@unhurried/core/geometry'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Pen, PenSettings } from '../strokes/pens.ts'
import { useDesk } from './desk.ts'
import { keepSettings, readSettings } from './settings.ts'
import { useShot } from './shot.ts'

/** What is in the hand: the tool, its pen and colour, and the strokes that are gathered with it. */
export const useKit = defineStore('kit', () => {
  const shot = useShot()
  const desk = useDesk()
  const kept = readSettings()
  /** the name of the tool in the hand, and what every tool is set to, by its name; tools know what that means */
  const tool = ref(kept.tool)
  const toolSettings = shallowRef<Readonly<Record<string, unknown>>>(kept.toolSettings)
  const swatch = ref<string>(kept.swatch)
  const pen = ref<Pen>(kept.pen)
  /** plain values: nibs become part of strokes */
  const pens = shallowRef<Readonly<Record<Pen, PenSettings>>>(kept.pens)
  const pressure = ref<PressureCurve>(kept.pressure)
  /** what strokes drawn now are labelled as */
  const label = ref<Label | null>(null)
  /** the mark being placed; placed now, it is planted */
  const markId = ref<string | null>(null)
  const plants = ref(false)
  const chartInHand = shallowRef<{ wish: Wish; count: number } | null>(null)

  /** the gathered picture is being cut by its sides */
  const cutting = ref(false)
  const gathered = shallowRef<ReadonlySet<string>>(new Set())
  /** changes of strokes go through all drawings marked on the sheet */
  const through = ref(false)
  /** where gathered strokes turn and are mirrored about; null is their middle */
  const pivot = shallowRef<Point | null>(null)
  /** how far what is gathered was nudged, in paper pixels */
  const nudged = shallowRef<Point>({ x: 0, y: 0 })

  watch([tool, toolSettings, swatch, pen, pens, pressure], () =>
    keepSettings({
      tool: tool.value,
      toolSettings: toolSettings.value,
      swatch: swatch.value,
      pen: pen.value,
      pens: pens.value,
      pressure: pressure.value,
    }),
  )
  /** Changes settings of the pen in the hand. */
  function setPen(patch: Partial<PenSettings>): void {
    pens.value = { ...pens.value, [pen.value]: { ...pens.value[pen.value], ...patch } }
  }

  /** the drawings that a change of strokes touches: the present one, or all that are marked */
  const changed = computed<Drawing[]>(() => {
    const here = desk.drawing ? [desk.drawing] : []
    return through.value ? [...here, ...desk.markedDrawings.filter(d => d.id !== desk.drawing?.id)] : here
  })
  const changedWords = computed(() =>
    changed.value.length === 1 ? `on ${changed.value[0]?.number}` : `on ${changed.value.length} drawings`,
  )
  function gather(ids: Iterable<string>): void {
    gathered.value = new Set(ids)
    nudged.value = { x: 0, y: 0 }
  }

  watch(
    () => desk.drawing,
    (now, before) => {
      if (now?.id === before?.id) return
      // From drawing to drawing what is the same stays gathered, about the pivot where it was laid.
      const { document } = shot
      const goes = document && now && before && now.layer === before.layer && gathered.value.size > 0
      const same =
        goes && document.drawings[before.id] ? alikeIn(document, before.id, [...gathered.value]).get(now.id) : null
      gather(same ?? [])
      if (!goes) pivot.value = null
    },
  )
  watch(
    () => shot.history.redo.length,
    undone => {
      if (undone > 0) nudged.value = { x: 0, y: 0 }
    },
  )

  return {
    tool,
    toolSettings,
    swatch,
    pen,
    pens,
    setPen,
    pressure,
    label,
    markId,
    plants,
    chartInHand,
    gathered,
    cutting,
    gather,
    through,
    changed,
    changedWords,
    pivot,
    nudged,
    /** Starts afresh on another shot. */
    reset() {
      gather([])
      through.value = false
      markId.value = null
      if (!shot.document?.swatches[swatch.value]) swatch.value = 'graphite'
    },
  }
})
