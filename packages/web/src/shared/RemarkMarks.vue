<script setup lang="ts">
import type { Remark } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import { computed } from 'vue'
import { remarkLook } from './remarkLooks.ts'

/** Remarks over a picture: a numbered pin where each is, and its lines, in the look of whoever made them. */
const props = defineProps<{
  /** those that are seen, in the order of their numbers */
  remarks: readonly Remark[]
  all: readonly Remark[]
  /** from pixels of the picture to pixels of the screen */
  place: (at: Point) => Point
}>()
const lineOf = (line: readonly Point[]) =>
  line
    .map(props.place)
    .map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`)
    .join('') + (line.length === 1 ? 'h0.01' : '')
const seen = computed(() =>
  props.remarks.map((remark, i) => ({
    id: remark.id,
    number: i + 1,
    look: remarkLook(props.all, remark.by),
    pin: remark.at && props.place(remark.at),
    lines: remark.sketch.map(lineOf),
  })),
)
</script>

<template>
  <g v-for="one in seen" :key="one.id" class="remark">
    <template v-for="(line, i) in one.lines" :key="i">
      <path :d="line" class="under" />
      <path :d="line" :stroke="one.look.colour" :stroke-dasharray="one.look.dashes ?? undefined" />
    </template>
    <g v-if="one.pin" :transform="`translate(${one.pin.x} ${one.pin.y})`">
      <polygon points="0,0 -7,-10 7,-10" :fill="one.look.colour" />
      <rect x="-10" y="-29" width="20" height="20" rx="4" :fill="one.look.colour" stroke="none" />
      <text y="-15">{{ one.number }}</text>
    </g>
  </g>
</template>

<style scoped>
path {
  fill: none;
  stroke-width: 2.5;
  stroke-linecap: round;
  stroke-linejoin: round;
}

path.under {
  stroke: #fdfaf3;
  stroke-width: 5;
  opacity: 0.75;
}

text {
  fill: #fff;
  font: 700 12.5px var(--sans);
  text-anchor: middle;
}
</style>
