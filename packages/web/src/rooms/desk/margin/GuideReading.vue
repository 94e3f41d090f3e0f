<script setup lang="ts">
import { heldAgainst } from '@unhurried/core/measure'
import { expectedOf, shownOn } from '@unhurried/core/motion'
import { computed } from 'vue'
import { deskOf } from '../../../recipes/table.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useGuides } from '../../../stores/guides.ts'
import { useMeasure } from '../../../stores/measure.ts'

/** The present drawing held against the guide of its layer: what was planned, and what was drawn. */
const desk = useDesk()
const guides = useGuides()
const measure = useMeasure()

const rows = computed(() => {
  const { drawing } = desk
  const here = guides.here.find(({ guide }) => guide.layer === desk.timedLayer)
  const shape = measure.momentsOf(drawing)
  if (!drawing || !here || !shape || shape.open) return []
  const { guide, plan, frame } = here
  const planned = expectedOf(guide.recipe, plan, shownOn(plan, frame))
  const middle = deskOf(guide).middle
  if (!planned.body) return []
  const reading = heldAgainst(planned.body, shape, (middle && planned.marks[middle]) || null)
  if (!reading) return []
  const degrees = reading.turnedRad === null ? null : Math.round((reading.turnedRad * 180) / Math.PI)
  const { stretch, off } = reading
  return [
    {
      words: 'area',
      planned: Math.round(planned.body.area).toLocaleString('en'),
      drawn: `${Math.round(100 * reading.areaShare)} %`,
    },
    { words: 'stretch', planned: stretch.planned.toFixed(2), drawn: stretch.drawn.toFixed(2) },
    ...(degrees === null ? [] : [{ words: 'turned', planned: '0°', drawn: `${degrees}°` }]),
    ...(off ? [{ words: 'middle off', planned: '0 px', drawn: `${Math.round(off.px)} px` }] : []),
  ]
})
</script>

<template>
  <table v-if="rows.length" :aria-label="`Drawing ${desk.drawing?.number} held against its guide`">
    <thead>
      <tr>
        <th>{{ desk.drawing?.number }}</th>
        <th>planned</th>
        <th>drawn</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.words">
        <td>{{ row.words }}</td>
        <td>{{ row.planned }}</td>
        <td>{{ row.drawn }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  margin-top: 6px;
  border-collapse: collapse;
  font-size: 12.5px;
  font-variant-numeric: tabular-nums;
}

th {
  font-weight: 400;
  color: var(--soft);
}

th,
td {
  padding: 1px 0;
  text-align: right;
}

th:first-child,
td:first-child {
  text-align: left;
}
</style>
