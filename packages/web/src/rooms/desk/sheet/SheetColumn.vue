<script setup lang="ts">
import { counted } from '@unhurried/core/time'
import type { Layer } from '@unhurried/core/document'
import { computed, ref } from 'vue'
import { endAt, keyAt } from './sheetPaint.ts'
import type { ColumnInSight, SeenCycle, SeenRun } from './sheetSight.ts'
import type { SheetDrag } from './useSheetHand.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'

/** A column of the sheet to the hand: what is written on it is painted over all columns at once. */
const props = defineProps<{
  layer: Layer
  /** what is in sight of the column; asked only when the pointer is on it */
  see: () => ColumnInSight
  rowPx: number
  /** what is being dragged on this column */
  drag: SheetDrag | null
}>()
const emit = defineEmits<{
  grip: [event: PointerEvent, run: SeenRun]
  key: [event: PointerEvent, run: SeenRun]
  press: [event: PointerEvent]
}>()
const shot = useShot()
const desk = useDesk()
const mayEdit = computed(() => shot.mayDraw && !props.layer.locked)
const marked = computed(() => {
  const s = desk.selection
  if (!s?.layers.includes(props.layer.id)) return null
  return { top: `${s.from * props.rowPx}px`, height: `${(s.to - s.from) * props.rowPx}px` }
})

/** what is under the pointer: the end of a hold, by its frame, or a key; and the linked cycle beside it in words */
const end = ref<number | null>(null)
const onKey = ref(false)
/** a drag begun here marks frames, though it is on a key's number */
const marks = ref(false)
const hint = ref<string>()

function under(
  at: { clientX: number; clientY: number },
  col: EventTarget | null,
): { key: SeenRun | null; end: SeenRun | null; cycle: SeenCycle | null } {
  const box = (col as HTMLElement).getBoundingClientRect()
  const [x, y] = [at.clientX - box.left, at.clientY - box.top]
  const { runs, cycles } = props.see()
  const frame = Math.floor(y / props.rowPx)
  const cycle = (x < 12 && cycles.find(c => frame >= c.from && frame < c.to)) || null
  if (!mayEdit.value) return { key: null, end: null, cycle }
  const key = keyAt(props.layer, runs, x - box.width / 2, y, props.rowPx)
  return { key, end: key ? null : endAt(runs, y, props.rowPx), cycle }
}

function move(event: PointerEvent): void {
  if (event.buttons !== 0) return
  const here = under(event, event.currentTarget)
  end.value = here.end && here.end.start + here.end.frames
  const frame = Math.floor(
    (event.clientY - (event.currentTarget as HTMLElement).getBoundingClientRect().top) / props.rowPx,
  )
  const onMark = marked.value !== null && frame >= (desk.selection?.from ?? 0) && frame < (desk.selection?.to ?? 0)
  onKey.value = here.key !== null && !onMark && !event.shiftKey && !event.altKey && !event.ctrlKey
  marks.value = here.key !== null && !onKey.value
  hint.value = here.cycle ? cycleWords(here.cycle) : undefined
}

function leave(): void {
  marks.value = false
  end.value = null
  onKey.value = false
}

/** A key is taken hold of at its number, a hold at its end; everything else is the sheet's. */
function down(event: PointerEvent): void {
  const here = under(event, event.currentTarget)
  if (here.key) emit('key', event, here.key)
  else if (here.end) emit('grip', event, here.end)
  else emit('press', event)
}

/** A finger pans the sheet, but not when it takes hold of something. */
function touch(event: TouchEvent): void {
  const finger = event.touches[0]
  if (event.touches.length !== 1 || !finger) return
  const here = under(finger, event.currentTarget)
  if (here.key || here.end) event.preventDefault()
}

const cycleWords = ({ from, to, period }: SeenCycle) => {
  const frames = to - from
  const over = frames % period
  return `Linked cycle: ${counted(period, 'frame')}, ${counted(Math.floor(frames / period), 'time')}${over ? ` and ${counted(over, 'frame')} over` : ''}`
}
</script>

<template>
  <div
    class="col"
    :data-layer="layer.id"
    :class="{
      quiet: layer.kind !== 'drawn',
      tied: layer.follows,
      locked: layer.locked,
      gripping: end !== null,
      movable: onKey,
      marks,
    }"
    :title="hint"
    @pointerdown="down"
    @pointermove="move"
    @pointerleave="leave"
    @touchstart="touch"
  >
    <div v-if="marked" class="marked" :style="marked" />
    <div v-if="end !== null && !drag" class="end" :style="{ top: `${end * rowPx - 1}px` }" />
    <div v-if="drag?.kind === 'key' && drag.to !== drag.start" class="to" :style="{ top: `${drag.to * rowPx}px` }">
      {{ drag.to > drag.start ? '+' : '−' }}{{ Math.abs(drag.to - drag.start) }}
    </div>
  </div>
</template>

<style scoped>
.col {
  position: relative;
  contain: layout style;
  flex: 1 0 34px;
  border-left: 1px solid var(--rule-faint);
  cursor: default;
  touch-action: pan-y;
}

.col.tied {
  flex-basis: 28px;
}

.as-room .col {
  flex-basis: 84px;
  max-width: 150px;
}

.col.locked {
  background: repeating-linear-gradient(135deg, transparent 0 7px, rgb(90 74 48 / 4%) 7px 8px);
}

.marked {
  position: absolute;
  left: 1px;
  right: 1px;
  background: var(--mark);
  border: 1px solid var(--green);
  border-radius: 3px;
}

.col.movable {
  cursor: grab;
}

.col.gripping {
  cursor: ns-resize;
}

.end {
  position: absolute;
  left: 20%;
  right: 20%;
  height: 2px;
  background: var(--green);
  pointer-events: none;
}

.to {
  position: absolute;
  left: 2px;
  right: 2px;
  border-top: 2px solid var(--green);
  font-size: 11px;
  font-weight: 700;
  text-align: right;
  color: var(--green);
  pointer-events: none;
}
</style>
