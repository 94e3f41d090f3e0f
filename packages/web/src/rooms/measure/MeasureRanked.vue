<script setup lang="ts">
import { attentionOf } from '@unhurried/core/measure'
import { secondsOf } from '@unhurried/core/time'
import { computed } from 'vue'
import { useDesk } from '../../stores/desk.ts'
import { useMeasure } from '../../stores/measure.ts'
import { useShot } from '../../stores/shot.ts'
import { numberOfDrawing } from './numbers.ts'

/** How long and how slowly every drawing is seen, the longest and slowest first: there work pays. A press leads to the drawing. */
const shot = useShot()
const desk = useDesk()
const measure = useMeasure()
const ranked = computed(() => (measure.survey ? attentionOf(measure.survey) : []))
const fps = computed(() => shot.document?.format.fps ?? 24)
const most = computed(() => ranked.value[0]?.share ?? 1)
const share = (of: number) => `${Math.round(100 * of)} %`
const round = (px: number) => Math.round(px * 10) / 10
function go(layer: string, frame: number): void {
  desk.layerId = layer
  desk.goTo(frame)
}
</script>

<template>
  <section class="tables ranked" aria-label="How well drawings are seen">
    <p v-if="!ranked.length" class="soft">
      Once drawings are exposed, those that are seen longest and slowest lead here.
    </p>
    <table v-else>
      <thead>
        <tr>
          <th scope="col">drawing</th>
          <th scope="col">layer</th>
          <th scope="col">seen for</th>
          <th scope="col">goes</th>
          <th scope="col">of all attention</th>
          <th scope="col" class="wide"><span class="hush">as a bar</span></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="one in ranked"
          :key="`${one.layer} ${one.drawing}`"
          :class="{ here: one.drawing === desk.drawing?.id }"
        >
          <th scope="row">
            <button
              class="plain"
              :aria-label="`go to drawing ${numberOfDrawing(shot.document, one.drawing)}, frame ${one.frame + 1}`"
              @click="go(one.layer, one.frame)"
            >
              {{ numberOfDrawing(shot.document, one.drawing) }}
            </button>
          </th>
          <td class="soft">{{ shot.document?.layers[one.layer]?.name }}</td>
          <td>{{ one.frames }} f · {{ secondsOf(one.frames, fps).toFixed(2) }} s</td>
          <td>{{ one.pxPerFrame < 0.05 ? 'rests' : `${round(one.pxPerFrame)} px/f` }}</td>
          <td>{{ share(one.share) }}</td>
          <td class="wide"><span class="bar" :style="{ width: `${(100 * one.share) / most}%` }" /></td>
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
  padding: 1px 10px 1px 0;
}

.plain {
  min-width: 32px;
  min-height: 24px;
  padding: 0 6px;
}

.here {
  background: var(--green-wash);
}

.wide {
  width: 45%;
}

.bar {
  display: block;
  height: 9px;
  border-radius: 3px;
  background: var(--past);
}
</style>
