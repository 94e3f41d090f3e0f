<script setup lang="ts">
import { ElDialog } from 'element-plus'
import { ref } from 'vue'
import { usePhotographs } from '../../../stores/photographs.ts'
import { useShot } from '../../../stores/shot.ts'
import SheetsWork from './SheetsWork.vue'

/** Photographed sheets on the way to drawings. Shut and opened again, the work goes on; once it is laid, or the shot is left, the photographs are let go. */
const shot = useShot()
const photographs = usePhotographs()
/** how many works were laid: the next one begins afresh */
const laid = ref(0)
function done(): void {
  photographs.shown = false
  photographs.files = []
  laid.value++
}
</script>

<template>
  <ElDialog
    v-model="photographs.shown"
    title="Photographed sheets"
    width="min(1220px, 97vw)"
    align-center
    append-to-body
    :close-on-click-modal="false"
  >
    <SheetsWork
      :key="`${shot.id} ${laid}`"
      :files="photographs.files"
      :shown="photographs.shown"
      @done="done"
      @asked="photographs.shown = false"
    />
  </ElDialog>
</template>
