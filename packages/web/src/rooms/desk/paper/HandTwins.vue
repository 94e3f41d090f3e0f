<script setup lang="ts">
import {
  ArrowBigUp,
  ArrowRightToLine,
  ChevronLeft,
  ChevronRight,
  GalleryHorizontal,
  Option,
  Play,
  Redo2,
  Undo2,
} from 'lucide-vue-next'
import { onBeforeUnmount, type Component } from 'vue'
import type { Commands } from '../commands.ts'
import { useHands } from '../../../stores/hands.ts'

/** Large keys on the screen for what the free hand does on a keyboard. Those with a bar are held while the other hand draws. */
const props = defineProps<{ commands: Commands }>()
const hands = useHands()

interface Twin {
  readonly words: string
  readonly says: string
  readonly icon: Component
  /** its command, or the key it stands for */
  readonly command?: string
  readonly key?: 'shift' | 'alt'
}
const TWINS: readonly Twin[] = [
  { words: 'before', says: 'see the drawing before, while held', icon: ChevronLeft, command: 'see-before' },
  { words: 'roll', says: 'roll through the drawings: hold and slide', icon: GalleryHorizontal, command: 'roll' },
  { words: 'after', says: 'see the drawing after, while held', icon: ChevronRight, command: 'see-after' },
  {
    words: 'straight, add',
    says: 'straight and even, or added to what is gathered, while held',
    icon: ArrowBigUp,
    key: 'shift',
  },
  {
    words: 'middle, less',
    says: 'from the middle, or taken from what is gathered, while held',
    icon: Option,
    key: 'alt',
  },
  { words: 'next', says: 'next to draw, with its two neighbours', icon: ArrowRightToLine, command: 'next' },
  { words: 'undo', says: 'undo', icon: Undo2, command: 'undo' },
  { words: 'redo', says: 'redo', icon: Redo2, command: 'redo' },
  { words: 'play', says: 'play and stop', icon: Play, command: 'play' },
]
/** A finger slides this far, in pixels, to roll to the next drawing. */
const ROLL_STEP_PX = 40
let rollFrom = 0
const isHeld = ({ command, key }: Twin) => key !== undefined || props.commands.get(command ?? '').release !== undefined
const can = ({ command }: Twin) => command === undefined || props.commands.get(command).can()

function down(twin: Twin, event: PointerEvent): void {
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  if (twin.key) hands.held[twin.key] = true
  else if (can(twin)) props.commands.get(twin.command ?? '').run()
  rollFrom = event.clientX
}
function slide(twin: Twin, event: PointerEvent): void {
  if (twin.command === 'roll' && event.buttons > 0) {
    props.commands.rollBy(Math.round((event.clientX - rollFrom) / ROLL_STEP_PX))
  }
}
function up(twin: Twin): void {
  if (twin.key) hands.held[twin.key] = false
  else props.commands.get(twin.command ?? '').release?.()
}
/** From a keyboard: what is held there is held by its own key. */
function pressed(twin: Twin, event: MouseEvent): void {
  if (event.detail === 0 && twin.command && !isHeld(twin) && can(twin)) props.commands.get(twin.command).run()
}
onBeforeUnmount(() => (hands.held.shift = hands.held.alt = false))
</script>

<template>
  <div class="twins" role="group" aria-label="Keys on the screen">
    <button
      v-for="twin in TWINS"
      :key="twin.words"
      :class="{ held: isHeld(twin), on: twin.key && hands.held[twin.key] }"
      :disabled="!can(twin)"
      :title="twin.says"
      @pointerdown.prevent="event => down(twin, event)"
      @pointermove="event => slide(twin, event)"
      @pointerup="up(twin)"
      @pointercancel="up(twin)"
      @click="event => pressed(twin, event)"
      @contextmenu.prevent
    >
      <component :is="twin.icon" :size="20" :stroke-width="1.7" aria-hidden="true" />
      {{ twin.words }}
    </button>
  </div>
</template>

<style scoped>
.twins {
  display: grid;
  grid-template-columns: repeat(3, 66px);
  gap: 5px;
  padding: 7px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  background: color-mix(in srgb, var(--edge) 92%, transparent);
}

button {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 2px;
  height: 52px;
  padding: 0;
  border: 1px solid var(--rule);
  border-radius: 9px;
  background: var(--paper);
  font-size: 10.5px;
  color: var(--ink);
  touch-action: none;
  user-select: none;
  cursor: pointer;
}

button.held {
  border-bottom: 3px solid var(--green);
}

button.on,
button:active {
  background: var(--green-wash);
}

button:disabled {
  opacity: 0.45;
}
</style>
