<script setup lang="ts">
import { isBlank, type Drawing, type Layer } from '@unhurried/core/document'
import type { PlacedRun } from '@unhurried/core/time'
import { useDesk } from '../stores/desk.ts'
import { useShot } from '../stores/shot.ts'
import SheetNumber from './SheetNumber.vue'

/** An exposure in sight: its run, its drawing, and whether that is shown elsewhere too. */
export interface SeenRun extends PlacedRun {
  readonly sheet: Drawing | null
  readonly shared: boolean
}

defineProps<{
  layer: Layer
  runs: readonly SeenRun[]
  rowPx: number
  /** a hold being dragged: the run it starts with and how long it is now */
  dragged: { start: number; frames: number } | null
}>()
const emit = defineEmits<{ grip: [event: PointerEvent, run: SeenRun] }>()
const shot = useShot()
const desk = useDesk()
</script>

<template>
  <div class="col" :class="{ background: layer.kind === 'background', on: layer.id === desk.layerId }">
    <div
      v-if="desk.selection?.layer === layer.id"
      class="marked"
      :style="{
        top: `${desk.selection.from * rowPx}px`,
        height: `${(desk.selection.to - desk.selection.from) * rowPx}px`,
      }"
    />
    <div
      v-for="run in runs"
      :key="run.start"
      class="run"
      :style="{
        top: `${run.start * rowPx}px`,
        height: `${(dragged?.start === run.start ? dragged.frames : run.frames) * rowPx}px`,
      }"
    >
      <SheetNumber
        v-if="run.sheet"
        :number="run.sheet.number"
        :role="layer.kind === 'background' ? 'inbetween' : run.sheet.role"
        :class="{ shared: run.shared, blank: isBlank(run.sheet) }"
      />
      <i />
      <button
        v-if="shot.mayDraw"
        class="hold"
        :aria-label="`Hold ${run.sheet?.number} longer or shorter by dragging`"
        tabindex="-1"
        @pointerdown.stop="emit('grip', $event, run)"
      />
    </div>
  </div>
</template>

<style scoped>
.col {
  position: relative;
  flex: 1;
  border-left: 1px solid var(--rule-faint);
  cursor: default;
  touch-action: pan-y;
}

.col.background {
  color: var(--soft);
}

.marked {
  position: absolute;
  left: 1px;
  right: 1px;
  background: rgb(60 106 85 / 14%);
  border: 1px solid var(--green);
  border-radius: 3px;
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

.run .sheet-number {
  font-size: 12.5px;
  flex: none;
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

.run i {
  flex: 1;
  width: 1px;
  margin: 2px 0 1px;
  background: var(--ink);
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
</style>
