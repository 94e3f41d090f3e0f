<script setup lang="ts">
import { after, fitPoints, map, type Matrix, type Point } from '@unhurried/core/geometry'
import { heightLine } from '@unhurried/core/models'
import { computed } from 'vue'
import BitmapView from '../sheets/BitmapView.vue'
import { useModels } from '../../../stores/models.ts'
import { useStands } from '../../../stores/stands.ts'
import PaperHandles, { type PaperHandle } from '../../../shared/PaperHandles.vue'

/** A side of a model sheet over the drawing, scaled and turned between two points that are dragged where they belong; its heights as lines. */
const props = defineProps<{ matrix: Matrix }>()
const models = useModels()
const stands = useStands()
const laid = computed(() => {
  const { over } = stands
  const model = models.all.find(one => one.id === over?.model)?.model
  const shownSide = stands.all.find(one => one.of === 'model' && one.id === over?.model)?.side
  const view =
    model?.views.find(one => one.id === (shownSide || over?.side)) ??
    model?.views.find(one => one.id === over?.side) ??
    model?.views[0]
  if (!over || !model || !view) return null
  void models.come
  const onto = fitPoints([view.low, view.high], [over.low, over.high])
  return (
    onto && { over, model, view, matrix: after(onto.matrix, props.matrix), bitmap: models.picture(view, model.name) }
  )
})
const style = computed(() => {
  const one = laid.value
  if (!one) return {}
  return {
    width: `${one.view.widthPx}px`,
    height: `${one.view.heightPx}px`,
    transform: `matrix(${one.matrix.join(', ')})`,
    opacity: one.over.strength,
  }
})
const lines = computed(() => {
  const one = laid.value
  if (!one) return []
  const { low, high } = one.over
  return one.model.heights.flatMap(({ id, name, share }) => {
    const line = heightLine(low, high, share, 20_000)
    if (!line) return []
    const [from, to] = line.map(point => map(props.matrix, point)) as [Point, Point]
    const at = map(props.matrix, { x: low.x + share * (high.x - low.x), y: low.y + share * (high.y - low.y) })
    return [{ id, name, from, to, at }]
  })
})
const handles = computed<PaperHandle[]>(() => {
  const { over } = stands
  if (!over || !laid.value) return []
  const name = laid.value.model.name
  const rounded = ({ x, y }: Point) => ({ x: Math.round(x * 10) / 10, y: Math.round(y * 10) / 10 })
  return [
    {
      id: 'low',
      name: `Sole of ${name}`,
      look: 'ground',
      at: over.low,
      drag: to => (stands.over = { ...over, low: rounded(to) }),
    },
    {
      id: 'high',
      name: `Crown of ${name}`,
      look: 'horizon',
      at: over.high,
      drag: to => (stands.over = { ...over, high: rounded(to) }),
    },
  ]
})
</script>

<template>
  <div v-if="laid" class="over">
    <BitmapView
      v-if="laid.bitmap"
      class="side"
      :bitmap="laid.bitmap"
      :width="laid.view.widthPx"
      :style="style"
      aria-hidden="true"
    />
    <svg aria-hidden="true">
      <g v-for="line in lines" :key="line.id">
        <line :x1="line.from.x" :y1="line.from.y" :x2="line.to.x" :y2="line.to.y" />
        <text :x="line.at.x + 8" :y="line.at.y - 4">{{ line.name }}</text>
      </g>
    </svg>
    <PaperHandles :matrix="matrix" :handles="handles" />
  </div>
</template>

<style scoped>
.over,
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: hidden;
  pointer-events: none;
}

canvas.side {
  max-width: none;
  border: 0;
  position: absolute;
  left: 0;
  top: 0;
  transform-origin: 0 0;
}

line {
  stroke: var(--rust);
  stroke-width: 1;
  stroke-dasharray: 9 4;
  opacity: 0.8;
}

text {
  fill: var(--rust);
  font-size: 11.5px;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
</style>
