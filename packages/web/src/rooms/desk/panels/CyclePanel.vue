<script setup lang="ts">
import { find } from '@unhurried/core/document'
import {
  counted,
  cycleEnd,
  drawingAt,
  fitOf,
  fittingPeriods,
  meetAgain,
  periodOf,
  secondsLabel,
} from '@unhurried/core/time'
import { ElInputNumber } from 'element-plus'
import { computed, ref, watch } from 'vue'
import type { Commands } from '../commands.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'

/** Linked cycles: linking what is marked, and the arithmetic of the cycle one stands on. */
const props = defineProps<{ commands: Commands }>()
const shot = useShot()
const desk = useDesk()
const { sheet } = props.commands
const fps = computed(() => shot.document?.format.fps ?? 24)
const turns = ref(4)
const cycle = computed(() => desk.cycle)
const length = computed(() => shot.take?.length ?? 1)
const fit = computed(() => {
  const c = cycle.value
  return c && fitOf(periodOf(c), cycleEnd(c, length.value) - c.from)
})
/** The number of the drawing a cycle shows first when it is entered so many frames in. */
function shows(offset: number): string {
  const id = cycle.value && drawingAt(cycle.value.pattern, offset)
  return String((id && shot.drawing(id)?.number) ?? 'nothing')
}
const enters = computed(() => shows(cycle.value?.offset ?? 0))
const copyAt = ref(1)
watch(
  () => cycle.value?.id,
  () => {
    const c = cycle.value
    if (c) copyAt.value = Math.min(length.value, cycleEnd(c, length.value) + 1)
  },
  { immediate: true },
)
const periods = computed(() => {
  const f = fit.value
  return f && f.remainder ? fittingPeriods(f.frames, f.period).filter(n => n > 1) : []
})
/** When this cycle and each other one stand together again as they began. */
const meetings = computed(() => {
  const c = cycle.value
  if (!c || !shot.take) return []
  return Object.values(shot.take.cycles)
    .filter(other => other.id !== c.id && periodOf(other) !== periodOf(c))
    .map(other => {
      const frames = meetAgain(periodOf(c), periodOf(other))
      const name = (shot.document && find(shot.document.layers, other.layer)?.name) ?? ''
      return { id: other.id, name, period: periodOf(other), frames }
    })
})
const turnsNow = computed({
  get: () => Math.max(1, fit.value?.turns ?? 1),
  set: (n: number | undefined) => {
    const c = cycle.value
    if (c && n) sheet.setCycle(`repeat ${n} times`, { to: c.from + n * periodOf(c) })
  },
})
const offset = computed({
  get: () => cycle.value?.offset ?? 0,
  set: (n: number | undefined) => sheet.setCycle(`enter the cycle at ${n ?? 0}`, { offset: n ?? 0 }),
})
</script>

<template>
  <section aria-label="Linked cycle">
    <h3>linked cycle</h3>
    <template v-if="cycle && fit">
      <p>
        {{ counted(fit.period, 'frame') }}, {{ counted(fit.turns, 'time') }}
        <template v-if="fit.remainder"
          >and <b class="rust">{{ fit.remainder }}</b> over</template
        ><template v-else> exactly</template>
        <span class="soft"> · {{ secondsLabel(fit.frames, fps) }}</span>
      </p>
      <p class="soft small">Change it in any turn: all follow.</p>
      <div class="row">
        <label for="turns">repeat</label>
        <ElInputNumber
          id="turns"
          v-model="turnsNow"
          size="small"
          :min="1"
          :max="500"
          controls-position="right"
          aria-label="Turns of this cycle"
        />
        <button
          class="plain word"
          :disabled="cycle.to === null"
          @click="sheet.setCycle('repeat to the end', { to: null })"
        >
          {{ cycle.to === null ? 'to the end' : 'to the end instead' }}
        </button>
      </div>
      <div class="row words">
        <button class="plain word" title="The whole cycle a frame earlier" @click="sheet.slideWhole(-1)">
          earlier
        </button>
        <button class="plain word" title="The whole cycle a frame later" @click="sheet.slideWhole(1)">later</button>
        <button class="plain word" title="By one turn" @click="sheet.slideWhole(fit.period)">a turn later</button>
      </div>
      <div class="row">
        <button class="plain word" @click="sheet.copyCycleTo(copyAt - 1)">once more from frame</button>
        <ElInputNumber
          v-model="copyAt"
          size="small"
          :min="1"
          :max="length"
          controls-position="right"
          aria-label="Frame where the copy of the cycle begins"
        />
      </div>
      <div class="row">
        <label for="offset">entered</label>
        <ElInputNumber
          id="offset"
          v-model="offset"
          size="small"
          :min="0"
          :max="fit.period - 1"
          controls-position="right"
          aria-label="Frames of the pattern passed over at the start"
        />
        <span class="soft">frames in: shows {{ enters }} first</span>
      </div>
      <div v-if="fit.remainder" class="fits">
        <p class="soft">It would come out even</p>
        <button
          v-if="fit.shorter && cycle.to !== null"
          class="plain word"
          @click="sheet.setCycle('shorter cycle', { to: cycle.from + (fit.shorter ?? 0) })"
        >
          with {{ counted(fit.shorter, 'frame') }}
        </button>
        <button class="plain word" @click="sheet.setCycle('longer cycle', { to: cycle.from + fit.longer })">
          with {{ counted(fit.longer, 'frame') }}
        </button>
        <button
          v-if="fit.turns"
          class="plain word"
          @click="sheet.setCycle('begin later', { from: cycle.from + fit.startLater })"
        >
          beginning {{ fit.startLater }} later, on frame {{ cycle.from + fit.startLater + 1 }}
        </button>
        <button
          v-if="offset !== fit.offsetToEnd"
          class="plain word"
          title="It does not begin with its first drawing then, but ends with its last"
          @click="sheet.setCycle('end on the last drawing', { offset: fit.offsetToEnd })"
        >
          entering at {{ fit.offsetToEnd }}: it shows {{ shows(fit.offsetToEnd) }} first and ends on its last drawing
        </button>
        <p v-if="periods.length" class="soft small">
          {{ periods.join(', ') }} frames would fill these {{ fit.frames }} in whole turns.
        </p>
      </div>
      <p v-for="meeting in meetings" :key="meeting.id" class="small">
        meets the {{ counted(meeting.period, 'frame') }} of {{ meeting.name }} again after <b>{{ meeting.frames }}</b>
        <span class="soft"> ({{ secondsLabel(meeting.frames, fps) }})</span>
      </p>
      <button class="plain word" title="The frames stay as they are, each on its own" @click="sheet.unlink">
        unlink
      </button>
    </template>
    <template v-else>
      <p class="soft small">The marked frames become a pattern that is kept in one place and shown over and over.</p>
      <div class="row">
        <button class="plain word" @click="sheet.link(turns)">link</button>
        <ElInputNumber
          v-model="turns"
          size="small"
          :min="1"
          :max="500"
          controls-position="right"
          aria-label="Turns to link"
        />
        <span class="soft">times</span>
      </div>
      <button class="plain word" @click="sheet.link('end')">link to the end of the shot</button>
    </template>
  </section>
</template>

<style scoped>
.fits {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
}
</style>
