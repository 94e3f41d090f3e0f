<script setup lang="ts">
import { inverse, map, type Matrix, type Point } from '@unhurried/core/geometry'
import { momentUnder } from '@unhurried/core/clip'
import { BY_HAND } from '@unhurried/core/document'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { useClipPoints } from '../../../stores/clipPoints.ts'
import { useClips } from '../../../stores/clips.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useDrawers } from '../../../stores/drawers.ts'
import { useShot } from '../../../stores/shot.ts'
import PaperHandles, { type PaperHandle } from '../../../shared/PaperHandles.vue'

/**
 * Points that are followed through the clip, over the paper, while their drawer is open: the way of each with a tick for every picture, a ring where it is now, to be
 * dragged where it was lost; and the press that puts a new one.
 */
const props = defineProps<{ matrix: Matrix }>()
const shot = useShot()
const desk = useDesk()
const clips = useClips()
const points = useClipPoints()
const drawers = useDrawers()
/** Ticks are seen so many seconds about the present picture. */
const NEAR_S = 3
const isSeen = computed(() => drawers.isOpen('followed', false) && !clips.away)

const ways = computed(() => {
  const { one: clip } = clips
  if (!isSeen.value || !clip) return []
  const s = momentUnder(clip, shot.document?.format.fps ?? 24, desk.frame) ?? clip.inS
  return points.all.map(point => {
    const chosen = point.id === points.one?.id
    const seen = point.places.map(({ s: at, sure, ...place }) => ({
      ...map(props.matrix, map(clip.matrix, place)),
      byHand: sure === BY_HAND,
      isNear: Math.abs(at - s) <= NEAR_S,
    }))
    // A long way has a tick for every picture only where one is.
    return { id: point.id, chosen, seen, ticks: seen.filter(tick => tick.byHand || tick.isNear) }
  })
})
const line = (ticks: readonly Point[]) => ticks.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ')

/** A point in the hand: it is followed anew from where it is let go. */
const held = shallowRef<{ readonly id: string; readonly at: Point } | null>(null)
const handles = computed(() =>
  (isSeen.value && shot.mayDraw && !points.following ? points.all : []).flatMap((point): PaperHandle[] => {
    const at = held.value?.id === point.id ? held.value.at : points.seenHere(point)
    if (!at) return []
    return [
      {
        id: point.id,
        name: `${point.name}, followed: drag it where it is`,
        look: point.id === points.one?.id ? 'followed chosen' : 'followed',
        at,
        drag: to => {
          points.chosen = point.id
          held.value = { id: point.id, at: to }
        },
        done: () => letGo(point.id),
        lost: () => (held.value = null),
      },
    ]
  }),
)
function letGo(id: string): void {
  const point = points.all.find(one => one.id === id)
  const at = held.value?.id === id ? held.value.at : null
  held.value = null
  if (point && at) void points.put(point, at)
}

/** The press that puts a point: where the pointer is, or with Enter in the middle of the clip. */
const catcher = ref<HTMLElement | null>(null)
watch(
  () => points.asks,
  asks => asks !== null && void nextTick(() => catcher.value?.focus()),
)
const target = computed(() => points.all.find(point => point.id === points.asks) ?? points.asks)
const words = computed(() => (typeof target.value === 'string' ? target.value : target.value?.name))
function put(at: Point): void {
  if (target.value !== null) void points.put(target.value, at)
}
function press(event: PointerEvent): void {
  const back = inverse(props.matrix)
  const box = catcher.value?.getBoundingClientRect()
  if (back && box) put(map(back, { x: event.clientX - box.left, y: event.clientY - box.top }))
}
function middle(): void {
  const { one: clip } = clips
  if (clip) put(map(clip.matrix, { x: clip.widthPx / 2, y: clip.heightPx / 2 }))
}
</script>

<template>
  <svg v-if="ways.length" class="ways" aria-hidden="true">
    <g v-for="way in ways" :key="way.id" :class="{ chosen: way.chosen }">
      <polyline :points="line(way.seen)" />
      <circle
        v-for="(tick, i) in way.ticks"
        :key="i"
        :cx="tick.x"
        :cy="tick.y"
        :r="tick.byHand ? 3.4 : 1.8"
        :class="{ hand: tick.byHand }"
      />
    </g>
  </svg>
  <PaperHandles :matrix="matrix" :handles="handles" />
  <div
    v-if="points.asks !== null"
    ref="catcher"
    class="catcher"
    tabindex="0"
    role="button"
    :aria-label="`Press where ${words} is, or Enter for the middle of the clip`"
    @pointerdown.prevent="press"
    @keydown.enter.prevent.stop="middle"
    @keydown.esc.prevent.stop="points.asks = null"
  >
    <p>
      Press where <b>{{ words }}</b> is. Escape lets it be.
    </p>
  </div>
</template>

<style scoped>
.ways {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

polyline {
  fill: none;
  stroke: var(--paper);
  stroke-width: 3.5;
  opacity: 0.75;
}

circle {
  fill: var(--soft);
  stroke: var(--paper);
  stroke-width: 0.8;
}

.chosen circle {
  fill: var(--rust);
}

circle.hand {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.4;
}

.catcher {
  position: absolute;
  inset: 0;
  cursor: crosshair;
  touch-action: none;
}

.catcher:focus-visible {
  outline-offset: -3px;
}

.catcher p {
  position: absolute;
  left: 50%;
  top: 16px;
  transform: translateX(-50%);
  padding: 5px 16px;
  border-radius: 8px;
  background: var(--green-wash);
  white-space: nowrap;
  pointer-events: none;
}
</style>
