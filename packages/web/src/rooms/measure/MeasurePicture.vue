<script setup lang="ts">
import { placeSeen } from '@unhurried/core/document'
import type { Found } from '@unhurried/core/measure'
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import FramePicture from '../../shared/FramePicture.vue'
import { useDesk } from '../../stores/desk.ts'
import { useShelves } from '../../stores/shelves.ts'
import { useShot } from '../../stores/shot.ts'

/** The frame one stands on, with the finding drawn on it: a ring where it is, and an arrow where it would lie right. */
const props = defineProps<{ found: Found | null }>()
const shot = useShot()
const desk = useDesk()
const bitmaps = useShelves().remote
const stage = ref<HTMLElement | null>(null)
const { width, height } = useElementSize(stage)
const format = computed(() => shot.document?.format ?? { width: 16, height: 9 })
const wide = computed(() =>
  Math.max(
    40,
    Math.floor(Math.min(width.value - 24, ((height.value - 24) * format.value.width) / format.value.height)),
  ),
)
const scale = computed(() => wide.value / format.value.width)

/** The place of the finding in the picture, if it is seen on this frame. */
const place = computed(() => {
  const { found } = props
  const { document, take } = shot
  if (!found?.at || !document || !take || desk.frame < found.from || desk.frame >= found.to) return null
  // What lies on a drawing moves with its layer.
  const at =
    found.isInPicture || found.layer === null ? found.at : placeSeen(document, take, found.layer, desk.frame, found.at)
  return { x: at.x * scale.value, y: at.y * scale.value }
})
const within = computed(() => {
  const box = props.found?.within
  if (!box || !place.value) return null
  const of = (px: number) => px * scale.value
  return { x: of(box.left), y: of(box.top), width: of(box.right - box.left), height: of(box.bottom - box.top) }
})
const arrow = computed(() => {
  const { dx, dy } = props.found?.figures ?? {}
  if (!place.value || dx === undefined || dy === undefined) return null
  const [x, y] = [place.value.x + dx * scale.value, place.value.y + dy * scale.value]
  const turn = (Math.atan2(dy, dx) * 180) / Math.PI
  return { x, y, turn }
})
</script>

<template>
  <div ref="stage" class="stage">
    <div v-if="shot.take" class="picture" :style="{ width: `${wide}px` }">
      <FramePicture :take="shot.take" :frame="desk.frame" :width="wide" :bitmaps="bitmaps" />
      <svg v-if="place" class="over" aria-hidden="true">
        <template v-if="within">
          <rect v-bind="within" class="under" />
          <rect v-bind="within" class="ring" />
        </template>
        <template v-else>
          <circle :cx="place.x" :cy="place.y" :r="arrow ? 7 : 17" class="under" />
          <circle :cx="place.x" :cy="place.y" :r="arrow ? 7 : 17" class="ring" />
        </template>
        <g v-if="arrow">
          <line :x1="place.x" :y1="place.y" :x2="arrow.x" :y2="arrow.y" class="under" />
          <line :x1="place.x" :y1="place.y" :x2="arrow.x" :y2="arrow.y" class="ring" />
          <path d="M0 0l-9 -5v10z" class="tip" :transform="`translate(${arrow.x} ${arrow.y}) rotate(${arrow.turn})`" />
        </g>
      </svg>
    </div>
  </div>
</template>

<style scoped>
.stage {
  display: grid;
  place-items: center;
  min-height: 0;
  min-width: 0;
}

.picture {
  position: relative;
}

.over {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
  pointer-events: none;
}

.ring,
.under {
  fill: none;
  stroke: var(--rust);
  stroke-width: 2;
}

.under {
  stroke: var(--paper);
  stroke-width: 5;
  opacity: 0.8;
}

.tip {
  fill: var(--rust);
}
</style>
