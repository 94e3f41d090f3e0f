<script setup lang="ts">
import { map, type Matrix, type Point } from '@unhurried/core/geometry'
import { placeOn } from '@unhurried/core/path'
import { computed } from 'vue'
import { useCarried } from '../../../stores/carried.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useDrawers } from '../../../stores/drawers.ts'
import { useShot } from '../../../stores/shot.ts'
import { usePathActs } from '../acts/pathActs.ts'
import PaperHandles, { type PaperHandle } from '../../../shared/PaperHandles.vue'

/**
 * The way of the layer in the hand over the picture, with a dot for every place it has, and two handles that put it elsewhere on the present
 * frame: while its drawer is open, so that nothing stands in the way of drawing otherwise.
 */
const props = defineProps<{ matrix: Matrix }>()
const shot = useShot()
const desk = useDesk()
const carried = useCarried()
const drawers = useDrawers()
const acts = usePathActs()
/** the arm that turns it, as a share of the height of the picture */
const ARM = 0.16
/** A way is shown over so many frames at most. */
const MOST_FRAMES = 600

const isOpen = computed(() => drawers.isOpen('moves', false) && acts.mayMove() && !carried.atRest)
const path = computed(() => (isOpen.value ? acts.now() : null))
const armPx = computed(() => ARM * (shot.document?.format.height ?? 360))

/** Where the pivot lies on every frame, each place once. */
const way = computed(() => {
  const { take } = shot
  if (!path.value || !carried.path || !take) return []
  const { pivot, keys } = path.value
  const seen: { at: Point; isKey: boolean }[] = []
  for (let frame = 0; frame < Math.min(take.length, MOST_FRAMES); frame++) {
    const { x, y } = placeOn(path.value, frame)
    const at = map(props.matrix, { x: pivot.x + x, y: pivot.y + y })
    const last = seen[seen.length - 1]
    const isKey = keys.some(key => key.frame === frame)
    if (!last || last.at.x !== at.x || last.at.y !== at.y) seen.push({ at, isKey })
    else if (isKey) seen[seen.length - 1] = { at, isKey }
  }
  return seen
})
const line = computed(() => way.value.map(({ at }) => `${at.x.toFixed(1)},${at.y.toFixed(1)}`).join(' '))

/** The turn nearest to the one it has that points there. */
function turnTo(from: Point, to: Point, turnRad: number): number {
  const wished = Math.atan2(to.y - from.y, to.x - from.x)
  const full = 2 * Math.PI
  return wished + full * Math.round((turnRad - wished) / full)
}

const handles = computed<PaperHandle[]>(() => {
  if (!path.value) return []
  const { pivot } = path.value
  const { x, y, turnRad } = placeOn(path.value, desk.frame)
  const at = { x: pivot.x + x, y: pivot.y + y }
  const end = { x: at.x + armPx.value * Math.cos(turnRad), y: at.y + armPx.value * Math.sin(turnRad) }
  const own = { done: acts.commitDraft, lost: acts.dropDraft }
  return [
    {
      id: 'place',
      name: `where the layer lies on frame ${desk.frame + 1}: drag it`,
      look: 'path',
      at,
      drag: to => acts.draft({ x: Math.round(to.x - pivot.x) + 0, y: Math.round(to.y - pivot.y) + 0 }),
      ...own,
    },
    {
      id: 'turn',
      name: `how the layer is turned on frame ${desk.frame + 1}: drag it`,
      look: 'path turn',
      at: end,
      drag: to => acts.draft({ turnRad: turnTo(at, to, turnRad) }),
      ...own,
    },
  ]
})
const arm = computed(() => handles.value.map(({ at }) => map(props.matrix, at)))
</script>

<template>
  <svg v-if="handles.length" class="way" aria-hidden="true">
    <polyline v-if="way.length > 1" :points="line" />
    <circle
      v-for="({ at, isKey }, i) in way"
      :key="i"
      :class="{ key: isKey }"
      :cx="at.x"
      :cy="at.y"
      :r="isKey ? 3.5 : 1.6"
    />
    <line v-if="arm[0] && arm[1]" :x1="arm[0].x" :y1="arm[0].y" :x2="arm[1].x" :y2="arm[1].y" />
  </svg>
  <PaperHandles :matrix="matrix" :handles="handles" />
</template>

<style scoped>
.way {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

polyline,
line {
  fill: none;
  stroke: #8a5a86;
  stroke-width: 1;
}

line {
  stroke-dasharray: 3 3;
}

circle {
  fill: #8a5a86;
}

.key {
  fill: var(--paper);
  stroke: #8a5a86;
  stroke-width: 1.6;
}
</style>
