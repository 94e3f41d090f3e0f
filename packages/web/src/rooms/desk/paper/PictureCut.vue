<script setup lang="ts">
import { after, IDENTITY, map, type Box, type Matrix, type Point } from '@unhurried/core/geometry'
import { computed, onBeforeUnmount, shallowRef } from 'vue'
import PaperHandles, { type PaperHandle } from '../../../shared/PaperHandles.vue'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import type { StrokeActs } from '../acts/strokeActs.ts'

/** The one gathered picture, cut by its sides: each is dragged, or moved with the arrow keys, within the picture. */
const props = defineProps<{ matrix: Matrix; strokes: StrokeActs }>()
const desk = useDesk()
const kit = useKit()
onBeforeUnmount(() => (kit.cutting = false))
const picture = computed(() => {
  const [id, other] = [...kit.gathered]
  const one = id === undefined || other !== undefined ? undefined : desk.drawing?.elements[id]
  return one?.kind === 'picture' ? one : null
})
const through = computed(() => after(picture.value?.matrix ?? IDENTITY, props.matrix))
const whole = computed<Box>(() => ({
  left: 0,
  top: 0,
  right: picture.value?.widthPx ?? 1,
  bottom: picture.value?.heightPx ?? 1,
}))
/** what is in the hand, until it is let go */
const held = shallowRef<Box | null>(null)
const now = computed<Box>(() => held.value ?? picture.value?.cut ?? whole.value)
const corners = computed(() => {
  const { left, top, right, bottom } = now.value
  return [
    { x: left, y: top },
    { x: right, y: top },
    { x: right, y: bottom },
    { x: left, y: bottom },
  ].map(corner => map(through.value, corner))
})
const SIDES = {
  left: { across: 'x', name: 'Left side of the picture' },
  right: { across: 'x', name: 'Right side of the picture' },
  top: { across: 'y', name: 'Upper side of the picture' },
  bottom: { across: 'y', name: 'Lower side of the picture' },
} as const
type Side = keyof typeof SIDES
function drag(side: Side, to: Point): void {
  const all = whole.value
  const at = to[SIDES[side].across]
  const [least, most] =
    side === 'left'
      ? [0, now.value.right - 1]
      : side === 'right'
        ? [now.value.left + 1, all.right]
        : side === 'top'
          ? [0, now.value.bottom - 1]
          : [now.value.top + 1, all.bottom]
  held.value = { ...now.value, [side]: Math.max(least, Math.min(most, at)) }
}
function letGo(): void {
  const cut = held.value
  held.value = null
  if (!cut) return
  const isAll = (Object.keys(SIDES) as Side[]).every(side => cut[side] === whole.value[side])
  props.strokes.cutTo(() => (isAll ? null : cut))
}
const handles = computed<PaperHandle[]>(() => {
  if (!picture.value) return []
  const { left, top, right, bottom } = now.value
  const [x, y] = [(left + right) / 2, (top + bottom) / 2]
  const at: Record<Side, Point> = {
    left: { x: left, y },
    right: { x: right, y },
    top: { x, y: top },
    bottom: { x, y: bottom },
  }
  return (Object.keys(SIDES) as Side[]).map(side => ({
    id: side,
    name: SIDES[side].name,
    look: 'guide',
    at: at[side],
    drag: to => drag(side, to),
    done: letGo,
    lost: () => (held.value = null),
  }))
})
</script>

<template>
  <svg v-if="picture" class="frame" aria-hidden="true">
    <polygon :points="corners.map(({ x, y }) => `${x},${y}`).join(' ')" />
  </svg>
  <PaperHandles :matrix="through" :handles="handles" />
</template>

<style scoped>
.frame {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

polygon {
  fill: none;
  stroke: var(--green);
  stroke-width: 1.4;
  stroke-dasharray: 6 3;
}
</style>
