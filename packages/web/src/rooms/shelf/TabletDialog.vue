<script setup lang="ts">
import { ElDialog } from 'element-plus'
import AddressCode from '../../shared/AddressCode.vue'

/** The address of the desk as a code to photograph with a tablet. */
const shown = defineModel<boolean>({ required: true })
</script>

<template>
  <ElDialog v-model="shown" title="From a tablet" width="460px" align-center>
    <AddressCode device="tablet">
      <p>Point the camera of the tablet at the code, and sit down there with the same account.</p>
      <template #after>
        <p class="soft">
          On the tablet, “add to home screen” keeps the desk there: it opens without a connection, too.
        </p>
      </template>
    </AddressCode>
  </ElDialog>
</template>
