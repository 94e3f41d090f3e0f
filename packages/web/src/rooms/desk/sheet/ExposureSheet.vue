<script setup lang="ts">
import type { Layer } from '@unhurried/core/document'
import { useElementSize, useResizeObserver } from '@vueuse/core'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import type { ColumnPlace, PaintedColumn } from './sheetPaint.ts'
import { type ColumnInSight, makeSheetSight, rowInWords } from './sheetSight.ts'
import { useSheetHand } from './useSheetHand.ts'
import type { Commands } from '../commands.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useSight } from '../../../stores/sight.ts'
import { useShot } from '../../../stores/shot.ts'
import SheetColumn from './SheetColumn.vue'
import SheetFoot from './SheetFoot.vue'
import SheetGutter from './SheetGutter.vue'
import SheetHead from './SheetHead.vue'
import SheetInk from './SheetInk.vue'
import SheetNotes from './SheetNotes.vue'
import SheetSound from './SheetSound.vue'

const props = defineProps<{ commands: Commands; playFrame: number | null }>()
const shot = useShot()
const desk = useDesk()
const sight = useSight()
const shape = computed(() => sight.sheetShape)
const row = computed(() => (shape.value === 'room' ? 21 : 24))
/** Rows and pixels kept ready beyond what is in sight, so that scrolling finds them written. */
const SPARE_ROWS = 2
const SPARE_PX = 100
const BLOCK = 6

const scroller = ref<HTMLElement | null>(null)
const { width, height } = useElementSize(scroller)
const across = ref(0)
const scrolled = ref(0)
function follow(): void {
  across.value = scroller.value?.scrollLeft ?? 0
  scrolled.value = scroller.value?.scrollTop ?? 0
}
const length = computed(() => shot.take?.length ?? 0)
/** A column for what is heard, where there is something. */
const hasSound = computed(() => {
  const { sounds, words } = shot.document ?? {}
  return Object.keys(sounds ?? {}).length + Object.keys(words ?? {}).length > 0
})
/** Stays the value it is while the layers do: most edits change nothing of them. */
const layers = computed((before?: Layer[]) => {
  const all = sight.columns
  const now = shape.value === 'strip' ? all.filter(layer => layer.id === desk.layerId) : all
  return before?.length === now.length && before.every((layer, i) => layer === now[i]) ? before : now
})
/** Rows come into sight by the block, so that a small turn of the wheel writes nothing anew. */
const first = computed(() => {
  const top = Math.floor(scrolled.value / row.value) - SPARE_ROWS
  return Math.max(0, Math.floor(top / BLOCK) * BLOCK)
})
const last = computed(() => {
  const bottom = (scrolled.value + height.value) / row.value + SPARE_ROWS
  return Math.min(length.value, Math.ceil(bottom / BLOCK) * BLOCK)
})
const see = makeSheetSight()
const seen = (layer: Layer): ColumnInSight =>
  shot.document && shot.take
    ? see(shot.document, shot.take, layer.id, first.value, last.value)
    : { runs: [], cycles: [], guides: [], places: [] }

/** Where the columns lie on the strip, measured when the sheet is laid out anew. */
const strip = ref<HTMLElement | null>(null)
const places = shallowRef<readonly ColumnPlace[]>([])
function measureColumns(): void {
  const columns = strip.value?.querySelectorAll<HTMLElement>('[data-layer]') ?? []
  places.value = [...columns].map(column => ({ left: column.offsetLeft, width: column.offsetWidth }))
}
useResizeObserver(strip, measureColumns)
watch([layers, shape], measureColumns, { flush: 'post' })

const hand = useSheetHand(scroller, row, props.commands.sheet)
const painted = computed((): PaintedColumn[] => {
  const [from, to] = [across.value - SPARE_PX, across.value + width.value + SPARE_PX]
  return layers.value.flatMap((layer, i) => {
    const place = places.value[i]
    if (!place || place.left + place.width < from || place.left > to) return []
    const drag = hand.drag.value?.layer === layer.id ? hand.drag.value : null
    return [{ layer, ...place, ...seen(layer), unseen: sight.looks[layer.id]?.hidden === true, drag }]
  })
})

/** Frame numbers and marks of beats stay at the left of the sheet. */
const GUTTER_PX = 46
// The column of the layer in the hand comes into sight.
watch([() => desk.layerId, places], () => {
  const [box, place] = [scroller.value, places.value[layers.value.findIndex(({ id }) => id === desk.layerId)]]
  if (!box || !place) return
  const right = place.left + place.width
  if (place.left - GUTTER_PX < box.scrollLeft) box.scrollLeft = place.left - GUTTER_PX
  else if (right > box.scrollLeft + box.clientWidth) box.scrollLeft = right - box.clientWidth
})

// The row under the playhead stays in sight.
watch([() => desk.frame, height, row], async () => {
  await nextTick()
  const box = scroller.value
  if (!box || props.playFrame !== null) return
  const top = desk.frame * row.value
  if (top < box.scrollTop + row.value) box.scrollTop = top - row.value * 2
  else if (top > box.scrollTop + box.clientHeight - row.value * 3) {
    box.scrollTop = top - box.clientHeight + row.value * 4
  }
})

const words = computed(() => (shot.document && shot.take ? rowInWords(shot.document, shot.take, desk.frame) : ''))
const shown = computed(() => props.playFrame ?? desk.frame)
</script>

<template>
  <aside
    class="sheet"
    :class="[`as-${shape}`, { many: layers.length > 4 }]"
    aria-label="Exposure sheet"
    :style="{ '--row': `${row}px` }"
  >
    <p id="sheet-row" class="hush" aria-live="polite">{{ words }}</p>
    <div
      ref="scroller"
      class="rows"
      tabindex="0"
      aria-label="Frames"
      aria-describedby="sheet-row"
      @scroll.passive="follow"
      @pointermove="hand.move"
      @pointerup="hand.up"
      @pointercancel="hand.cancel"
    >
      <SheetHead :layers="layers" :commands="commands" :has-sound="hasSound" />
      <div ref="strip" class="strip" data-strip :style="{ height: `${length * row}px` }">
        <div class="at" :style="{ top: `${shown * row}px` }" />
        <SheetGutter
          :first="first"
          :last="last"
          :row-px="row"
          :here="shown"
          @pointerdown="(event: PointerEvent) => hand.down(event, null)"
        />
        <SheetSound v-if="hasSound" :row-px="row" :first="first" :last="last" />
        <SheetNotes v-if="shape === 'room'" :row-px="row" :first="first" :last="last" />
        <SheetColumn
          v-for="layer in layers"
          :key="layer.id"
          :layer="layer"
          :see="() => seen(layer)"
          :row-px="row"
          :drag="hand.drag.value?.layer === layer.id ? hand.drag.value : null"
          @press="event => hand.down(event, layer.id)"
          @grip="(event, run) => hand.gripHold(event, layer.id, run.start, run.frames)"
          @key="(event, run) => run.drawing && hand.gripKey(event, layer.id, run.drawing, run.start)"
        />
        <SheetInk :columns="painted" :row-px="row" :first="first" :last="last" />
      </div>
    </div>
    <SheetFoot v-if="shape === 'edge'" :commands="commands" />
  </aside>
</template>

<style scoped>
.sheet {
  grid-area: sheet;
  background: var(--edge);
  border-right: 1px solid var(--rule);
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
  user-select: none;
}

.rows {
  flex: 1;
  overflow: auto;
  min-height: 0;
  scrollbar-width: thin;
  scrollbar-color: var(--rule) transparent;
}

.as-edge:not(.many) .rows,
.as-strip .rows {
  overflow-x: hidden;
}

.strip {
  position: relative;
  display: flex;
  width: fit-content;
  min-width: 100%;
}

.as-room .strip {
  padding-right: 24px;
}

.at {
  position: absolute;
  left: 0;
  right: 0;
  height: var(--row);
  background: var(--green-wash);
}
</style>
