<script setup lang="ts">
import { map, type Box, type Matrix } from '@unhurried/core/geometry'
import { computed } from 'vue'

/** A box over what is seen of a sheet. */
const props = defineProps<{ box: Box; view: Matrix; pulled?: boolean }>()
const style = computed(() => {
  const { left, top, right, bottom } = props.box
  const [a, b] = [map(props.view, { x: left, y: top }), map(props.view, { x: right + 1, y: bottom + 1 })]
  return { left: `${a.x}px`, top: `${a.y}px`, width: `${b.x - a.x}px`, height: `${b.y - a.y}px` }
})
</script>

<template>
  <div class="box" :class="{ pulled }" :style="style"><slot /></div>
</template>

<style scoped>
.box {
  position: absolute;
  border: 1.5px dashed var(--green);
  pointer-events: none;
}

.box.pulled {
  border-style: solid;
}
</style>
