<script setup lang="ts">
import type { Box, Matrix } from '@unhurried/core/geometry'
import { X } from 'lucide-vue-next'
import { computed } from 'vue'
import SheetBox from './SheetBox.vue'
import type { Sheet, Sheets } from './useSheets.ts'

/** The drawings of a sheet as boxes over it, numbered as they will be laid, and one that is being dragged. */
const props = defineProps<{ sheets: Sheets; sheet: Sheet; view: Matrix; dragged: Box | null }>()
const emit = defineEmits<{ key: [key: string] }>()
const here = computed(() =>
  props.sheets.drawings.value.flatMap(({ sheet, box, key }, i) =>
    sheet.id === props.sheet.id ? [{ key, box, number: i + 1 }] : [],
  ),
)
const leaveOut = (box: Box) =>
  props.sheets.setBoxes(
    props.sheet,
    props.sheet.boxes.filter(other => other !== box),
  )
</script>

<template>
  <SheetBox v-for="{ key, box, number } in here" :key="key" :box="box" :view="view">
    <button class="plain number" :title="`Drawing ${number}`" @pointerdown.stop @click="emit('key', key)">
      {{ number }}
    </button>
    <button class="plain out" :aria-label="`Leave drawing ${number} out`" @pointerdown.stop @click="leaveOut(box)">
      <X :size="14" />
    </button>
  </SheetBox>
  <SheetBox v-if="dragged" :box="dragged" :view="view" pulled />
</template>

<style scoped>
button {
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
