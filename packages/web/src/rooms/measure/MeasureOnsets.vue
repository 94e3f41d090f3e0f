<script setup lang="ts">
import { isAnimated, layersInOrder, orderMarks } from '@unhurried/core/document'
import { onsetOf, onsetTable, partsOf, type Onset } from '@unhurried/core/measure'
import { ChevronDown, ChevronUp, GripVertical } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { VueDraggable } from 'vue-draggable-plus'
import { useDesk } from '../../stores/desk.ts'
import { useMeasure } from '../../stores/measure.ts'
import { useShot } from '../../stores/shot.ts'

/** When every marked part sets out, turns and arrives: bars in the order of time, or from what leads to what hangs on it, which is set by dragging. */
const shot = useShot()
const desk = useDesk()
const measure = useMeasure()
const ORDERS = { time: 'in the order of time', parts: 'from root to tip' } as const
const order = ref<keyof typeof ORDERS>('time')
const length = computed(() => shot.take?.length ?? 1)
const layers = computed(() => {
  const { survey } = measure
  if (!survey) return []
  return layersInOrder(survey.document)
    .filter(isAnimated)
    .map(layer => {
      const tracks = partsOf(survey, layer)
      return { layer, onsets: order.value === 'time' ? onsetTable(tracks) : tracks.map(onsetOf) }
    })
    .filter(({ onsets }) => onsets.length > 0)
})
/** Marks have an order among them; the middle of what is drawn stands alone. */
const mayOrder = computed(() => order.value === 'parts' && shot.mayDraw)
function put(layer: string, onsets: readonly Onset[]): void {
  const { document } = shot
  if (!document || !mayOrder.value) return
  shot.commit(
    'parts from root to tip',
    orderMarks(
      document,
      layer,
      onsets.map(one => one.id),
    ),
  )
}
function move(layer: string, onsets: readonly Onset[], from: number, by: 1 | -1): void {
  const next = [...onsets]
  const [one] = next.splice(from, 1)
  if (one) next.splice(from + by, 0, one)
  put(layer, next)
}
const share = (frame: number) => `${(100 * frame) / length.value}%`
const round = (px: number) => Math.round(px * 10) / 10
</script>

<template>
  <section class="tables onsets" aria-label="When parts move">
    <p v-if="layers.length" class="order" role="group" aria-label="Order of the parts">
      <button
        v-for="(words, name) in ORDERS"
        :key="name"
        class="choice"
        :class="{ on: order === name }"
        :aria-pressed="order === name"
        @click="order = name"
      >
        {{ words }}
      </button>
      <span v-if="mayOrder" class="soft"
        >Drag a part by its grip: what leads stands first, and staggering goes down the list.</span
      >
    </p>
    <p v-if="!layers.length" class="soft">
      Once two drawings are there, when each part sets out and arrives is told here: by its marks, or by the middle of
      what is drawn.
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
      <VueDraggable
        tag="tbody"
        :model-value="onsets"
        handle=".grip"
        :animation="150"
        :disabled="!mayOrder"
        @update:model-value="(next: Onset[]) => put(layer.id, next)"
      >
        <tr v-for="(onset, i) in onsets" :key="onset.id">
          <th scope="row">
            <span v-if="mayOrder && onsets.length > 1" class="hold">
              <GripVertical class="grip" :size="14" aria-hidden="true" />
              <button
                class="plain step"
                :disabled="i === 0"
                :aria-label="`${onset.name} nearer to the root`"
                @click="move(layer.id, onsets, i, -1)"
              >
                <ChevronUp :size="13" aria-hidden="true" />
              </button>
              <button
                class="plain step"
                :disabled="i === onsets.length - 1"
                :aria-label="`${onset.name} nearer to the tip`"
                @click="move(layer.id, onsets, i, 1)"
              >
                <ChevronDown :size="13" aria-hidden="true" />
              </button>
            </span>
            {{ onset.name }}
          </th>
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
      </VueDraggable>
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

.order {
  display: flex;
  align-items: center;
  gap: 14px;
  margin-bottom: 4px;
  font-size: 12.5px;
}

.hold {
  display: inline-flex;
  align-items: center;
  vertical-align: middle;
}

.grip {
  color: var(--soft);
  cursor: grab;
}

.step {
  display: inline-grid;
  place-items: center;
  width: 24px;
  min-height: 24px;
  padding: 0;
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
