<script setup lang="ts">
import { useElementSize, usePreferredReducedMotion } from '@vueuse/core'
import { X } from 'lucide-vue-next'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { makePlayback } from '../../../paint/playback.ts'
import FramePicture from '../../../shared/FramePicture.vue'
import { useDesk } from '../../../stores/desk.ts'
import { useSight } from '../../../stores/sight.ts'
import { useFlip } from '../../../stores/flip.ts'
import { BESIDE_PX } from '../../../stores/settings.ts'
import { useShelves } from '../../../stores/shelves.ts'
import { useShot } from '../../../stores/shot.ts'

/** The loop running small beside the paper, as it is after each stroke. It rests while the hand draws, and where motion is reduced. */
const props = defineProps<{ busy: boolean }>()
const shot = useShot()
const desk = useDesk()
const sight = useSight()
const flip = useFlip()
const shelves = useShelves()
const motion = usePreferredReducedMotion()
const room = ref<HTMLElement | null>(null)
const { width } = useElementSize(room)
const shown = ref(desk.frame)
const playback = makePlayback({ show: frame => (shown.value = frame) })
/** After the hand has let go for so long it goes on. */
const REST_MS = 350
const SIZES = [
  { words: 'small', px: BESIDE_PX.thumbnail },
  { words: 'phone', px: BESIDE_PX.phone },
] as const

const runs = computed(() => !props.busy && motion.value !== 'reduce' && shot.take !== null)
let timer: ReturnType<typeof setTimeout> | undefined
watch(
  () => [runs.value, desk.loop.from, desk.loop.to, flip.speed, shot.document?.format.fps],
  () => {
    clearTimeout(timer)
    playback.stop()
    if (runs.value) timer = setTimeout(start, REST_MS)
    else if (!props.busy) shown.value = desk.frame
  },
  { immediate: true },
)
function start(): void {
  if (shot.document) playback.start(shown.value, shot.document.format.fps * flip.speed, desk.loop, true)
}
// Where motion is reduced it shows the frame one stands on.
watch(
  () => desk.frame,
  frame => {
    if (!playback.playing.value && !props.busy) shown.value = frame
  },
)
// As wide as it was pulled, from one evening to the next.
watch(width, px => {
  if (px > 0) sight.beside = { ...sight.beside, width: Math.round(px) }
})
onBeforeUnmount(() => {
  clearTimeout(timer)
  playback.stop()
})
</script>

<template>
  <aside class="loop" aria-label="The loop beside the paper">
    <header>
      <button
        v-for="{ words, px } in SIZES"
        :key="px"
        class="plain"
        :aria-pressed="Math.abs(sight.beside.width - px) < 2"
        @click="room!.style.width = `${px}px`"
      >
        {{ words }}
      </button>
      <button
        class="plain close"
        aria-label="No loop beside the paper"
        @click="sight.beside = { ...sight.beside, on: false }"
      >
        <X :size="13" aria-hidden="true" />
      </button>
    </header>
    <div
      ref="room"
      class="room"
      :style="{ width: `${sight.beside.width}px`, filter: sight.dim ? `brightness(${1 - sight.dim})` : '' }"
    >
      <FramePicture
        v-if="shot.take && width > 0"
        :take="shot.take"
        :frame="shown"
        :width="width"
        :bitmaps="shelves.remote"
        :looks="sight.seenLooks"
      />
    </div>
  </aside>
</template>

<style scoped>
.loop {
  padding: 2px 7px 7px;
  border: 1px solid var(--rule);
  border-radius: 9px;
  background: color-mix(in srgb, var(--edge) 94%, transparent);
}

header {
  display: flex;
  gap: 4px;
  font-size: 11.5px;
}

header .plain {
  min-height: 24px;
  color: var(--soft);
}

header [aria-pressed='true'] {
  color: var(--ink);
  font-weight: 700;
}

.close {
  margin-left: auto;
  width: 24px;
  padding: 0;
  line-height: 0;
}

.room {
  min-width: 96px;
  max-width: 60vw;
  overflow: hidden;
  resize: horizontal;
}
</style>
