import {
  drawingQueue,
  exposedDrawing,
  FIRST,
  keysAround,
  neighbours,
  sourceAt,
  type Layer,
  type QueueItem,
} from '@unhurried/core/document'
import { runAt } from '@unhurried/core/time'
import { defineStore } from 'pinia'
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { FLAT, type View } from '../desk/view.ts'
import { useShot } from './shot.ts'

export const TOOLS = ['line', 'shape', 'rub-out', 'trim', 'gather'] as const
export type Tool = (typeof TOOLS)[number]

/** The light table: how many drawings show through on either side, and how. */
export interface LightTable {
  on: boolean
  before: number
  after: number
  wrap: boolean
  /** 0–1, for the nearest drawing; those behind it get weaker */
  strength: number
}

/** Frames marked on the sheet of one layer, from–to with `to` not included. */
export interface SheetSelection {
  readonly layer: string
  readonly from: number
  readonly to: number
}

const KEPT = 'desk settings'

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
  const kept = readKept()
  const tool = ref<Tool>(kept.tool)
  const swatch = ref<string>(kept.swatch)
  const widths = reactive<Record<Tool, number>>(kept.widths)
  const smoothing = ref(kept.smoothing)
  const exposure = ref(kept.exposure)
  const lightTable = reactive<LightTable>(kept.lightTable)
  /** drawings put on the light table by the queue: the two parents; undefined while the counts decide */
  const parents = shallowRef<{ left: string; right: string } | null>(null)

  watch(
    [tool, swatch, widths, smoothing, exposure, lightTable],
    () => {
      const now = {
        tool: tool.value,
        swatch: swatch.value,
        widths,
        smoothing: smoothing.value,
        exposure: exposure.value,
        lightTable,
      }
      localStorage.setItem(KEPT, JSON.stringify(now))
    },
    { deep: true },
  )

  const layer = computed<Layer | null>(() => shot.document?.layers[layerId.value] ?? null)
  const drawing = computed(() =>
    shot.document && shot.take ? exposedDrawing(shot.document, shot.take, layerId.value, frame.value) : null,
  )
  const run = computed(() => (shot.take ? runAt(shot.take.columns[layerId.value] ?? [], frame.value) : null))
  const keys = computed(() =>
    shot.document && shot.take ? keysAround(shot.document, shot.take, layerId.value, frame.value) : null,
  )
  const queue = computed<QueueItem[]>(() => (shot.document && shot.take ? drawingQueue(shot.document, shot.take) : []))
  const source = computed(() =>
    shot.document && shot.take ? sourceAt(shot.document, shot.take, layerId.value, frame.value) : null,
  )
  /** Frames that a drawing begun here is shown: the exposure last used; a background is shown to the end. */
  const holdHere = computed(() => {
    const left = (shot.take?.length ?? 1) - frame.value
    return layer.value?.kind === 'background' && run.value?.drawing === null ? left : exposure.value
  })
  const loop = computed(() => shot.take?.loop ?? { from: 0, to: shot.take?.length ?? 1 })

  /** Drawings that show through, nearest first. */
  const ghosts = computed(() => {
    const { document, take } = shot
    if (!document || !take || !lightTable.on) return { past: [], future: [] }
    if (parents.value) return { past: [parents.value.left], future: [parents.value.right] }
    const round = lightTable.wrap ? loop.value : null
    const past = neighbours(document, take, layerId.value, frame.value, -1, lightTable.before, round)
    const future = neighbours(document, take, layerId.value, frame.value, 1, lightTable.after, round)
    return { past, future: future.filter(id => !past.includes(id)) }
  })

  function goTo(next: number): void {
    const last = (shot.take?.length ?? 1) - 1
    frame.value = Math.max(0, Math.min(last, Math.round(next)))
    parents.value = null
  }

  watch(drawing, (now, before) => {
    if (now?.id !== before?.id) gathered.value = new Set()
  })
  watch(
    () => shot.take?.length,
    length => {
      if (length !== undefined && frame.value >= length) frame.value = length - 1
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
    flippedTo,
    tool,
    swatch,
    widths,
    smoothing,
    exposure,
    holdHere,
    lightTable,
    parents,
    drawing,
    run,
    keys,
    queue,
    source,
    loop,
    ghosts,
    goTo,
    /** Starts afresh on another shot. */
    reset(startFrame: number) {
      layerId.value = Object.values(shot.document?.layers ?? {}).find(l => l.kind === 'drawn')?.id ?? FIRST.drawn
      selection.value = null
      gathered.value = new Set()
      flippedTo.value = null
      view.value = FLAT
      bare.value = false
      if (!shot.document?.swatches[swatch.value]) swatch.value = 'graphite'
      goTo(startFrame)
    },
  }
})

interface Kept {
  tool: Tool
  swatch: string
  widths: Record<Tool, number>
  smoothing: number
  exposure: number
  lightTable: LightTable
}

const FRESH: Kept = {
  tool: 'line',
  swatch: 'graphite',
  widths: { line: 5, shape: 4, 'rub-out': 14, trim: 14, gather: 1 },
  smoothing: 0.35,
  exposure: 2,
  lightTable: { on: true, before: 2, after: 2, wrap: false, strength: 0.55 },
}

/** Settings of the last evening; anything unreadable gives the fresh ones. */
function readKept(): Kept {
  try {
    const stored = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Partial<Kept>
    const tool = TOOLS.find(t => t === stored.tool) ?? FRESH.tool
    return {
      ...FRESH,
      ...stored,
      tool,
      widths: { ...FRESH.widths, ...stored.widths },
      lightTable: { ...FRESH.lightTable, ...stored.lightTable },
    }
  } catch {
    return structuredClone(FRESH)
  }
}
