<script setup lang="ts">
import { isBlank, type Layer } from '@unhurried/core/document'
import { computed } from 'vue'
import type { SeenCycle, SeenRun } from '../desk/sheetSight.ts'
import type { SheetDrag } from '../desk/useSheetHand.ts'
import { useDesk } from '../stores/desk.ts'
import { useShot } from '../stores/shot.ts'
import SheetNumber from './SheetNumber.vue'

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
const isKey = (run: SeenRun) => mayEdit.value && props.layer.kind !== 'background' && run.sheet?.role === 'key'
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
      unseen: desk.looks[layer.id] === 'hidden',
    }"
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
      class="run"
      :class="{ repeated: run.repeated }"
      :style="{ top: `${run.start * rowPx}px`, height: `${framesOf(run) * rowPx}px` }"
    >
      <SheetNumber
        v-if="run.sheet"
        :number="run.sheet.number"
        :role="layer.kind === 'background' ? 'inbetween' : run.sheet.role"
        :class="{ shared: run.shared, blank: isBlank(run.sheet), movable: isKey(run) }"
        @pointerdown="(event: PointerEvent) => isKey(run) && (event.stopPropagation(), emit('key', event, run))"
      />
      <i />
      <button
        v-if="mayEdit"
        class="hold"
        :aria-label="`Hold ${run.sheet?.number} longer or shorter by dragging`"
        tabindex="-1"
        @pointerdown.stop="emit('grip', $event, run)"
      />
    </div>
    <div v-if="drag?.kind === 'key' && drag.to !== drag.start" class="to" :style="{ top: `${drag.to * rowPx}px` }">
      {{ drag.to > drag.start ? '+' : '−' }}{{ Math.abs(drag.to - drag.start) }}
    </div>
  </div>
</template>

<style scoped>
.col {
  position: relative;
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
  display: flex;
  flex-direction: column;
  align-items: center;
  padding-top: 2px;
  pointer-events: none;
}

.run.repeated {
  color: var(--soft);
  opacity: 0.8;
}

.run .sheet-number {
  font-size: 12.5px;
  flex: none;
}

.run .movable {
  pointer-events: auto;
  cursor: grab;
  touch-action: none;
}

.run .blank {
  color: var(--soft);
  opacity: 0.75;
}

.run .shared::after {
  content: '=';
  position: absolute;
  margin-left: 5px;
  color: var(--green);
}

.run > i {
  flex: 1;
  width: 1px;
  margin: 2px 0 1px;
  background: currentColor;
  opacity: 0.45;
}

.hold {
  position: absolute;
  bottom: -3px;
  left: 20%;
  right: 20%;
  height: 9px;
  border: 0;
  background: none;
  padding: 0;
  pointer-events: auto;
  cursor: ns-resize;
  touch-action: none;
}

.hold:hover {
  background: linear-gradient(var(--green), var(--green)) center / 100% 2px no-repeat;
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
