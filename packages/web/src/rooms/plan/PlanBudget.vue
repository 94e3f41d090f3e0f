<script setup lang="ts">
import { counted } from '@unhurried/core/time'
import { budgetOf, holdFrom, totalBudget } from '@unhurried/core/work'
import { computed } from 'vue'
import { useShot } from '../../stores/shot.ts'

/** How much drawing the current take asks for. */
const shot = useShot()
const budgets = computed(() => (shot.document && shot.take ? budgetOf(shot.document, shot.take) : []))
const total = computed(() => totalBudget(budgets.value))
const rest = computed(() => holdFrom(shot.document?.format.fps ?? 24))
const rows = computed(() => [
  ...budgets.value.map(b => ({ name: b.layer.name, ...b })),
  ...(budgets.value.length > 1 ? [{ name: 'altogether', ...total.value }] : []),
])
</script>

<template>
  <section aria-label="Budget of drawings">
    <h2>Budget</h2>
    <p>
      <b class="big">{{ total.drawings }}</b> {{ total.drawings === 1 ? 'drawing' : 'drawings'
      }}<template v-if="total.left"
        >, <b>{{ total.left }}</b> still to draw</template
      ><template v-else-if="total.drawings">, all drawn</template>
    </p>
    <table v-if="total.drawings">
      <thead>
        <tr>
          <th />
          <th>keys</th>
          <th title="breakdowns">brk.</th>
          <th title="inbetweens">inb.</th>
          <th>all</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.name" :class="{ sum: row.name === 'altogether' }">
          <td>{{ row.name }}</td>
          <td>{{ row.byRole.key }}</td>
          <td>{{ row.byRole.breakdown }}</td>
          <td>{{ row.byRole.inbetween }}</td>
          <td>
            <b>{{ row.drawings }}</b>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="soft">Nothing is on the sheet yet: the samples above tell what a length comes to.</p>
    <ul v-if="total.drawings" class="small">
      <li v-if="total.reused">
        {{ counted(total.reused, 'exposure shows', 'exposures show') }} a drawing again, and
        {{ total.reused === 1 ? 'costs' : 'cost' }} nothing
      </li>
      <li v-if="total.held">
        <b>{{ total.held }}</b> held for {{ counted(rest, 'frame') }} or more: one drawing each
      </li>
      <li>
        all on ones: <b>{{ total.onOnes }}</b>, <b>{{ total.onOnes - total.drawings }}</b> more
        <span class="soft">(holds stay held, what is shown again is not drawn again)</span>
      </li>
    </ul>
    <p class="soft small">Backgrounds, references and guides are not counted.</p>
  </section>
</template>

<style scoped>
.big {
  font: 400 24px var(--serif);
}

table {
  width: 100%;
  border-collapse: collapse;
  font-size: 13px;
  margin: 4px 0 8px;
}

th {
  font-weight: 400;
  font-size: 12px;
  color: var(--soft);
  text-align: right;
}

td {
  text-align: right;
  padding: 2px 0;
  border-top: 1px solid var(--rule-faint);
}

td:first-child {
  text-align: left;
}

.sum td {
  border-top-color: var(--ink);
}

ul {
  list-style: none;
  line-height: 1.5;
  margin-bottom: 4px;
}
</style>
