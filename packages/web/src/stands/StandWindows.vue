<script setup lang="ts">
import { useStands } from '../stores/stands.ts'
import StandWindow from './StandWindow.vue'

/** Everything that stands beside the paper, and the tones in which it is seen. */
defineProps<{ frame: number }>()
const stands = useStands()
/** So many greys from black to white, as a table of steps. */
const table = (tones: number) => Array.from({ length: tones }, (_, i) => i / (tones - 1)).join(' ')
</script>

<template>
  <StandWindow v-for="stand in stands.all" :key="stand.key" :stand="stand" :frame="frame" data-over-paper />
  <svg v-if="stands.tones" class="tones" aria-hidden="true">
    <filter :id="`tones-${stands.tones}`" color-interpolation-filters="sRGB">
      <feColorMatrix type="saturate" values="0" />
      <feComponentTransfer>
        <feFuncR type="discrete" :tableValues="table(stands.tones)" />
        <feFuncG type="discrete" :tableValues="table(stands.tones)" />
        <feFuncB type="discrete" :tableValues="table(stands.tones)" />
      </feComponentTransfer>
    </filter>
  </svg>
</template>

<style scoped>
.tones {
  position: absolute;
  width: 0;
  height: 0;
}
</style>
