import {
  alikeIn,
  columnOf,
  cycleAt,
  drawingQueue,
  exposedDrawing,
  exposureAt,
  exposureCount,
  exposures,
  FIRST,
  get,
  isAnimated,
  keysAround,
  layersInOrder,
  sourceAt,
  timedBy,
  type Drawing,
  type Label,
  type Layer,
  type QueueItem,
  type Role,
  type ShotDocument,
} from '@unhurried/core/document'
import type { Wish } from '@unhurried/core/chart'
import type { Matrix, Point, PressureCurve } from '@unhurried/core/geometry'
import { drawingsOf, slice, type Following } from '@unhurried/core/time'
import { defineStore } from 'pinia'
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { coloursOf } from '../paint/colours.ts'
import type { Pen, PenSettings } from '../strokes/pens.ts'
import { FLAT, type View } from '../paint/view.ts'
import { makeGhosts, type Parents } from './ghosts.ts'
import { makeLooking } from './looking.ts'
import { keepSettings, readSettings, type LightTable, type SheetShape } from './settings.ts'
import { useShot } from './shot.ts'

/** Frames marked on the sheet over some layers, from–to with `to` not included. */
export interface SheetSelection {
  readonly layers: readonly string[]
  readonly from: number
  readonly to: number
}

const firstLayer = (layers: ShotDocument['layers']) => Object.values(layers).find(isAnimated)?.id ?? FIRST.drawn

/** Where one stands, what is in the hand, and what shows through. None of it belongs to the document. */
export const useDesk = defineStore('desk', () => {
  const shot = useShot()
  const frame = ref(0)
  const layerId = ref<string>(FIRST.drawn)
  const view = shallowRef<View>(FLAT)
  const bare = ref(false)
  const marginFolded = ref(false)
  const selection = shallowRef<SheetSelection | null>(null)
  const gathered = shallowRef<ReadonlySet<string>>(new Set())
  /** the drawing shown instead of the present one while a key is held */
  const flippedTo = ref<string | null>(null)
  const kept = readSettings()
  /** the name of the tool in the hand, and what every tool is set to, by its name; tools know what that means */
  const tool = ref(kept.tool)
  const toolSettings = shallowRef<Readonly<Record<string, unknown>>>(kept.toolSettings)
  const swatch = ref<string>(kept.swatch)
  /** changes of strokes go through all drawings marked on the sheet */
  const through = ref(false)
  /** where gathered strokes turn and are mirrored about; null is their middle */
  const pivot = shallowRef<Point | null>(null)
  /** how far what is gathered was nudged, in paper pixels */
  const nudged = shallowRef<Point>({ x: 0, y: 0 })
  const pen = ref<Pen>(kept.pen)
  /** plain values: nibs become part of strokes */
  const pens = shallowRef<Readonly<Record<Pen, PenSettings>>>(kept.pens)
  const pressure = ref<PressureCurve>(kept.pressure)
  /** what strokes drawn now are labelled as, and whether labels are shown in working colours */
  const label = ref<Label | null>(null)
  const workingColours = ref(true)
  /** frames that drawings begun from now on get: the shot says so */
  const exposure = computed(() => shot.document?.exposure ?? 2)
  const lightTable = reactive<LightTable>(kept.lightTable)
  const following = ref<Following>(kept.following)
  const sheetShape = ref<SheetShape>(kept.sheetShape)
  const dim = ref(kept.dim)
  const beside = shallowRef(kept.beside)
  const parents = shallowRef<Parents | null>(null)
  const { readAgain, ...looking } = makeLooking(shot, layerId)
  const { deferred, lit } = looking
  /** drawings that show through wherever one stands */
  const pinned = shallowRef<readonly string[]>([])
  /** the drawing seen on one side of a line over the paper, `x` in screen pixels */
  const wiped = shallowRef<{ drawing: string; x: number } | null>(null)
  /** drawings passed over until one comes back to the shot */
  const skipped = shallowRef<ReadonlySet<string>>(new Set())
  const queueOfLayer = ref(false)
  /** the mark being placed, and the part whose chart the rail shows */
  const markId = ref<string | null>(null)
  /** outlines open by no more than so many pixels count as closed, when areas are measured */
  const closedGapPx = ref(kept.closedGapPx)
  /** marks placed now are planted */
  const plants = ref(false)
  const part = ref<string | null>(null)
  const chartInHand = shallowRef<{ wish: Wish; count: number } | null>(null)
  /** shown-through drawings laid elsewhere to trace them; the drawings themselves stay as they are */
  const shifts = shallowRef<ReadonlyMap<string, Matrix>>(new Map())

  watch(
    [tool, toolSettings, swatch, pen, pens, pressure, lightTable, following, sheetShape, closedGapPx, dim, beside],
    () =>
      keepSettings({
        tool: tool.value,
        toolSettings: toolSettings.value,
        swatch: swatch.value,
        pen: pen.value,
        pens: pens.value,
        pressure: pressure.value,
        lightTable,
        following: following.value,
        sheetShape: sheetShape.value,
        closedGapPx: closedGapPx.value,
        dim: dim.value,
        beside: beside.value,
      }),
    { deep: true },
  )
  const colours = computed(() => coloursOf(shot.document?.swatches ?? {}, workingColours.value))
  /** Changes settings of the pen in the hand. */
  function setPen(patch: Partial<PenSettings>): void {
    pens.value = { ...pens.value, [pen.value]: { ...pens.value[pen.value], ...patch } }
  }

  const layer = computed<Layer | null>(() => shot.document?.layers[layerId.value] ?? null)
  const drawing = computed(() =>
    shot.document && shot.take ? exposedDrawing(shot.document, shot.take, layerId.value, frame.value) : null,
  )
  /** the layer whose timing the one in the hand shows */
  const timedLayer = computed(() => (shot.document ? timedBy(shot.document, layerId.value) : layerId.value))
  /** the line drawing that the paint of a tied layer lies under on this frame */
  const over = computed(() =>
    shot.document && shot.take && timedLayer.value !== layerId.value
      ? exposedDrawing(shot.document, shot.take, timedLayer.value, frame.value)
      : null,
  )
  const run = computed(() => (shot.take ? exposureAt(shot.take, timedLayer.value, frame.value) : null))
  const cycle = computed(() => (shot.take ? cycleAt(shot.take, timedLayer.value, frame.value) : null))
  const keys = computed(() =>
    shot.document && shot.take && timedLayer.value === layerId.value
      ? keysAround(shot.document, shot.take, layerId.value, frame.value)
      : null,
  )
  const queue = computed<QueueItem[]>(() => {
    if (!shot.document || !shot.take) return []
    return drawingQueue(shot.document, shot.take, {
      layer: queueOfLayer.value ? layerId.value : null,
      skipped: skipped.value,
      deferred: deferred.value,
    })
  })
  const source = computed(() =>
    shot.document && shot.take ? sourceAt(shot.document, shot.take, layerId.value, frame.value) : null,
  )
  /** Frames that a drawing begun here is shown: as many as the shot says; a background is shown to the end. */
  const holdHere = computed(() => {
    const left = (shot.take?.length ?? 1) - frame.value
    return layer.value?.kind === 'background' && run.value?.drawing === null ? left : exposure.value
  })
  /** What a drawing begun here is: straight ahead an inbetween, but for the first; else a key, or what the one it copies is. */
  function roleOfNew(copied: Drawing | null = null): Role {
    if (shot.document?.way !== 'straight-ahead') return copied?.role ?? 'key'
    const first = !shot.take || exposures(shot.take, layerId.value).every(shown => shown.start > frame.value)
    return first ? 'key' : 'inbetween'
  }
  const loop = computed(() => shot.take?.loop ?? { from: 0, to: shot.take?.length ?? 1 })
  /** Whether the layer one stands on may be drawn on and retimed. */
  const mayEdit = computed(() => shot.mayDraw && layer.value !== null && !layer.value.locked)

  /** layers whose columns are on the sheet, topmost first; passes that were left only while they are looked at */
  const columns = computed<Layer[]>(() =>
    shot.document
      ? layersInOrder(shot.document)
          .reverse()
          .filter(one => one.left === null || looking.looks.value[one.id] !== undefined || one.id === layerId.value)
      : [],
  )

  /** in how many places of the sheet the present drawing is shown; the turns of a linked cycle are one */
  const places = computed(() => {
    const { take } = shot
    if (!take || !drawing.value) return 0
    return cycle.value ? 1 : exposureCount(take, drawing.value)
  })
  /** other takes that show the present drawing: a change of it is a change there */
  const otherTakes = computed(() => {
    const { document, take } = shot
    const id = drawing.value?.id
    if (!document || !take || !id) return []
    return Object.values(document.takes).filter(
      other => other.id !== take.id && columnOf(other, layerId.value).some(shown => shown.drawing === id),
    )
  })
  /** drawings of the layer that are exposed on the marked frames, in order */
  const markedDrawings = computed<Drawing[]>(() => {
    const { document, take } = shot
    const marked = selection.value
    if (!document || !take || !marked?.layers.includes(layerId.value)) return []
    return drawingsOf(slice(columnOf(take, layerId.value), marked.from, marked.to)).map(id =>
      get(document.drawings, id),
    )
  })
  /** the drawings that a change of strokes touches: the present one, or all that are marked */
  const changed = computed<Drawing[]>(() => {
    const here = drawing.value ? [drawing.value] : []
    return through.value ? [...here, ...markedDrawings.value.filter(d => d.id !== drawing.value?.id)] : here
  })
  const changedWords = computed(() =>
    changed.value.length === 1 ? `on ${changed.value[0]?.number}` : `on ${changed.value.length} drawings`,
  )
  function gather(ids: Iterable<string>): void {
    gathered.value = new Set(ids)
    nudged.value = { x: 0, y: 0 }
  }

  const shownThrough = makeGhosts({ shot, lightTable, layerId, frame, loop, parents, pinned, drawing, lit })

  function pin(id: string): void {
    pinned.value = pinned.value.includes(id) ? pinned.value.filter(other => other !== id) : [...pinned.value, id]
  }

  function goTo(next: number): void {
    const last = (shot.take?.length ?? 1) - 1
    frame.value = Math.max(0, Math.min(last, Math.round(next)))
    parents.value = null
  }

  watch(drawing, (now, before) => {
    if (now?.id === before?.id) return
    // From drawing to drawing what is the same stays gathered, about the pivot where it was laid.
    const { document } = shot
    const goes = document && now && before && now.layer === before.layer && gathered.value.size > 0
    const same =
      goes && document.drawings[before.id] ? alikeIn(document, before.id, [...gathered.value]).get(now.id) : null
    gather(same ?? [])
    if (!goes) pivot.value = null
  })
  watch(
    () => shot.take?.length,
    length => {
      if (length !== undefined && frame.value >= length) frame.value = length - 1
    },
  )
  watch(
    () => shot.history.redo.length,
    undone => {
      if (undone > 0) nudged.value = { x: 0, y: 0 }
    },
  )
  watch(layerId, () => (part.value = null))
  // The layer in the hand may go: undone here, or removed by somebody else.
  watch(
    () => shot.document?.layers,
    layers => {
      if (layers && !layers[layerId.value]) layerId.value = firstLayer(layers)
    },
  )

  return {
    frame,
    layerId,
    layer,
    view,
    bare,
    marginFolded,
    selection,
    gathered,
    gather,
    through,
    markedDrawings,
    changed,
    changedWords,
    pivot,
    nudged,
    flippedTo,
    tool,
    toolSettings,
    swatch,
    pen,
    pens,
    setPen,
    pressure,
    label,
    workingColours,
    colours,
    exposure,
    following,
    sheetShape,
    holdHere,
    roleOfNew,
    mayEdit,
    lightTable,
    parents,
    ...looking,
    columns,
    places,
    otherTakes,
    timedLayer,
    over,
    plants,
    closedGapPx,
    dim,
    beside,
    skipped,
    queueOfLayer,
    markId,
    part,
    chartInHand,
    shifts,
    drawing,
    run,
    cycle,
    keys,
    queue,
    source,
    loop,
    ghosts: shownThrough.ghosts,
    wrapped: shownThrough.wrapped,
    shownThrough: shownThrough.through,
    pinned,
    pin,
    wiped,
    goTo,
    /** Starts afresh on another shot. */
    reset(startFrame: number) {
      layerId.value = firstLayer(shot.document?.layers ?? {})
      selection.value = null
      gather([])
      through.value = false
      pinned.value = []
      wiped.value = null
      flippedTo.value = null
      view.value = FLAT
      bare.value = false
      readAgain()
      skipped.value = new Set()
      markId.value = null
      part.value = null
      shifts.value = new Map()
      if (!shot.document?.swatches[swatch.value]) swatch.value = 'graphite'
      goTo(startFrame)
    },
  }
})
