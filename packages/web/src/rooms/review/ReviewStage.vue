<script setup lang="ts">
import { laidOn } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import { computed, ref } from 'vue'
import { drawnIn } from '../../paint/bitmaps.ts'
import { layDown } from '../../paint/laid.ts'
import { seenAt } from '../../shared/frames.ts'
import RemarkMarks from '../../shared/RemarkMarks.vue'
import SharpCanvas from '../../shared/SharpCanvas.vue'
import { useDesk } from '../../stores/desk.ts'
import { useReview } from '../../stores/review.ts'
import { useShelves } from '../../stores/shelves.ts'
import { useShot } from '../../stores/shot.ts'
import { useSight } from '../../stores/sight.ts'
import type { Looking } from './useLooking.ts'
import type { Remarking } from './useRemarking.ts'

/** The frame at 100 % or nearer, with what was remarked on it; dragged about, or drawn over while a remark is made. */
const props = defineProps<{ looking: Looking; remarking: Remarking; width: number; height: number }>()
const shot = useShot()
const desk = useDesk()
const sight = useSight()
const review = useReview()
const bitmaps = useShelves().remote

/** Where the picture begins, in pixels of the screen. */
const origin = computed(() => {
  const { centre, zoom } = props.looking
  return {
    x: Math.round(props.width / 2 - centre.value.x * zoom.value),
    y: Math.round(props.height / 2 - centre.value.y * zoom.value),
  }
})
const place = ({ x, y }: Point): Point => ({
  x: origin.value.x + x * props.looking.zoom.value,
  y: origin.value.y + y * props.looking.zoom.value,
})
function paint(brush: CanvasRenderingContext2D): void {
  const { document, take } = shot
  if (!document || !take) return
  void bitmaps.painted.value
  const scale = props.looking.zoom.value
  const density = props.looking.scale.value / scale
  const { width, height, paper } = document.format
  brush.save()
  brush.translate(origin.value.x, origin.value.y)
  brush.fillStyle = paper
  brush.fillRect(0, 0, width * scale, height * scale)
  brush.restore()
  brush.save()
  brush.beginPath()
  brush.rect(origin.value.x, origin.value.y, width * scale, height * scale)
  brush.clip()
  const base = [scale * density, 0, 0, scale * density, origin.value.x * density, origin.value.y * density] as const
  for (const { drawing } of seenAt(document, take, desk.frame, props.looking.seeing.value)) {
    const maps = laidOn(document, take, drawing.layer, desk.frame, () => bitmaps.boxOf(drawing))
    const look = drawnIn(sight.colours)
    if (!bitmaps.isReady(drawing, look, scale * density)) continue
    layDown(brush, base, maps, () => bitmaps.draw(brush, drawing, look, scale * density))
  }
  brush.restore()
}

const marks = computed(() => review.here.map(one => one.remark))
const all = computed(() => review.remarks.map(one => one.remark))
const draft = computed(() => {
  const { at, sketch } = props.remarking
  return {
    pin: at.value && place(at.value),
    lines: sketch.value.map(line =>
      line
        .map(place)
        .map(({ x, y }) => `${x},${y}`)
        .join(' '),
    ),
  }
})

const stage = ref<HTMLElement | null>(null)
const onPicture = (event: PointerEvent): Point => {
  const { left, top } = stage.value?.getBoundingClientRect() ?? { left: 0, top: 0 }
  const { zoom } = props.looking
  return {
    x: (event.clientX - left - origin.value.x) / zoom.value,
    y: (event.clientY - top - origin.value.y) / zoom.value,
  }
}
let dragged: { x: number; y: number } | null = null
function down(event: PointerEvent): void {
  if (event.button !== 0) return
  stage.value?.setPointerCapture(event.pointerId)
  if (props.remarking.isOn.value) props.remarking.begin(onPicture(event))
  else dragged = { x: event.clientX, y: event.clientY }
}
function move(event: PointerEvent): void {
  if (props.remarking.isOn.value) {
    for (const one of event.getCoalescedEvents?.() ?? [event]) props.remarking.go(onPicture(one))
    return
  }
  if (!dragged) return
  props.looking.move(dragged.x - event.clientX, dragged.y - event.clientY)
  dragged = { x: event.clientX, y: event.clientY }
}
function up(): void {
  dragged = null
  props.remarking.end()
}
function wheel(event: WheelEvent): void {
  if (event.ctrlKey) return event.deltaY < 0 ? props.looking.nearer() : props.looking.farther()
  props.looking.move(event.deltaX, event.deltaY)
}
</script>

<template>
  <div
    ref="stage"
    class="stage"
    :class="{ remarking: remarking.isOn.value }"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="up"
    @wheel.prevent="wheel"
  >
    <SharpCanvas :width="width" :height="height" :paint="paint" />
    <svg class="over" aria-hidden="true">
      <RemarkMarks :remarks="marks" :all="all" :place="place" />
      <g class="draft">
        <polyline v-for="(line, i) in draft.lines" :key="i" :points="line" />
        <path
          v-if="draft.pin"
          :d="`M${draft.pin.x - 9} ${draft.pin.y}h18M${draft.pin.x} ${draft.pin.y - 9}v18`"
          class="pin"
        />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.stage {
  position: absolute;
  inset: 0;
  overflow: hidden;
  cursor: grab;
  touch-action: none;
}

.stage:active {
  cursor: grabbing;
}

.stage.remarking {
  cursor: crosshair;
}

.over {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

.draft {
  fill: none;
  stroke: var(--rust);
  stroke-width: 2.5;
  stroke-linecap: round;
  stroke-linejoin: round;
}
</style>
