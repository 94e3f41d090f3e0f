<script setup lang="ts">
import { marksOf, type Guide } from '@unhurried/core/document'
import { distance } from '@unhurried/core/geometry'
import { heldAgainst, nthPlanned } from '@unhurried/core/measure'
import { expectedOf, shownOn } from '@unhurried/core/motion'
import { computed } from 'vue'
import { deskOf } from '../../../recipes/table.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useGuides } from '../../../stores/guides.ts'
import { useMeasure } from '../../../stores/measure.ts'
import { useShot } from '../../../stores/shot.ts'

/** The present drawing held against a guide of its layer: what was planned, and what was drawn. */
const props = defineProps<{ guide: Guide }>()
const desk = useDesk()
const guides = useGuides()
const measure = useMeasure()
const shot = useShot()

/** A mark that lies nearer to its place is not told. */
const TOLD_FROM_PX = 1
interface Row {
  readonly words: string
  readonly planned: string
  readonly drawn: string
}

const held = computed(() => {
  const { drawing } = desk
  const here = guides.here.find(({ guide }) => guide.id === props.guide.id && guide.layer === desk.timedLayer)
  if (!drawing || !here) return null
  const { guide, plan, frame } = here
  const nth = nthPlanned(guide, plan, drawing.id, guide.from + frame)
  if (nth === null) return null
  return { drawing, guide, plan, frame, nth, planned: expectedOf(guide.recipe, plan, nth) }
})

/** Its silhouette against the planned one. */
const body = computed<Row[]>(() => {
  if (!held.value) return []
  const { drawing, guide, planned } = held.value
  const shape = measure.momentsOf(drawing)
  if (!planned.body || !shape || shape.open) return []
  const middle = deskOf(guide).middle
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

/** Its marks against their places, and what stands against the ground it was set down on. */
const marks = computed<Row[]>(() => {
  const { document } = shot
  if (!held.value || !document) return []
  const { drawing, guide, planned } = held.value
  return marksOf(document, guide.layer).flatMap(({ id, name }): Row[] => {
    const [place, wished] = [drawing.marks[id], planned.marks[name]]
    if (!place || !wished) return []
    const ground = place.planted ? measure.grounds.find(one => one.mark.id === id) : undefined
    const slip = ground?.at ? distance(ground.at, ground.anchor) : null
    const off = distance(place, wished)
    return [
      ...(slip === null ? [] : [{ words: `${name} slips`, planned: '0 px', drawn: `${Math.round(slip)} px` }]),
      ...(off < TOLD_FROM_PX ? [] : [{ words: `${name} off`, planned: '0 px', drawn: `${Math.round(off)} px` }]),
    ]
  })
})

/** A drawing with a name of its own belongs on its frame. */
const onFrame = computed<Row[]>(() => {
  if (!held.value) return []
  const { guide, plan, frame, nth } = held.value
  const planned = plan.drawings[nth]
  if (!planned?.name || shownOn(plan, frame) === nth) return []
  return [{ words: planned.name, planned: `${guide.from + planned.frame + 1}`, drawn: `${desk.frame + 1}` }]
})
const rows = computed(() => [...body.value, ...marks.value, ...onFrame.value])
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
