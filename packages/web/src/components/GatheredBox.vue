<script setup lang="ts">
import { EMPTY_BOX, unite, type Box, type Matrix } from '@unhurried/core/geometry'
import { computed } from 'vue'
import { useDesk } from '../stores/desk.ts'
import { useShot } from '../stores/shot.ts'
import MoveBox from './MoveBox.vue'

/** The box round gathered strokes. */
defineProps<{ matrix: Matrix }>()
const emit = defineEmits<{ show: [by: Matrix | null]; move: [label: string, by: Matrix] }>()
const shot = useShot()
const desk = useDesk()
const box = computed<Box>(() =>
  [...desk.gathered].reduce<Box>((all, id) => {
    const element = desk.drawing?.elements[id]
    const stroke = element && shot.book.placed(element)
    return stroke ? unite(all, stroke.box) : all
  }, EMPTY_BOX),
)
</script>

<template>
  <MoveBox
    :matrix="matrix"
    :box="box"
    scales
    :fixed="!desk.mayEdit"
    @show="by => emit('show', by)"
    @move="(label, by) => emit('move', label, by)"
  />
</template>
