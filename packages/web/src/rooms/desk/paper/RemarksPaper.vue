<script setup lang="ts">
import { map, type Matrix } from '@unhurried/core/geometry'
import { computed } from 'vue'
import RemarkMarks from '../../../shared/RemarkMarks.vue'
import { useDrawers } from '../../../stores/drawers.ts'
import { useReview } from '../../../stores/review.ts'

/** What was remarked on what is seen, over the paper, while its drawer is open. */
defineProps<{ matrix: Matrix }>()
const review = useReview()
const drawers = useDrawers()
const isSeen = computed(() => drawers.isOpen('remarks', false))
const here = computed(() => review.here.map(one => one.remark))
const all = computed(() => review.remarks.map(one => one.remark))
</script>

<template>
  <svg v-if="isSeen && here.length" class="remarks" aria-hidden="true">
    <RemarkMarks :remarks="here" :all="all" :place="at => map(matrix, at)" />
  </svg>
</template>

<style scoped>
.remarks {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
</style>
