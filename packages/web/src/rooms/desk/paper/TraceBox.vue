<script setup lang="ts">
import { after, EMPTY_BOX, IDENTITY, type Box, type Matrix } from '@unhurried/core/geometry'
import { computed, ref, watch } from 'vue'
import type { Change } from '../../../strokes/gathered.ts'
import { useCarried } from '../../../stores/carried.ts'
import { useLamp } from '../../../stores/lamp.ts'
import { useShot } from '../../../stores/shot.ts'
import MoveBox from './MoveBox.vue'

/** Shift and trace: a drawing that shows through is laid where its shape fits the present one. The drawing itself stays as it is. */
const props = defineProps<{ matrix: Matrix }>()
const shot = useShot()
const lamp = useLamp()
const carried = useCarried()
const through = computed(() => [...lamp.ghosts.past, ...lamp.ghosts.future])
const chosen = ref<string | null>(null)
watch(
  through,
  ids => {
    if (!chosen.value || !ids.includes(chosen.value)) chosen.value = ids[0] ?? null
  },
  { immediate: true },
)
const drawing = computed(() => shot.drawing(chosen.value))
const box = computed<Box>(() => (drawing.value ? shot.book.boxOf(drawing.value) : EMPTY_BOX))
/** Where the layer of the drawing lies on the frame it shows through from. */
const lies = computed(() => {
  const from = lamp.shownThrough.find(ghost => ghost.drawing === chosen.value)?.frame
  const on = drawing.value && from !== undefined ? carried.on(drawing.value.layer, from) : null
  return on ? after(on, props.matrix) : props.matrix
})
/** where it lay before the hand took hold of it */
const laid = computed(() => (chosen.value === null ? null : (lamp.shifts.get(chosen.value) ?? null)))
/** set while the hand moves it: the drawing follows at once */
const held = ref<Matrix | null>(null)

function lay(by: Matrix | null): void {
  const id = chosen.value
  if (id === null) return
  const next = new Map(lamp.shifts)
  if (by) next.set(id, by)
  else next.delete(id)
  lamp.shifts = next
}

/** The drawing follows the hand; let go of without moving, it lies where it lay. */
function show(by: Matrix | null): void {
  if (by) {
    held.value ??= laid.value ?? IDENTITY
    lay(after(held.value, by))
  } else if (held.value) {
    lay(held.value === IDENTITY ? null : held.value)
    held.value = null
  }
}

const mapOf = (change: Change | null) => (change?.kind === 'map' ? change.by : null)
const move = (by: Matrix | null) => lay(after(laid.value ?? IDENTITY, by ?? IDENTITY))
</script>

<template>
  <MoveBox
    v-if="drawing"
    :matrix="lies"
    :box="box"
    :laid="held ?? laid"
    @show="change => show(mapOf(change))"
    @move="(_label, change) => move(mapOf(change))"
  />
  <div class="which">
    <template v-if="through.length">
      <span>lay elsewhere to trace:</span>
      <button
        v-for="id in through"
        :key="id"
        class="plain"
        :class="{ on: id === chosen }"
        :aria-pressed="id === chosen"
        @click="chosen = id"
      >
        {{ shot.drawing(id)?.number }}
      </button>
      <button class="plain" :disabled="!laid" @click="lay(null)">lay it back</button>
    </template>
    <span v-else>Nothing shows through. Turn the light table on, with drawings before or after.</span>
  </div>
</template>

<style scoped>
.which {
  position: absolute;
  left: 50%;
  bottom: 12px;
  transform: translateX(-50%);
  display: flex;
  align-items: baseline;
  gap: 6px;
  padding: 4px 14px;
  border-radius: 8px;
  background: var(--edge);
  border: 1px solid var(--rule);
  font-size: 13px;
  white-space: nowrap;
}

.on {
  font-weight: 700;
  box-shadow: inset 0 -2px var(--green);
  border-radius: 0;
}
</style>
