<script setup lang="ts">
import type { Matrix } from '@unhurried/core/geometry'
import { computed } from 'vue'
import type { Change } from '../../../strokes/gathered.ts'
import type { StrokeActs } from '../acts/strokeActs.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import MoveBox from './MoveBox.vue'

/** The box round gathered strokes. */
const props = defineProps<{ matrix: Matrix; strokes: StrokeActs }>()
const emit = defineEmits<{ show: [change: Change | null] }>()
const desk = useDesk()
const kit = useKit()
const box = computed(() => props.strokes.box())
const note = computed(() => {
  const { x, y } = kit.nudged
  return x || y ? `nudged ${x}, ${y} px` : undefined
})

function move(label: string, change: Change): void {
  emit('show', null)
  props.strokes.change(label, change)
}
</script>

<template>
  <MoveBox
    :matrix="matrix"
    :box="box"
    :pivot="kit.pivot"
    :note="note"
    shapes
    :fixed="!desk.mayEdit"
    @show="change => emit('show', change)"
    @move="move"
    @pivot="at => (kit.pivot = at)"
  />
</template>
