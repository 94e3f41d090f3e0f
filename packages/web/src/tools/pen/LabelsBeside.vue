<script setup lang="ts">
import { LABELS, type Label } from '@unhurried/core/document'
import { LABEL_COLOURS } from '../../paint/colours.ts'
import { useKit } from '../../stores/kit.ts'

/** Which limb new lines belong to. */
const kit = useKit()
const LABEL_WORDS: Record<Label, string> = { near: 'near limb', far: 'far limb' }
</script>

<template>
  <div class="labels" role="group" aria-label="Label of new lines">
    <button
      v-for="label in LABELS"
      :key="label"
      class="beside"
      :class="{ on: kit.label === label }"
      :aria-pressed="kit.label === label"
      :title="`Label new lines as the ${LABEL_WORDS[label]}: a working colour here, their own colour when sent off`"
      @click="kit.label = kit.label === label ? null : label"
    >
      <i :style="{ background: LABEL_COLOURS[label] }" />{{ label }}
    </button>
  </div>
</template>

<style scoped>
.labels {
  display: flex;
  flex-direction: column;
  gap: 2px;
}

i {
  width: 9px;
  height: 9px;
  border-radius: 50%;
}
</style>
