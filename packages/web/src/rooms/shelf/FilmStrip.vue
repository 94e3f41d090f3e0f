<script setup lang="ts">
import type { ShotCard } from '@unhurried/contract'
import { counted, secondsLabel } from '@unhurried/core/time'
import { useElementSize } from '@vueuse/core'
import { computed, ref, shallowReactive, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { contactSheet, type ContactSheet } from '../../stores/contactSheet.ts'

/** The shots of a film end to end, each as wide as it lasts, with pictures at even moments. */
const props = defineProps<{ shots: readonly ShotCard[] }>()
const sheets = shallowReactive(new Map<string, ContactSheet>())
watch(
  () => props.shots,
  shots => {
    for (const shot of shots) {
      const lay = (sheet: ContactSheet) => sheets.set(shot.id, sheet)
      contactSheet(shot, lay).then(lay, () => undefined)
    }
  },
  { immediate: true },
)

const [HEIGHT, NARROWEST_PX] = [84, 72]
/** A short film fills the room, a long one is scrolled through; pixels to a second. */
const SCALE = { least: 96, most: 340 }
const box = ref<HTMLElement | null>(null)
const { width: room } = useElementSize(box)
const seconds = computed(() => [...sheets.values()].reduce((sum, { frames, fps }) => sum + frames / fps, 0))
const pxPerSecond = computed(() =>
  Math.max(SCALE.least, Math.min(SCALE.most, (room.value - 12) / Math.max(0.1, seconds.value))),
)
/** What one shot shows of itself: as many pictures as fit its width, each the one of its moment. */
const pieces = computed(() =>
  props.shots.map(shot => {
    const sheet = sheets.get(shot.id)
    if (!sheet) return { shot, sheet: null, width: NARROWEST_PX, pictures: [] }
    const width = Math.max(NARROWEST_PX, Math.round((sheet.frames / sheet.fps) * pxPerSecond.value))
    const each = Math.max(24, Math.round((HEIGHT * sheet.size.width) / sheet.size.height))
    const count = Math.max(1, Math.floor(width / each))
    const pictures = Array.from({ length: count }, (_, i) => {
      const frame = Math.floor((i * sheet.frames) / count)
      let passed = 0
      return { frame, bitmap: sheet.pictures.find(p => (passed += p.frames) > frame)?.bitmap ?? null }
    })
    return { shot, sheet, width, pictures }
  }),
)
/** Shots may have rates of their own: what the film lasts is told in seconds. */
const lasts = computed(() => {
  const known = pieces.value.flatMap(({ sheet }) => (sheet ? [sheet.frames / sheet.fps] : []))
  const all = known.length === props.shots.length
  return `${all ? '' : 'at least '}${known.reduce((sum, s) => sum + s, 0).toFixed(2)} s`
})

const paint = (bitmap: ImageBitmap | null) => (canvas: unknown) => {
  if (!bitmap || !(canvas instanceof HTMLCanvasElement)) return
  const brush = canvas.getContext('2d')
  brush?.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
}
</script>

<template>
  <div ref="box">
    <p class="soft lasts">
      {{ counted(shots.length, 'shot') }} end to end: <b>{{ lasts }}</b>
    </p>
    <ol class="strip">
      <li v-for="{ shot, sheet, width, pictures } in pieces" :key="shot.id" :style="{ width: `${width}px` }">
        <RouterLink
          :to="{ name: 'desk', params: { shot: shot.id }, query: { frame: 1 } }"
          :aria-label="`Open ${shot.name}`"
          :title="shot.name"
          class="pictures"
          :style="{ background: sheet?.paper }"
        >
          <canvas
            v-for="{ frame, bitmap } in pictures"
            :key="`${frame} ${bitmap ? 1 : 0}`"
            :ref="paint(bitmap)"
            :width="bitmap?.width ?? 1"
            :height="bitmap?.height ?? 1"
            aria-hidden="true"
          />
        </RouterLink>
        <span class="name">{{ shot.name }}</span>
        <span v-if="sheet" class="soft">{{ secondsLabel(sheet.frames, sheet.fps) }}</span>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.lasts b {
  color: var(--ink);
}

.strip {
  display: flex;
  list-style: none;
  margin-top: 8px;
  padding: 3px 3px 10px;
  overflow-x: auto;
  scrollbar-width: thin;
}

li {
  flex: none;
  display: flex;
  flex-direction: column;
  font-size: 12.5px;
}

.pictures {
  display: flex;
  height: 86px;
  border: 1px solid var(--rule);
  border-right-color: var(--ink);
  overflow: hidden;
}

.pictures canvas {
  flex: 1 1 0;
  min-width: 0;
  height: 100%;
  object-fit: cover;
  background: var(--paper);
}

.name {
  margin: 4px 8px 0 2px;
  font: 500 13.5px var(--serif);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.soft {
  margin-left: 2px;
}
</style>
