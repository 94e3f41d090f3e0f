<script setup lang="ts">
import { isBlank, type Layer } from '@unhurried/core/document'
import { computed, ref } from 'vue'
import type { SeenCycle, SeenRun } from '../desk/sheetSight.ts'
import type { SheetDrag } from '../desk/useSheetHand.ts'
import { useDesk } from '../stores/desk.ts'
import { useShot } from '../stores/shot.ts'

const props = defineProps<{
  layer: Layer
  runs: readonly SeenRun[]
  cycles: readonly SeenCycle[]
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
const framesOf = (run: SeenRun) =>
  props.drag?.kind === 'hold' && props.drag.start === run.start ? props.drag.frames : run.frames

/*
 * A run is one element with its number as text; only keys and breakdowns get an element for their ring or line. Hundreds
 * of runs are made anew at every turn of the wheel, and every box less is time.
 */
const roleOf = (run: SeenRun) => (props.layer.kind === 'background' ? 'inbetween' : (run.sheet?.role ?? 'inbetween'))
function runClass(run: SeenRun): string {
  return [
    'run',
    run.repeated && 'repeated',
    run.shared && 'shared',
    run.sheet && isBlank(run.sheet) && 'blank',
    framesOf(run) > 1 && 'long',
  ]
    .filter(Boolean)
    .join(' ')
}

/** How near to the end of a hold, in pixels, the pointer takes hold of it. */
const GRIP_PX = 5
const gripped = ref<number | null>(null)

function endUnder(event: PointerEvent): SeenRun | null {
  if (!mayEdit.value) return null
  const y = event.clientY - (event.currentTarget as HTMLElement).getBoundingClientRect().top
  return props.runs.find(run => Math.abs((run.start + run.frames) * props.rowPx - y) < GRIP_PX) ?? null
}

function move(event: PointerEvent): void {
  if (event.buttons === 0) gripped.value = endUnder(event)?.start ?? null
}

/** A key is taken hold of at its number, a hold at its end; everything else is the sheet's. */
function down(event: PointerEvent): void {
  const target = event.target as HTMLElement
  const key = target.classList.contains('movable') && props.runs.find(run => run.start === Number(target.dataset.start))
  const end = key ? null : endUnder(event)
  if (key) emit('key', event, key)
  else if (end) emit('grip', event, end)
  else emit('press', event)
}

const endOf = (start: number) => {
  const run = props.runs.find(r => r.start === start)
  return run ? run.start + run.frames : -1
}

const cycleWords = ({ from, to, period }: SeenCycle) => {
  const frames = to - from
  const over = frames % period
  return `Linked cycle: ${period} frames, ${Math.floor(frames / period)} times${over ? ` and ${over} frames over` : ''}`
}
</script>

<template>
  <div
    class="col"
    :data-layer="layer.id"
    :class="{
      quiet: layer.kind !== 'drawn',
      on: layer.id === desk.layerId,
      locked: layer.locked,
      gripping: gripped !== null,
      unseen: desk.looks[layer.id] === 'hidden',
    }"
    @pointerdown="down"
    @pointermove="move"
    @pointerleave="gripped = null"
  >
    <div v-if="marked" class="marked" :style="marked" />
    <div
      v-for="cycle in cycles"
      :key="cycle.id"
      class="cycle"
      :style="{ top: `${cycle.from * rowPx + 2}px`, height: `${(cycle.to - cycle.from) * rowPx - 4}px` }"
      :title="cycleWords(cycle)"
    >
      <i v-for="turn in cycle.turns" :key="turn" :style="{ top: `${(turn - cycle.from) * rowPx - 2}px` }" />
    </div>
    <div
      v-for="run in runs"
      :key="run.start"
      :class="runClass(run)"
      :style="`top:${run.start * rowPx}px;height:${framesOf(run) * rowPx}px`"
    >
      <template v-if="roleOf(run) === 'inbetween'">{{ run.sheet?.number }}</template>
      <span
        v-else
        class="sheet-number"
        :class="[roleOf(run), { movable: mayEdit && roleOf(run) === 'key' }]"
        :data-start="run.start"
        >{{ run.sheet?.number }}</span
      >
    </div>
    <div v-if="gripped !== null && !drag" class="end" :style="{ top: `${endOf(gripped) * rowPx - 1}px` }" />
    <div v-if="drag?.kind === 'key' && drag.to !== drag.start" class="to" :style="{ top: `${drag.to * rowPx}px` }">
      {{ drag.to > drag.start ? '+' : '−' }}{{ Math.abs(drag.to - drag.start) }}
    </div>
  </div>
</template>

<style scoped>
.col {
  position: relative;
  contain: layout style;
  flex: 1 0 42px;
  border-left: 1px solid var(--rule-faint);
  cursor: default;
  touch-action: pan-y;
}

.as-room .col {
  flex-basis: 84px;
  max-width: 150px;
}

.col.quiet,
.col.locked {
  color: var(--soft);
}

.col.locked {
  background: repeating-linear-gradient(135deg, transparent 0 7px, rgb(90 74 48 / 4%) 7px 8px);
}

.col.unseen .run {
  opacity: 0.45;
}

.marked {
  position: absolute;
  left: 1px;
  right: 1px;
  background: rgb(60 106 85 / 14%);
  border: 1px solid var(--green);
  border-radius: 3px;
}

.cycle {
  position: absolute;
  left: 3px;
  width: 6px;
  border: 1.4px solid var(--past);
  border-right: 0;
  border-radius: 5px 0 0 5px;
}

.cycle i {
  position: absolute;
  left: -1px;
  width: 7px;
  border-top: 1.4px dotted var(--past);
}

.run {
  position: absolute;
  left: 0;
  right: 0;
  padding-top: 2px;
  text-align: center;
  font-size: 12.5px;
  pointer-events: none;
  contain: layout style;
}

/* The line of a hold, from under the number to its end. */
.long::before {
  content: '';
  position: absolute;
  top: 21px;
  bottom: 3px;
  left: 50%;
  width: 1px;
  background: #928d83;
}

.run.repeated {
  color: #756c5d;
}

.run.repeated::before {
  background: var(--rule);
}

.run .movable {
  pointer-events: auto;
  cursor: grab;
  touch-action: none;
}

.run.blank {
  color: var(--soft);
}

.run.shared::after {
  content: '=';
  position: absolute;
  margin-left: 5px;
  color: var(--green);
}

.gripping,
.gripping .movable {
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
