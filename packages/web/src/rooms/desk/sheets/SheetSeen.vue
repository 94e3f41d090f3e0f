<script setup lang="ts">
import { after, grown, inverse, map, type Box, type Matrix, type Point } from '@unhurried/core/geometry'
import { boxRound } from '@unhurried/core/sheets'
import { useDevicePixelRatio, useElementSize, useIntervalFn, usePreferredReducedMotion } from '@vueuse/core'
import { X } from 'lucide-vue-next'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { fitCanvas } from '../../../paint/stage.ts'
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
const screen = computed(() => ({ width: width.value, height: height.value }))
const isHeld = ref(false)
const shownAt = ref(0)
const motion = usePreferredReducedMotion()
useIntervalFn(() => props.step === 'sheet' && motion.value !== 'reduce' && shownAt.value++, 200)
const all = computed(() => props.sheets.drawings.value)
const [PAPER, INK, NEIGHBOUR] = ['#fdfaf3', '#2f2c28', '#b0552a']

/** What is seen as a whole, in the pixels of the step: a photograph, or drawings as they are laid. */
const extent = computed<Box | null>(() => {
  if (props.step === 'lay') {
    if (all.value.length === 0) return null
    const box = boxRound(all.value)
    return grown(box, 0.12 * Math.max(box.right - box.left, box.bottom - box.top))
  }
  const taken = props.sheet?.taken
  return taken ? { left: 0, top: 0, right: taken.widthPx, bottom: taken.heightPx } : null
})
const view = computed<Matrix>(() => {
  const box = extent.value
  if (!box) return [1, 0, 0, 1, 0, 0]
  const [w, h] = [box.right - box.left, box.bottom - box.top]
  const scale = Math.max(0.01, Math.min(width.value / w, height.value / h))
  return [
    scale,
    0,
    0,
    scale,
    (width.value - scale * w) / 2 - scale * box.left,
    (height.value - scale * h) / 2 - scale * box.top,
  ]
})

function paint(): void {
  const to = canvas.value
  if (!to || width.value === 0) return
  fitCanvas(to, screen.value, pixelRatio.value)
  const brush = to.getContext('2d')
  if (!brush) return
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.clearRect(0, 0, to.width, to.height)
  if (props.step === 'sheet') paintPaper(brush)
  else if (props.step === 'lay') paintLaid(brush)
  else paintSheet(brush)
}
const onScreen = ([a, b, c, d, e, f]: Matrix): DOMMatrix2DInit => {
  const r = pixelRatio.value
  return { a: a * r, b: b * r, c: c * r, d: d * r, e: e * r, f: f * r }
}

function paintSheet(brush: CanvasRenderingContext2D): void {
  const { sheet } = props
  if (!sheet) return
  brush.setTransform(onScreen(view.value))
  brush.imageSmoothingQuality = 'high'
  if (isHeld.value || !sheet.inked) return brush.drawImage(sheet.taken.seen, 0, 0)
  brush.fillStyle = PAPER
  brush.fillRect(0, 0, sheet.taken.widthPx, sheet.taken.heightPx)
  brush.drawImage(sheet.inked.ink, 0, 0)
}

/** A drawing in one colour, through a map to the screen. */
function paintPart(
  brush: CanvasRenderingContext2D,
  part: LaidPart,
  through: Matrix,
  colour: string,
  alpha: number,
): void {
  const ink = part.sheet.inked?.ink
  if (!ink) return
  const { left, top, right, bottom } = part.box
  const [x, y] = [Math.max(0, left - 2), Math.max(0, top - 2)]
  const [w, h] = [Math.min(ink.width, right + 3) - x, Math.min(ink.height, bottom + 3) - y]
  if (w <= 0 || h <= 0) return
  const apart = new OffscreenCanvas(brush.canvas.width, brush.canvas.height)
  const own = apart.getContext('2d')
  if (!own) return
  own.setTransform(onScreen(through))
  own.imageSmoothingQuality = 'high'
  own.drawImage(ink, x, y, w, h, x, y, w, h)
  own.setTransform(1, 0, 0, 1, 0, 0)
  own.globalCompositeOperation = 'source-in'
  own.fillStyle = colour
  own.fillRect(0, 0, apart.width, apart.height)
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.globalAlpha = alpha
  brush.drawImage(apart, 0, 0)
  brush.globalAlpha = 1
}

function paintLaid(brush: CanvasRenderingContext2D): void {
  brush.fillStyle = PAPER
  brush.fillRect(0, 0, brush.canvas.width, brush.canvas.height)
  const { drawing } = props
  if (!drawing) return
  const at = all.value.findIndex(one => one.key === drawing.key)
  const neighbour = all.value[at > 0 ? at - 1 : at + 1]
  if (neighbour && !isHeld.value) paintPart(brush, neighbour, after(neighbour.matrix, view.value), NEIGHBOUR, 0.5)
  paintPart(brush, drawing, after(drawing.matrix, view.value), INK, 0.75)
}

function paintPaper(brush: CanvasRenderingContext2D): void {
  const through = props.sheets.toPaper.value
  const part = all.value[shownAt.value % Math.max(1, all.value.length)]
  if (!through || !part) return
  const { width: w, height: h } = props.sheets.paper.value
  const scale = Math.min(width.value / w, height.value / h)
  const [left, top] = [(width.value - scale * w) / 2, (height.value - scale * h) / 2]
  const paper: Matrix = [scale, 0, 0, scale, left, top]
  brush.setTransform(onScreen(paper))
  brush.fillStyle = props.sheets.paper.value.paper
  brush.fillRect(0, 0, w, h)
  paintPart(brush, part, after(after(part.matrix, through), paper), INK, 1)
}

onMounted(paint)
watch(
  () => [
    props.sheet,
    props.drawing,
    props.step,
    all.value,
    isHeld.value,
    shownAt.value,
    screen.value,
    pixelRatio.value,
  ],
  () => requestAnimationFrame(paint),
)

/** Boxes of the drawings on the screen, and one that is being dragged. */
const dragged = shallowRef<{ readonly from: Point; readonly to: Point } | null>(null)
const boxes = computed(() => {
  const { sheet } = props
  if (props.step !== 'drawings' || !sheet) return []
  return sheet.boxes.map((box, i) => ({ box, i, ...onView(box), number: numberOf(sheet, i) }))
})
function onView({ left, top, right, bottom }: Box) {
  const [a, b] = [map(view.value, { x: left, y: top }), map(view.value, { x: right + 1, y: bottom + 1 })]
  return { x: a.x, y: a.y, width: b.x - a.x, height: b.y - a.y }
}
const numberOf = (sheet: Sheet, i: number) =>
  all.value.findIndex(one => one.sheet.id === sheet.id && one.box === sheet.boxes[i]) + 1
const pulled = computed(() => dragged.value && onView(between(dragged.value.from, dragged.value.to)))
const between = (a: Point, b: Point): Box => ({
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
/** Where the hand took hold of the drawing that is laid. */
let hold: { readonly at: Point; readonly x: number; readonly y: number } | null = null
function down(event: PointerEvent): void {
  const at = placeOf(event)
  if (!at) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  if (props.step === 'drawings') dragged.value = { from: at, to: at }
  else if (props.step === 'lay' && props.drawing) hold = { at, x: props.drawing.nudge.x, y: props.drawing.nudge.y }
  else isHeld.value = true
}
function move(event: PointerEvent): void {
  const at = placeOf(event)
  if (!at) return
  if (dragged.value) dragged.value = { ...dragged.value, to: at }
  else if (hold && props.drawing) {
    props.sheets.nudge(props.drawing.key, { x: hold.x + at.x - hold.at.x, y: hold.y + at.y - hold.at.y })
  }
}
const LEAST_BOX = 12
function up(): void {
  isHeld.value = false
  hold = null
  const { sheet } = props
  const box = dragged.value && between(dragged.value.from, dragged.value.to)
  dragged.value = null
  if (!box || !sheet || Math.min(box.right - box.left, box.bottom - box.top) < LEAST_BOX) return
  props.sheets.setBoxes(sheet, [...sheet.boxes, box])
}
function leaveOut(i: number): void {
  const { sheet } = props
  if (sheet)
    props.sheets.setBoxes(
      sheet,
      sheet.boxes.filter((_, k) => k !== i),
    )
}
const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
function key(event: KeyboardEvent): void {
  const by = ARROWS[event.key]
  if (!by || props.step !== 'lay' || !props.drawing) return
  event.preventDefault()
  const step = event.shiftKey ? 10 : 1
  const { x, y } = props.drawing.nudge
  props.sheets.nudge(props.drawing.key, { x: x + step * by[0], y: y + step * by[1] })
}
const says = computed(() => {
  if (props.step === 'light') return 'The ink of the sheet; hold to see it as it was photographed'
  if (props.step === 'drawings') return 'The sheet with its drawings; drag a box round one'
  return props.step === 'lay'
    ? 'The drawing over its neighbour; drag it, or move it with the arrow keys'
    : 'The drawings one after the other on the paper'
})
</script>

<template>
  <div
    ref="room"
    class="seen"
    tabindex="0"
    role="application"
    :aria-label="says"
    :class="step"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="up"
    @keydown="key"
  >
    <canvas ref="canvas" aria-hidden="true" />
    <p v-if="!sheet" class="empty">
      Photograph your sheets: the light is evened out, the paper made white, each drawing found, laid on the one before
      and inked on transparency. Drop photographs on the paper, add them at the left, or take them one by one by camera.
    </p>
    <template v-for="one in boxes" :key="one.i">
      <div
        class="box"
        :style="{ left: `${one.x}px`, top: `${one.y}px`, width: `${one.width}px`, height: `${one.height}px` }"
      >
        <button
          class="plain number"
          :title="`Drawing ${one.number}`"
          @pointerdown.stop
          @click="emit('key', all[one.number - 1]?.key ?? '')"
        >
          {{ one.number }}
        </button>
        <button
          class="plain out"
          :aria-label="`Leave drawing ${one.number} out`"
          @pointerdown.stop
          @click="leaveOut(one.i)"
        >
          <X :size="14" />
        </button>
      </div>
    </template>
    <div
      v-if="pulled"
      class="box pulled"
      :style="{ left: `${pulled.x}px`, top: `${pulled.y}px`, width: `${pulled.width}px`, height: `${pulled.height}px` }"
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

.box {
  position: absolute;
  border: 1.5px dashed var(--green);
  pointer-events: none;
}

.box.pulled {
  border-style: solid;
}

.box button {
  position: absolute;
  top: 0;
  min-width: 26px;
  min-height: 24px;
  padding: 0 4px;
  background: var(--green-wash);
  color: var(--green-deep);
  line-height: 1;
  pointer-events: auto;
}

.number {
  left: 0;
  font-weight: 700;
}

.out {
  right: 0;
}
</style>
