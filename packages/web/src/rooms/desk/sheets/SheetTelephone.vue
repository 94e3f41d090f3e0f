<script setup lang="ts">
import { counted } from '@unhurried/core/time'
import { ElButton } from 'element-plus'
import { computed } from 'vue'
import AddressCode from '../../../shared/AddressCode.vue'
import type { FromTelephone } from './useTelephone.ts'

/** The code that a telephone on the same network photographs, to send photographs of sheets here. */
const props = defineProps<{ from: FromTelephone }>()
const emit = defineEmits<{ done: [] }>()
const minutes = computed(() => Math.ceil(props.from.seconds.value / 60))
</script>

<template>
  <section class="telephone" aria-label="From a telephone">
    <h3 class="serif">From a telephone</h3>
    <AddressCode v-if="from.code.value" device="telephone" :path="`/telephone#${from.code.value.token}`">
      <p>
        Point the camera of the telephone at the code. It opens a page that takes photographs and sends them here; it
        needs no account, and it can do nothing else.
      </p>
      <template #after>
        <p role="status">
          <strong>{{
            from.come.value ? `${counted(from.come.value, 'photograph')} have come.` : 'Waiting for the first one.'
          }}</strong>
          <span class="soft"> The code is good for {{ counted(minutes, 'minute') }} more.</span>
        </p>
        <ElButton type="primary" :disabled="!from.come.value" @click="emit('done')">go on with them</ElButton>
        <ElButton @click="(from.close(), emit('done'))">no more from there</ElButton>
      </template>
    </AddressCode>
    <template v-else>
      <p v-if="from.why.value" class="rust" role="alert">{{ from.why.value }}</p>
      <p v-else class="soft" role="status">asking for a code …</p>
      <ElButton v-if="from.why.value" type="primary" @click="from.open()">a new code</ElButton>
    </template>
  </section>
</template>

<style scoped>
.telephone {
  --code-size: 260px;
  padding: 10px 6px;
  overflow-y: auto;
}

h3 {
  font-size: 20px;
  font-weight: 500;
  margin-bottom: 14px;
}

p {
  margin-bottom: 10px;
}
</style>
