<script setup lang="ts">
import { CHECKS, type Found, type Series } from '@unhurried/core/measure'
import { counted, secondsLabel } from '@unhurried/core/time'
import { computed } from 'vue'
import { SEVERITY_SIGNS } from '../../shared/severities.ts'
import { useMeasure } from '../../stores/measure.ts'
import { useShot } from '../../stores/shot.ts'
import type { Measuring } from './useMeasuring.ts'
import { VIEWS } from './views.ts'

/** All that is asked of the shot, what came of it and what was measured, on paper. */
const props = defineProps<{ measuring: Measuring }>()
const shot = useShot()
const measure = useMeasure()
const VIEW_WORDS: Readonly<Record<keyof typeof VIEWS, string>> = {
  onsets: 'when each part moves',
  parts: 'which parts are on which drawings',
  ranked: 'how long and how slowly each drawing is seen',
}
const frames = computed(() => shot.take?.length ?? 0)
const fps = computed(() => shot.document?.format.fps ?? 24)
const where = ({ layer, from, to }: Found) => {
  const name = layer === null ? 'the picture' : (shot.document?.layers[layer]?.name ?? '')
  return { name, frames: to - from > 1 ? `${from + 1}–${to}` : `${from + 1}` }
}
const round = (n: number) => Math.round(n * 10) / 10
/** One series in three numbers. */
function summed({ values }: Series) {
  const all = values.map(one => one.value).sort((a, b) => a - b)
  const at = (share: number) => round(all[Math.round(share * (all.length - 1))] ?? 0)
  return [at(0), at(0.5), at(1)]
}
const checks = computed(() =>
  props.measuring.asked.value.map(state => ({
    ...state,
    found: measure.found.filter(one => one.check === state.name),
    series: measure.survey && !state.silent ? (CHECKS[state.name].series?.(measure.survey) ?? []) : [],
  })),
)
</script>

<template>
  <article class="report">
    <h1>{{ shot.name }}</h1>
    <p>
      {{ shot.filmName }} · {{ shot.take?.name }} · {{ counted(frames, 'frame') }} at {{ fps }},
      {{ secondsLabel(frames, fps) }} · {{ counted(measure.open.length, 'finding') }}, {{ measure.meant.size }} meant so
    </p>
    <section v-for="check in checks" :key="check.name">
      <h2>{{ check.words }}</h2>
      <p>{{ check.asks }} {{ check.silent || (check.found.length ? '' : 'Nothing found.') }}</p>
      <table v-if="check.found.length">
        <tr v-for="(one, i) in check.found" :key="i">
          <td>{{ where(one).frames }}</td>
          <td>{{ where(one).name }}</td>
          <td>
            {{ one.words }}
            <em v-if="measure.meant.has(one)">
              meant so{{ measure.meant.get(one)?.reason ? `: ${measure.meant.get(one)?.reason}` : '' }}
            </em>
          </td>
          <td>{{ SEVERITY_SIGNS[one.severity].words }}</td>
        </tr>
      </table>
      <table v-if="check.series.length" class="figures">
        <tr>
          <th>measured</th>
          <th>least</th>
          <th>middle</th>
          <th>most</th>
          <th></th>
        </tr>
        <tr v-for="(one, i) in check.series" :key="i">
          <td>{{ one.name }}</td>
          <td v-for="(value, k) in summed(one)" :key="k">{{ value }}</td>
          <td>{{ one.unit }}</td>
        </tr>
      </table>
    </section>
    <section v-for="(view, name) in VIEWS" :key="name">
      <h2>{{ VIEW_WORDS[name] }}</h2>
      <component :is="view" />
    </section>
    <p v-if="measuring.unasked.value.length">
      Not asked of this shot: {{ measuring.unasked.value.map(one => one.words).join(', ') }}.
    </p>
  </article>
</template>

<style scoped>
.report {
  display: none;
}

@media print {
  .report {
    display: block;
    color: #000;
    background: #fff;
    font-size: 10.5pt;
  }

  h1 {
    font: 500 20pt var(--serif);
  }

  h2 {
    margin-top: 12pt;
    font: 500 13pt var(--serif);
    break-after: avoid;
  }

  tr {
    break-inside: avoid;
  }

  table {
    width: 100%;
    border-collapse: collapse;
  }

  td,
  th {
    padding: 2pt 8pt 2pt 0;
    border-top: 0.5pt solid #999;
    text-align: left;
    vertical-align: top;
    font-weight: 400;
  }

  /* The tables of the room, without what is pressed there. */
  .report :deep(.tables) {
    print-color-adjust: exact;
    padding: 0;
    overflow: visible;
    background: none;
    border: 0;
    font-size: 9.5pt;
  }

  .report :deep(.tables :is(.order, .soft:only-child, svg)) {
    display: none;
  }

  .figures {
    width: auto;
    color: #444;
  }
}
</style>
