<script setup lang="ts">
import { grown, inverse, map, type Box, type Matrix, type Point } from '@unhurried/core/geometry'
import { boxRound } from '@unhurried/core/sheets'
import { useDevicePixelRatio, useElementSize, useIntervalFn, usePreferredReducedMotion } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { arrowOf } from '../../../keys/arrows.ts'
import { fitCanvas } from '../../../paint/stage.ts'
import SheetBox from './SheetBox.vue'
import SheetBoxes from './SheetBoxes.vue'
import { paintLaid, paintOnPaper, paintSheet } from './sheetPaint.ts'
import type { LaidPart, Sheet, Sheets } from './useSheets.ts'

/**
 * The sheet as it is at a step: its ink (held: the photograph), the boxes of its drawings, a drawing at half strength over its neighbour, or all of them one after the
 * other on the paper.
 */
const props = defineProps<{
  sheets: Sheets
  sheet: Sheet | null
  drawing: LaidPart | null
  step: 'light' | 'drawings' | 'lay' | 'sheet'
}>()
const emit = defineEmits<{ key: [key: string] }>()
const room = ref<HTMLElement | null>(null)
const canvas = ref<HTMLCanvasElement | null>(null)
const { width, height } = useElementSize(room)
const { pixelRatio } = useDevicePixelRatio()
const isHeld = ref(false)
const shownAt = ref(0)
const motion = usePreferredReducedMotion()
useIntervalFn(() => props.step === 'sheet' && motion.value !== 'reduce' && shownAt.value++, 200)
const all = computed(() => props.sheets.drawings.value)

/** What is seen as a whole, in the pixels of the step: a photograph, drawings as they are laid, or the paper. */
const extent = computed<Box | null>(() => {
  if (props.step === 'sheet') {
    const { width: right, height: bottom } = props.sheets.paper.value
    return { left: 0, top: 0, right, bottom }
  }
  if (props.step === 'lay') {
    if (all.value.length === 0) return null
    const box = boxRound(all.value)
    return grown(box, 0.12 * Math.max(box.right - box.left, box.bottom - box.top))
  }
  const taken = props.sheet?.taken
  return taken ? { left: 0, top: 0, right: taken.widthPx, bottom: taken.heightPx } : null
})
const view = computed<Matrix>(() => {
  const { left, top, right, bottom } = extent.value ?? { left: 0, top: 0, right: 1, bottom: 1 }
  const [w, h] = [right - left, bottom - top]
  const scale = Math.max(0.01, Math.min(width.value / w, height.value / h))
  return [scale, 0, 0, scale, (width.value - scale * (left + right)) / 2, (height.value - scale * (top + bottom)) / 2]
})

function paint(): void {
  const to = canvas.value
  const brush = to?.getContext('2d')
  if (!to || !brush || width.value === 0) return
  fitCanvas(to, { width: width.value, height: height.value }, pixelRatio.value)
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.clearRect(0, 0, to.width, to.height)
  const easel = { brush, density: pixelRatio.value }
  const { sheets, sheet, drawing, step } = props
  if (step === 'sheet') {
    const part = all.value[shownAt.value % Math.max(1, all.value.length)]
    const toPaper = sheets.toPaper.value
    if (part && toPaper) paintOnPaper(easel, part, toPaper, sheets.paper.value, view.value, sheets.colour.value)
  } else if (step === 'lay') {
    const at = all.value.findIndex(one => one.key === drawing?.key)
    const neighbour = all.value[at > 0 ? at - 1 : at + 1] ?? null
    paintLaid(easel, drawing, neighbour, view.value)
  } else if (sheet) paintSheet(easel, sheet, view.value, isHeld.value)
}
onMounted(paint)
watch(
  () => [props.sheet, props.drawing, props.step, all.value, isHeld.value, shownAt.value, view.value, pixelRatio.value],
  () => requestAnimationFrame(paint),
)

/** Where the hand began to drag a box, and where it is; and where it took hold of a drawing that is laid. */
const pulled = shallowRef<{ readonly from: Point; readonly to: Point } | null>(null)
let hold: { readonly at: Point; readonly x: number; readonly y: number } | null = null
const between = ({ from: a, to: b }: { readonly from: Point; readonly to: Point }): Box => ({
  left: Math.round(Math.min(a.x, b.x)),
  top: Math.round(Math.min(a.y, b.y)),
  right: Math.round(Math.max(a.x, b.x)),
  bottom: Math.round(Math.max(a.y, b.y)),
})
function placeOf(event: PointerEvent): Point | null {
  const frame = room.value?.getBoundingClientRect()
  const back = inverse(view.value)
  return frame && back ? map(back, { x: event.clientX - frame.left, y: event.clientY - frame.top }) : null
}
/** The first drawing is seen, and what stays of it is asked for. */
const asksRegion = computed(
  () => props.step === 'lay' && props.sheets.region.value !== null && props.drawing?.key === all.value[0]?.key,
)
function down(event: PointerEvent): void {
  const at = placeOf(event)
  if (!at) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  if (props.step === 'drawings' || asksRegion.value) pulled.value = { from: at, to: at }
  else if (props.step === 'lay' && props.drawing) hold = { at, x: props.drawing.nudge.x, y: props.drawing.nudge.y }
  else isHeld.value = true
}
function move(event: PointerEvent): void {
  const at = placeOf(event)
  if (!at) return
  if (pulled.value) pulled.value = { ...pulled.value, to: at }
  else if (hold && props.drawing) {
    props.sheets.nudge(props.drawing.key, { x: hold.x + at.x - hold.at.x, y: hold.y + at.y - hold.at.y })
  }
}
const LEAST_BOX = 12
function up(): void {
  isHeld.value = false
  hold = null
  const { sheet } = props
  const box = pulled.value && between(pulled.value)
  pulled.value = null
  if (box && asksRegion.value && Math.min(box.right - box.left, box.bottom - box.top) >= LEAST_BOX) {
    return props.sheets.setRegion(box)
  }
  if (!box || props.step !== 'drawings' || !sheet || Math.min(box.right - box.left, box.bottom - box.top) < LEAST_BOX)
    return
  props.sheets.setBoxes(sheet, [...sheet.boxes, box])
}
/** A hand that is lost leaves nothing half done. */
function lost(): void {
  pulled.value = null
  up()
}
function key(event: KeyboardEvent): void {
  const by = arrowOf(event)
  if (!by || props.step !== 'lay' || !props.drawing) return
  event.preventDefault()
  const step = event.shiftKey ? 10 : 1
  const { x, y } = props.drawing.nudge
  props.sheets.nudge(props.drawing.key, { x: x + step * by.x, y: y + step * by.y })
}
const seenRegion = computed(() =>
  asksRegion.value && pulled.value ? between(pulled.value) : props.sheets.region.value,
)
const SAYS = {
  light: 'The ink of the sheet; hold to see it as it was photographed',
  drawings: 'The sheet with its drawings; drag a box round one',
  lay: 'The drawing over its neighbour; drag it, or move it with the arrow keys',
  sheet: 'The drawings one after the other on the paper',
} as const
</script>

<template>
  <div
    ref="room"
    class="seen"
    tabindex="0"
    role="application"
    :aria-label="SAYS[step]"
    :class="[step, { asking: asksRegion }]"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="lost"
    @keydown="key"
  >
    <canvas ref="canvas" aria-hidden="true" />
    <p v-if="!sheet" class="empty">
      Photograph your sheets: the light is evened out, the paper made white, each drawing found, laid on the one before
      and inked on transparency. Drop photographs on the paper, add them at the left, or take them one by one by camera.
    </p>
    <SheetBox v-else-if="step === 'lay' && seenRegion" :box="seenRegion" :view="view" />
    <SheetBoxes
      v-else-if="step === 'drawings'"
      :sheets="sheets"
      :sheet="sheet"
      :view="view"
      :dragged="pulled && between(pulled)"
      @key="emit('key', $event)"
    />
  </div>
</template>

<style scoped>
.seen {
  position: relative;
  overflow: hidden;
  background: var(--desk);
  border: 1px solid var(--rule);
  touch-action: none;
  user-select: none;
}

.seen.drawings {
  cursor: crosshair;
}

.seen.lay {
  cursor: move;
}

.seen.asking {
  cursor: crosshair;
}

canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}

.empty {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  padding: 15%;
  text-align: center;
  line-height: 1.6;
  color: var(--soft);
}
</style>
