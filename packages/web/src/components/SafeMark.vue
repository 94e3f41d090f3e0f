<script setup lang="ts">
import { computed } from 'vue'
import { useShot } from '../stores/shot.ts'

const shot = useShot()
const SAYS = {
  safe: { words: 'safe', more: 'Everything is stored.' },
  sending: { words: 'sending', more: 'On its way to the server; kept on this machine meanwhile.' },
  'kept-here': {
    words: 'kept here',
    more: 'The server does not answer. Everything is kept on this machine and sent as soon as it does.',
  },
}
const says = computed(() => SAYS[shot.safe])
</script>

<template>
  <span class="mark" :class="shot.safe" role="status" :title="says.more">
    <svg width="11" height="11" viewBox="0 0 11 11" aria-hidden="true">
      <circle v-if="shot.safe === 'safe'" cx="5.5" cy="5.5" r="5" fill="currentColor" />
      <path
        v-else-if="shot.safe === 'sending'"
        d="M5.5 .5 A5 5 0 0 1 5.5 10.5"
        fill="none"
        stroke="currentColor"
        stroke-width="1.6"
      />
      <rect v-else x="1.2" y="1.2" width="8.6" height="8.6" fill="none" stroke="currentColor" stroke-width="1.8" />
    </svg>
    {{ says.words }}
  </span>
</template>

<style scoped>
.mark {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-width: 78px;
  color: var(--green);
}

.mark.kept-here {
  color: var(--rust);
  font-weight: 700;
}
</style>
