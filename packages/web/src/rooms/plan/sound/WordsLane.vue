<script setup lang="ts">
import { moveWordEdge, type SpokenWord } from '@unhurried/core/document'
import { useShot } from '../../../stores/shot.ts'

/** Spoken words over their frames; their edges are dragged, a neighbour that touches goes along. */
const props = defineProps<{
  words: readonly SpokenWord[]
  length: number
  frameAt: (event: PointerEvent) => number
}>()
const emit = defineEmits<{ go: [frame: number] }>()
const shot = useShot()
const share = (frames: number) => `${(100 * frames) / props.length}%`

let held: { id: string; edge: 'from' | 'to' } | null = null
function take(event: PointerEvent, id: string, edge: 'from' | 'to'): void {
  if (event.button !== 0 || !shot.mayDraw) return
  held = { id, edge }
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
function move(event: PointerEvent): void {
  if (!held || !shot.document) return
  const frame = props.frameAt(event) + Number(held.edge === 'to')
  const ops = moveWordEdge(shot.document, held.id, held.edge, Math.max(0, frame))
  if (ops.length) shot.commit('edge of a word', ops, { joins: true })
}
</script>

<template>
  <div class="words">
    <span
      v-for="word in words"
      :key="word.id"
      class="word-box"
      :style="{ left: share(word.from), width: share(word.to - word.from) }"
      :title="`${word.text}: frames ${word.from + 1} to ${word.to}`"
      @click="emit('go', word.from)"
    >
      <i
        class="edge from"
        @pointerdown.stop="event => take(event, word.id, 'from')"
        @pointermove="move"
        @pointerup="held = null"
        @click.stop
      />
      {{ word.text }}
      <i
        class="edge to"
        @pointerdown.stop="event => take(event, word.id, 'to')"
        @pointermove="move"
        @pointerup="held = null"
        @click.stop
      />
    </span>
  </div>
</template>

<style scoped>
.words {
  position: relative;
  height: 24px;
  margin: 4px 0;
}

.word-box {
  position: absolute;
  top: 0;
  bottom: 0;
  padding: 2px 6px;
  overflow: hidden;
  text-overflow: clip;
  white-space: nowrap;
  font: italic 13px var(--serif);
  background: var(--paper);
  border: 1px solid var(--rule);
  border-radius: 4px;
  cursor: pointer;
}

.edge {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 6px;
  cursor: col-resize;
  touch-action: none;
}

.from {
  left: 0;
}

.to {
  right: 0;
}
</style>
