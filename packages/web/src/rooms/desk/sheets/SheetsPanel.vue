<script setup lang="ts">
import { ElDialog } from 'element-plus'
import { ref } from 'vue'
import SheetsWork from './SheetsWork.vue'

/** Photographed sheets on the way to drawings. What is shut is let go: photographs are not kept, only what is laid. */
const shown = defineModel<boolean>({ required: true })
defineProps<{ files: readonly File[] }>()
/** the work begins afresh each time */
const times = ref(0)
</script>

<template>
  <ElDialog
    v-model="shown"
    title="Photographed sheets"
    width="min(1220px, 97vw)"
    align-center
    append-to-body
    destroy-on-close
    :close-on-click-modal="false"
    @closed="times++"
  >
    <SheetsWork :key="times" :files="files" @done="shown = false" />
  </ElDialog>
</template>
