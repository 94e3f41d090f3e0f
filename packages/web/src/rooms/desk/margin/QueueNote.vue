<script setup lang="ts">
import { countDrawings } from '@unhurried/core/work'
import { isAnimated } from '@unhurried/core/document'
import type { Ratio } from '@unhurried/core/chart'
import { counted } from '@unhurried/core/time'
import { computed } from 'vue'
import type { Commands } from '../commands.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'
import SheetNumber from './SheetNumber.vue'

const props = defineProps<{ commands: Commands }>()
const shot = useShot()
const desk = useDesk()
const WORDS: Record<Ratio, readonly [before: string, between: string]> = {
  '1/2': ['half-way between', 'and'],
  '1/3': ['a third of the way from', 'to'],
  '2/3': ['two thirds of the way from', 'to'],
  '9/8': ['past the end of the way from', 'to'],
  '5/4': ['far past the end of the way from', 'to'],
}
const next = computed(() => desk.queue[0] ?? null)
const words = computed<readonly [string, string]>(() => {
  const item = next.value
  if (item?.place && item.right) return WORDS[item.place.ratio]
  if (item?.left && item.right) return ['between', 'and']
  return item?.right ? ['', 'before'] : ['after', '']
})
/** Why this one: where what leads is fastest, whatever trails is stretched most. */
const why = computed(() => {
  const sure = next.value?.sure
  if (!sure) return ''
  const goes = `${sure.leads} goes ${Math.round(sure.speed * 10) / 10} px a frame`
  return sure.apart === 0
    ? `${goes}: the fastest of all`
    : `${goes}, ${counted(sure.apart, 'drawing')} from the fastest`
})
const later = computed(() => desk.queue.slice(1, 4))
const hasCharts = computed(() => Object.keys(shot.document?.charts ?? {}).length > 0)
/** several drawings are there, and none waits */
const hasDrawings = computed(() =>
  shot.document && shot.take ? countDrawings(shot.document, shot.take).drawn > 2 : false,
)
const severalLayers = computed(() => Object.values(shot.document?.layers ?? {}).filter(isAnimated).length > 1)
const run = (id: string) => props.commands.get(id).run()
</script>

<template>
  <div>
    <button
      v-if="next"
      class="next"
      :title="commands.tip('next', 'Go there, with what it is drawn from on the light table')"
      @click="run('next')"
    >
      <span
        ><b><SheetNumber :number="next.drawing.number" :role="next.drawing.role" /></b
        ><template v-if="next.left || next.right"
          >, {{ words[0] }} <SheetNumber v-if="next.left" :number="next.left.number" :role="next.left.role" />
          {{ words[1] }}
          <SheetNumber v-if="next.right" :number="next.right.number" :role="next.right.role" /></template
      ></span>
      <span v-if="why" class="soft why">{{ why }}</span>
      <span class="then">
        <span v-if="later.length" class="soft">then {{ later.map(item => item.drawing.number).join(', then ') }}</span>
        <kbd v-if="commands.keysOf('next')">{{ commands.keysOf('next') }}</kbd>
      </span>
    </button>
    <p v-else-if="hasCharts || hasDrawings" class="soft">All that is on the sheet is drawn.</p>
    <p v-else class="soft">
      Draw two keys, choose a spacing on the rail above, and press <i>make the drawings</i>: what to draw next is then
      told here.
    </p>
    <div v-if="next" class="row">
      <button class="plain" :title="commands.tip('skip', 'Leave it out for now')" @click="run('skip')">skip</button>
      <button
        class="plain"
        :title="commands.tip('defer', 'Put it at the end')"
        :disabled="desk.queue.length < 2"
        @click="run('defer')"
      >
        later
      </button>
      <button
        v-if="severalLayers || desk.queueOfLayer"
        class="plain"
        role="switch"
        :aria-checked="desk.queueOfLayer"
        title="Ask for one layer or for all"
        @click="desk.queueOfLayer = !desk.queueOfLayer"
      >
        {{ desk.queueOfLayer ? 'this layer' : 'all layers' }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.next {
  display: block;
  width: 100%;
  margin-top: 3px;
  padding: 9px 11px;
  border: 0;
  border-radius: 8px;
  background: var(--green-wash);
  text-align: left;
  line-height: 1.55;
  cursor: pointer;
}

.next:hover {
  background: var(--green-wash);
}

.next b {
  color: var(--green);
}

.then {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
}

.row {
  display: flex;
  gap: 8px;
  margin: 4px 0 0 -4px;
  font-size: 12.5px;
}

.row .plain {
  color: var(--green);
}

p {
  margin-top: 5px;
  font-size: 13px;
}
</style>
