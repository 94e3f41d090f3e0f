<script setup lang="ts">
import { holdDrawing, layersInOrder } from '@unhurried/core/document'
import { placed } from '@unhurried/core/time'
import { useElementSize, useScroll } from '@vueuse/core'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import type { Commands } from '../keys/commands.ts'
import { useDesk } from '../stores/desk.ts'
import { useShot } from '../stores/shot.ts'
import SheetColumn, { type SeenRun } from './SheetColumn.vue'
import SheetFoot from './SheetFoot.vue'

const props = defineProps<{ commands: Commands; playFrame: number | null }>()
const shot = useShot()
const desk = useDesk()
const ROW = 24

const scroller = ref<HTMLElement | null>(null)
const { height } = useElementSize(scroller)
const { y: scrolled } = useScroll(scroller)
const length = computed(() => shot.take?.length ?? 0)
const fps = computed(() => shot.document?.format.fps ?? 24)
const layers = computed(() => (shot.document ? [...layersInOrder(shot.document)].reverse() : []))
const first = computed(() => Math.max(0, Math.floor(scrolled.value / ROW) - 6))
const last = computed(() => Math.min(length.value, Math.ceil((scrolled.value + height.value) / ROW) + 6))
const rows = computed(() => Array.from({ length: Math.max(0, last.value - first.value) }, (_, i) => first.value + i))

/** The runs of each layer that are in sight. */
const columns = computed(() =>
  layers.value.map(layer => ({
    layer,
    runs: placed(shot.take?.columns[layer.id] ?? [])
      .filter(run => run.drawing !== null && run.start < last.value && run.start + run.frames > first.value)
      .map(run => ({
        ...run,
        sheet: shot.drawing(run.drawing),
        shared: (counts.value.get(run.drawing as string) ?? 0) > 1,
      })),
  })),
)
const counts = computed(() => {
  const seen = new Map<string, number>()
  for (const column of Object.values(shot.take?.columns ?? {})) {
    for (const run of column) if (run.drawing !== null) seen.set(run.drawing, (seen.get(run.drawing) ?? 0) + 1)
  }
  return seen
})
// The row under the playhead stays in sight.
watch([() => desk.frame, height], async () => {
  await nextTick()
  const box = scroller.value
  if (!box || props.playFrame !== null) return
  const top = desk.frame * ROW
  if (top < box.scrollTop + ROW) box.scrollTop = top - ROW * 2
  else if (top > box.scrollTop + box.clientHeight - ROW * 2) box.scrollTop = top - box.clientHeight + ROW * 3
})

const hold = shallowRef<{ layer: string; start: number; frames: number; from: number } | null>(null)
let marking: { layer: string; from: number } | null = null

function frameUnder(event: PointerEvent): number {
  const box = scroller.value
  if (!box) return 0
  const y = event.clientY - box.getBoundingClientRect().top + box.scrollTop
  return Math.max(0, Math.min(length.value - 1, Math.floor(y / ROW)))
}

function down(event: PointerEvent, layer: string | null): void {
  if (event.button !== 0) return
  const frame = frameUnder(event)
  const on = layer ?? desk.layerId
  if (event.shiftKey && on === desk.layerId) {
    desk.selection = { layer: on, from: Math.min(frame, desk.frame), to: Math.max(frame, desk.frame) + 1 }
    return
  }
  desk.layerId = on
  desk.selection = null
  desk.goTo(frame)
  marking = { layer: on, from: frame }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}

function gripHold(event: PointerEvent, layer: string, run: SeenRun): void {
  if (!shot.mayDraw) return
  hold.value = { layer, start: run.start, frames: run.frames, from: run.frames }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}

function move(event: PointerEvent): void {
  const frame = frameUnder(event)
  if (hold.value) {
    const past = event.clientY - (scroller.value?.getBoundingClientRect().bottom ?? 0)
    const frames = Math.max(1, frame - hold.value.start + 1 + (past > 0 ? Math.ceil(past / ROW) : 0))
    if (frames !== hold.value.frames) hold.value = { ...hold.value, frames }
  } else if (marking && frame !== marking.from) {
    desk.selection = {
      layer: marking.layer,
      from: Math.min(frame, marking.from),
      to: Math.max(frame, marking.from) + 1,
    }
  }
}

function up(): void {
  const h = hold.value
  hold.value = null
  marking = null
  if (h && h.frames !== h.from && shot.document && shot.take) {
    shot.commit(
      h.frames > h.from ? 'hold longer' : 'hold shorter',
      holdDrawing(shot.document, shot.take, h.layer, h.start, h.frames),
    )
  }
}

const loop = computed(() => shot.take?.loop ?? null)
</script>

<template>
  <aside class="sheet" aria-label="Exposure sheet">
    <div class="head">
      <span class="nr">frame</span>
      <button
        v-for="layer in layers"
        :key="layer.id"
        class="plain layer"
        :class="{ on: layer.id === desk.layerId }"
        :aria-pressed="layer.id === desk.layerId"
        :title="`${layer.name}${layer.kind === 'background' ? ' (background)' : ''}: draw on this layer`"
        @click="desk.layerId = layer.id"
      >
        {{ layer.name }}
      </button>
    </div>
    <div
      ref="scroller"
      class="rows"
      tabindex="0"
      aria-label="Frames"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
    >
      <div class="strip" :style="{ height: `${length * ROW}px` }">
        <div class="at" :style="{ top: `${(playFrame ?? desk.frame) * ROW}px` }" />
        <div
          v-if="loop"
          class="loop"
          :style="{ top: `${loop.from * ROW + 3}px`, height: `${(loop.to - loop.from) * ROW - 6}px` }"
          title="The loop"
        />
        <div class="nrs" @pointerdown="down($event, null)" @pointermove="move" @pointerup="up">
          <span
            v-for="f in rows"
            :key="f"
            class="nr"
            :class="{ odd: f % 2, second: f % fps === 0 && f > 0, here: f === (playFrame ?? desk.frame) }"
            :style="{ top: `${f * ROW}px` }"
            >{{ f + 1 }}</span
          >
        </div>
        <SheetColumn
          v-for="{ layer, runs } in columns"
          :key="layer.id"
          :layer="layer"
          :runs="runs"
          :row-px="ROW"
          :dragged="hold?.layer === layer.id ? hold : null"
          @pointerdown="down($event, layer.id)"
          @pointermove="move"
          @pointerup="up"
          @grip="(event, run) => gripHold(event, layer.id, run)"
        />
      </div>
    </div>
    <SheetFoot :commands="commands" />
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
  user-select: none;
}

.head {
  display: flex;
  align-items: center;
  height: 32px;
  border-bottom: 1px solid var(--rule);
  font-size: 11.5px;
  color: var(--soft);
}

.head .nr {
  width: 46px;
  text-align: center;
}

.layer {
  flex: 1;
  min-width: 0;
  padding: 2px 1px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.layer.on {
  color: var(--ink);
  font-weight: 700;
}

.rows {
  flex: 1;
  overflow: hidden auto;
  min-height: 0;
  scrollbar-width: thin;
  scrollbar-color: var(--rule) transparent;
}

.strip {
  position: relative;
  display: flex;
}

.at {
  position: absolute;
  left: 0;
  right: 0;
  height: 24px;
  background: var(--green-wash);
}

.loop {
  position: absolute;
  left: 3px;
  width: 5px;
  border: 1.5px solid var(--green);
  border-right: 0;
  border-radius: 4px 0 0 4px;
}

.nrs {
  position: relative;
  flex: none;
  width: 46px;
  border-left: 0;
}

.nrs .nr {
  position: absolute;
  left: 12px;
  right: 6px;
  height: 24px;
  line-height: 24px;
  text-align: center;
  font-size: 11.5px;
  color: var(--soft);
}

.nrs .odd {
  font-size: 10.5px;
}

.nrs .second {
  border-top: 1px solid var(--past);
}

.nrs .here {
  height: 18px;
  margin-top: 3px;
  line-height: 18px;
  background: var(--green);
  color: #fff;
  border-radius: 4px;
}
</style>
