<script setup lang="ts">
import { isAnimated, layersInOrder } from '@unhurried/core/document'
import { partGrid, type PartGrid, type PartKind } from '@unhurried/core/measure'
import { computed, ref } from 'vue'
import { useInSight } from '../../shared/inSight.ts'
import { useDesk } from '../../stores/desk.ts'
import { useShot } from '../../stores/shot.ts'

/** Which parts are there on which drawings: a press leads to the drawing. */
const shot = useShot()
const desk = useDesk()
const KINDS: Readonly<Record<PartKind, string>> = { layer: 'along', mark: 'mark', label: 'limbs', colour: 'colour' }
const grids = computed<PartGrid[]>(() => {
  const { document, take } = shot
  if (!document || !take) return []
  return layersInOrder(document)
    .filter(isAnimated)
    .map(layer => partGrid(document, take, layer))
    .filter(grid => grid.drawings.length > 0 && grid.rows.length > 0)
})
const box = ref<HTMLElement | null>(null)
// The layer that a finding is about comes into sight.
useInSight(
  box,
  () => desk.layerId,
  () => `[data-layer="${CSS.escape(desk.layerId)}"]`,
)
const count = (there: readonly boolean[]) => there.filter(Boolean).length
function go(grid: PartGrid, i: number): void {
  const shown = grid.drawings[i]
  if (!shown) return
  desk.layerId = grid.layer.id
  desk.goTo(shown.from)
}
const isHere = (grid: PartGrid, i: number) => {
  const shown = grid.drawings[i]
  return shown && grid.layer.id === desk.layerId && desk.frame >= shown.from && desk.frame < shown.to
}
</script>

<template>
  <section ref="box" class="tables parts" aria-label="Parts and drawings">
    <p v-if="!grids.length" class="soft none">
      Once something is drawn, its colours, marks, limbs and the layers that go along with it are told here.
    </p>
    <table v-for="grid in grids" :key="grid.layer.id" :data-layer="grid.layer.id">
      <caption>
        {{
          grid.layer.name
        }}
      </caption>
      <thead>
        <tr>
          <th scope="col">part</th>
          <th scope="col">on</th>
          <th
            v-for="(shown, i) in grid.drawings"
            :key="shown.drawing.id"
            scope="col"
            :class="{ here: isHere(grid, i) }"
          >
            <button
              class="plain"
              :class="shown.drawing.role"
              :aria-label="`go to drawing ${shown.drawing.number}, frame ${shown.from + 1}`"
              @click="go(grid, i)"
            >
              {{ shown.drawing.number }}
            </button>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in grid.rows" :key="`${row.kind} ${row.id}`">
          <th scope="row">
            {{ row.name }} <span class="soft kind">{{ KINDS[row.kind] }}</span>
          </th>
          <td>{{ count(row.there) }}</td>
          <td
            v-for="(there, i) in row.there"
            :key="i"
            class="cell"
            :class="{ here: isHere(grid, i) }"
            @click="go(grid, i)"
          >
            <span v-if="there" class="dot" /><span class="hush">{{ there ? 'there' : 'not there' }}</span>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped src="./tables.css"></style>
<style scoped>
.tables {
  padding-left: 0;
}

th,
td {
  padding: 1px 8px 1px 0;
}

thead button {
  min-width: 26px;
  padding: 2px 0;
  text-align: center;
  font-size: 12px;
}

/* Roles as on the sheet: keys ringed, breakdowns underlined. */
.key {
  border-radius: 999px;
  box-shadow: inset 0 0 0 1px var(--ink);
  color: var(--ink);
}

.breakdown {
  text-decoration: underline;
  text-underline-offset: 3px;
}

caption,
th:first-child {
  padding-left: 16px;
}

tbody th {
  position: sticky;
  left: 0;
  background: var(--edge);
}

.none {
  padding-left: 16px;
}

.kind {
  font-size: 11.5px;
}

.cell {
  min-width: 26px;
  height: 24px;
  padding: 0;
  border: 1px solid var(--rule-faint);
  text-align: center;
  cursor: pointer;
}

.here {
  background: var(--mark);
}

.dot {
  display: inline-block;
  width: 9px;
  height: 9px;
  border-radius: 50%;
  background: var(--ink);
  vertical-align: middle;
}
</style>
