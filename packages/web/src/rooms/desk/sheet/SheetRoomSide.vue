<script setup lang="ts">
import { PanelLeftClose } from 'lucide-vue-next'
import type { BitmapShelf } from '../../../paint/bitmaps.ts'
import type { Commands } from '../commands.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useSight } from '../../../stores/sight.ts'
import { useShot } from '../../../stores/shot.ts'
import FramePicture from '../../../shared/FramePicture.vue'
import SheetActsPanel from '../panels/SheetActsPanel.vue'
import TakesNote from '../../../shared/TakesNote.vue'

/** What lies beside the whole sheet. */
defineProps<{ commands: Commands; bitmaps: BitmapShelf; playFrame: number | null }>()
const desk = useDesk()
const sight = useSight()
const shot = useShot()
</script>

<template>
  <aside class="side" aria-label="Acts on the sheet">
    <button class="plain back" :title="commands.tip('shape', 'Back to the paper')" @click="sight.sheetShape = 'edge'">
      <PanelLeftClose :size="16" aria-hidden="true" /> back to the paper
    </button>
    <FramePicture
      v-if="shot.take"
      :take="shot.take"
      :frame="playFrame ?? desk.frame"
      :width="262"
      :bitmaps="bitmaps"
      :looks="sight.looks"
    />
    <TakesNote />
    <SheetActsPanel :commands="commands" />
  </aside>
</template>

<style scoped>
.side {
  grid-area: side;
  min-width: 0;
  padding: 12px 18px;
  background: var(--edge);
  border-left: 1px solid var(--rule);
  overflow: hidden auto;
  scrollbar-width: thin;
  display: flex;
  flex-direction: column;
  gap: 10px;
}

canvas {
  flex: none;
}

.back {
  display: flex;
  align-items: center;
  gap: 6px;
  align-self: flex-start;
  margin-left: -4px;
  color: var(--soft);
}
</style>
