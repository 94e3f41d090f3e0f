<script setup lang="ts">
import type { Matrix, Point } from '@unhurried/core/geometry'
import { computed } from 'vue'
import { useSight } from '../../../stores/sight.ts'
import PaperHandles, { type PaperHandle } from '../../../shared/PaperHandles.vue'

/** Handles to drag the horizon and the ground by, at the edge of the paper, and arcs by their ends and their top. */
defineProps<{ matrix: Matrix }>()
const sight = useSight()

const levels = computed(() =>
  (['horizon', 'ground'] as const).flatMap((name): PaperHandle[] => {
    const y = sight.aids[name]
    const drag = (to: Point) => (sight.aids = { ...sight.aids, [name]: Math.round(to.y) })
    return y === null ? [] : [{ id: name, name: `${name}: drag it`, look: `level ${name}`, at: { x: 0, y }, drag }]
  }),
)
const arcs = computed(() =>
  sight.aids.arcs.flatMap((arc, i) =>
    arc.map((at, j): PaperHandle => {
      const drag = ({ x, y }: Point) => {
        const moved = arc.map((p, k) => (k === j ? { x: Math.round(x), y: Math.round(y) } : p))
        sight.aids = { ...sight.aids, arcs: sight.aids.arcs.map((other, k) => (k === i ? moved : other)) }
      }
      const name = `arc ${i + 1}: drag its ${['start', 'top', 'end'][j]}`
      return { id: `${i} ${j}`, name, look: 'arc', at, drag }
    }),
  ),
)
const length = computed(() =>
  (sight.aids.length ?? []).map((at, i): PaperHandle => {
    const drag = ({ x, y }: Point) => {
      const [from, to] = sight.aids.length ?? [at, at]
      const moved = { x: Math.round(x), y: Math.round(y) }
      sight.aids = { ...sight.aids, length: i === 0 ? [moved, to] : [from, moved] }
    }
    return { id: `length ${i}`, name: `length in metres: drag its ${i === 0 ? 'foot' : 'top'}`, look: 'arc', at, drag }
  }),
)
</script>

<template>
  <PaperHandles :matrix="matrix" :handles="[...levels, ...arcs, ...length]" />
</template>
