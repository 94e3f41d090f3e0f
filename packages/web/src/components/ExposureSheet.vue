<script setup lang="ts">
import { layersInOrder } from '@unhurried/core/document'
import { useElementSize, useScroll } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { makeSheetSight } from '../desk/sheetSight.ts'
import { useSheetHand } from '../desk/useSheetHand.ts'
import type { Commands } from '../keys/commands.ts'
import { useDesk } from '../stores/desk.ts'
import { useShot } from '../stores/shot.ts'
import SheetColumn from './SheetColumn.vue'
import SheetFoot from './SheetFoot.vue'
import SheetGutter from './SheetGutter.vue'
import SheetHead from './SheetHead.vue'
import SheetNotes from './SheetNotes.vue'

const props = defineProps<{ commands: Commands; playFrame: number | null }>()
const shot = useShot()
const desk = useDesk()
const shape = computed(() => desk.sheetShape)
const row = computed(() => (shape.value === 'room' ? 21 : 24))
/** Rows kept ready beyond what is in sight, so that scrolling finds them painted. */
const SPARE_ROWS = 2

const scroller = ref<HTMLElement | null>(null)
const { height } = useElementSize(scroller)
const { y: scrolled } = useScroll(scroller)
const length = computed(() => shot.take?.length ?? 0)
const layers = computed(() => {
  const all = shot.document ? [...layersInOrder(shot.document)].reverse() : []
  return shape.value === 'strip' ? all.filter(layer => layer.id === desk.layerId) : all
})
const first = computed(() => Math.max(0, Math.floor(scrolled.value / row.value) - SPARE_ROWS))
const last = computed(() => Math.min(length.value, Math.ceil((scrolled.value + height.value) / row.value) + SPARE_ROWS))
const see = makeSheetSight()
interface Rows {
  readonly first: number
  readonly last: number
}
/** Columns drawn at once when the sheet is scrolled far; as many more follow with every picture of the screen. */
const AT_ONCE = 3
const inView = computed<Rows>(() => ({ first: first.value, last: last.value }))
/** the rows that the later groups of columns show by now */
const late = shallowRef<readonly Rows[]>([])
let coming = 0

function followWith(group: number, rows: Rows): void {
  coming = requestAnimationFrame(() => {
    late.value = late.value.map((old, i) => (i === group ? rows : old))
    if (group + 1 < late.value.length) followWith(group + 1, rows)
  })
}
watch(
  [inView, () => layers.value.length],
  ([rows, count], before) => {
    cancelAnimationFrame(coming)
    const groups = Math.max(0, Math.ceil(count / AT_ONCE) - 1)
    if (groups !== late.value.length || !before[0]) late.value = Array.from({ length: groups }, () => rows)
    // Scrolling is told within a picture of the screen: the first request still belongs to it.
    else coming = requestAnimationFrame(() => followWith(0, rows))
  },
  { immediate: true },
)
onBeforeUnmount(() => cancelAnimationFrame(coming))

const columns = computed(() => {
  const { document, take } = shot
  if (!document || !take) return []
  return layers.value.map((layer, i) => {
    const rows = late.value[Math.floor(i / AT_ONCE) - 1] ?? inView.value
    return { layer, ...see(document, take, layer.id, rows.first, rows.last) }
  })
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

const hand = useSheetHand(scroller, row, props.commands.sheet)
const shown = computed(() => props.playFrame ?? desk.frame)
</script>

<template>
  <aside
    class="sheet"
    :class="[`as-${shape}`, { many: layers.length > 4 }]"
    aria-label="Exposure sheet"
    :style="{ '--row': `${row}px` }"
  >
    <div
      ref="scroller"
      class="rows"
      tabindex="0"
      aria-label="Frames"
      @pointermove="hand.move"
      @pointerup="hand.up"
      @pointercancel="hand.cancel"
    >
      <SheetHead :layers="layers" :commands="commands" />
      <div class="strip" data-strip :style="{ height: `${length * row}px` }">
        <div class="at" :style="{ top: `${shown * row}px` }" />
        <SheetGutter
          :first="first"
          :last="last"
          :row-px="row"
          :here="shown"
          @pointerdown="(event: PointerEvent) => hand.down(event, null)"
        />
        <SheetNotes v-if="shape === 'room'" :row-px="row" :first="first" :last="last" />
        <SheetColumn
          v-for="{ layer, runs, cycles } in columns"
          :key="layer.id"
          :layer="layer"
          :runs="runs"
          :cycles="cycles"
          :row-px="row"
          :drag="hand.drag.value?.layer === layer.id ? hand.drag.value : null"
          @press="event => hand.down(event, layer.id)"
          @grip="(event, run) => hand.gripHold(event, layer.id, run.start, run.frames)"
          @key="(event, run) => run.drawing && hand.gripKey(event, layer.id, run.drawing, run.start)"
        />
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
