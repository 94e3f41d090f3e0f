<script setup lang="ts">
import { isAnimated, layersInOrder } from '@unhurried/core/document'
import { onsetTable, tracksOfMarks } from '@unhurried/core/measure'
import { computed } from 'vue'
import { useDesk } from '../../stores/desk.ts'
import { useShot } from '../../stores/shot.ts'

/** When every marked part sets out, turns and arrives: bars in the order of time. */
const shot = useShot()
const desk = useDesk()
const length = computed(() => shot.take?.length ?? 1)
const layers = computed(() => {
  const { document, take } = shot
  if (!document || !take) return []
  return layersInOrder(document)
    .filter(isAnimated)
    .map(layer => ({ layer, onsets: onsetTable(tracksOfMarks(document, take, layer.id)) }))
    .filter(({ onsets }) => onsets.length > 0)
})
const share = (frame: number) => `${(100 * frame) / length.value}%`
const round = (px: number) => Math.round(px * 10) / 10
</script>

<template>
  <section class="tables onsets" aria-label="When parts move">
    <p v-if="!layers.length" class="soft">
      Place marks on the drawings, and when each part sets out and arrives is told here.
    </p>
    <table v-for="{ layer, onsets } in layers" :key="layer.id">
      <caption>
        {{
          layer.name
        }}
      </caption>
      <thead>
        <tr>
          <th scope="col">part</th>
          <th scope="col">sets out</th>
          <th scope="col">turns</th>
          <th scope="col">arrives</th>
          <th scope="col">fastest</th>
          <th scope="col" class="wide"><span class="hush">over the frames</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="onset in onsets" :key="onset.id">
          <th scope="row">{{ onset.name }}</th>
          <td>{{ onset.starts === null ? '–' : onset.starts + 1 }}</td>
          <td>{{ onset.turns.map(frame => frame + 1).join(', ') || '–' }}</td>
          <td>{{ onset.stops === null ? 'still' : onset.stops + 1 }}</td>
          <td>{{ round(onset.fastest) }} px/f</td>
          <td class="wide">
            <span class="lane">
              <span class="now" :style="{ left: share(desk.frame) }" />
              <button
                v-if="onset.starts !== null && onset.stops !== null"
                class="bar"
                :style="{ left: share(onset.starts), width: share(onset.stops - onset.starts + 1) }"
                :aria-label="`${onset.name}: go to frame ${onset.starts + 1}, where it sets out`"
                @click="desk.goTo(onset.starts as number)"
              />
              <span v-for="frame in onset.turns" :key="frame" class="turn" :style="{ left: share(frame) }" />
            </span>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped src="./tables.css"></style>
<style scoped>
table {
  width: 100%;
}

th,
td {
  padding: 2px 10px 2px 0;
}

.wide {
  width: 60%;
}

.lane {
  position: relative;
  display: block;
  height: 24px;
  background: var(--paper);
  border-bottom: 1px solid var(--rule-faint);
}

.bar {
  position: absolute;
  inset-block: 5px;
  min-width: 6px;
  padding: 0;
  border: 0;
  border-radius: 3px;
  background: var(--past);
  cursor: pointer;
}

.turn {
  position: absolute;
  inset-block: 3px;
  width: 2px;
  background: var(--ink);
}

.now {
  position: absolute;
  inset-block: 0;
  width: 2px;
  background: var(--green);
}
</style>
