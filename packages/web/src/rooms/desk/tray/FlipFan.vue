<script setup lang="ts">
import { neighbours } from '@unhurried/core/document'
import { computed } from 'vue'
import type { BitmapShelf } from '../../../paint/bitmaps.ts'
import type { Commands } from '../commands.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useSight } from '../../../stores/sight.ts'
import { useLamp } from '../../../stores/lamp.ts'
import { useShot } from '../../../stores/shot.ts'
import DrawingCard from './DrawingCard.vue'

defineProps<{ bitmaps: BitmapShelf; commands: Commands }>()
const shot = useShot()
const desk = useDesk()
const sight = useSight()
const lamp = useLamp()

const beside = (direction: -1 | 1) => {
  const round = lamp.lightTable.wrap ? desk.loop : null
  const { document, take } = shot
  const [id] = document && take ? neighbours(document, take, desk.layerId, desk.frame, direction, 1, round) : []
  return shot.drawing(id ?? null)
}
const before = computed(() => beside(-1))
const after = computed(() => beside(1))
const flip = (id: string | null) => (sight.flippedTo = id)
</script>

<template>
  <div class="fan" role="group" aria-label="Flip fan">
    <button
      class="card back"
      :disabled="!before"
      :title="`The drawing before: hold to see it (${commands.keysOf('see-before')}), click to go there (${commands.keysOf('back')})`"
      @pointerdown="flip(before?.id ?? null)"
      @pointerup="flip(null)"
      @pointerleave="flip(null)"
      @click="commands.get('back').run()"
    >
      <DrawingCard :drawing="before" :bitmaps="bitmaps" />
    </button>
    <div class="card here">
      <DrawingCard :drawing="desk.drawing" :bitmaps="bitmaps" />
    </div>
    <button
      class="card on"
      :disabled="!after"
      :title="`The drawing after: hold to see it (${commands.keysOf('see-after')}), click to go there (${commands.keysOf('on')})`"
      @pointerdown="flip(after?.id ?? null)"
      @pointerup="flip(null)"
      @pointerleave="flip(null)"
      @click="commands.get('on').run()"
    >
      <DrawingCard :drawing="after" :bitmaps="bitmaps" />
    </button>
  </div>
</template>

<style scoped>
.fan {
  margin-left: auto;
  display: flex;
  align-items: flex-end;
  padding-left: 30px;
}

.card {
  position: relative;
  flex: none;
  width: 66px;
  height: 41px;
  padding: 0;
  margin-left: -26px;
  background: var(--paper);
  border: 1px solid var(--rule);
  border-radius: 2px;
  box-shadow: 0 1px 4px rgb(90 74 48 / 13%);
  overflow: hidden;
}

button.card {
  cursor: pointer;
}

button.card:disabled {
  cursor: default;
  opacity: 0.55;
}

.back {
  transform: rotate(-3deg);
}

.on {
  transform: rotate(3deg);
}

.on :deep(.nr) {
  left: auto;
  right: 5px;
}

.here {
  z-index: 1;
  transform: translateY(-6px);
  border-color: var(--green);
}
</style>
