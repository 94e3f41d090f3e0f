<script setup lang="ts">
import { CHECK_NAMES, CHECKS } from '@unhurried/core/measure'
import { computed, nextTick, onUnmounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import KeySheet from '../../shared/KeySheet.vue'
import { useKeys } from '../../keys/listen.ts'
import { useDelivered } from '../../stores/delivered.ts'
import { useDesk } from '../../stores/desk.ts'
import { useShot } from '../../stores/shot.ts'
import { useMeasureCommands } from './commands.ts'
import MeasureChecks from './MeasureChecks.vue'
import MeasureFindings from './MeasureFindings.vue'
import MeasurePicture from './MeasurePicture.vue'
import MeasurePlot from './MeasurePlot.vue'
import MeasureReport from './MeasureReport.vue'
import { useMeasuring } from './useMeasuring.ts'
import { VIEWS } from './views.ts'

/** Every judgement as a figure, with its place: what is asked of the shot, what was measured, and what was found. */
const shot = useShot()
const desk = useDesk()
const router = useRouter()
const measuring = useMeasuring()
onUnmounted(useDelivered().want())
const keysShown = ref(false)
/** what goes onto paper is only made when it does */
const printing = ref(false)
async function print(): Promise<void> {
  printing.value = true
  await nextTick()
  window.print()
  printing.value = false
}
const findings = ref<InstanceType<typeof MeasureFindings> | null>(null)
const commands = useMeasureCommands({
  measuring,
  accept: () => void findings.value?.ask(),
  openDesk: () => void router.push({ name: 'desk', params: { shot: shot.id }, query: { frame: desk.frame + 1 } }),
  print,
  showKeys: () => (keysShown.value = true),
})
useKeys(commands.commands)
/** The check whose figures are plotted: the chosen one, or that of the finding that is looked at. */
const plotted = computed(() => measuring.check.value ?? measuring.one.value?.check ?? CHECK_NAMES[0] ?? 'volume')
const view = computed(() => CHECKS[plotted.value].view)
</script>

<template>
  <div class="measure">
    <MeasureChecks :measuring="measuring" @print="print" />
    <main class="middle" aria-label="Measure">
      <MeasurePicture :found="measuring.one.value" />
      <component :is="VIEWS[view]" v-if="view" />
      <MeasurePlot v-else :check="plotted" :found="measuring.list.value" :looked="measuring.one.value" />
    </main>
    <MeasureFindings ref="findings" :measuring="measuring" :keys-of="commands.keysOf" />
    <MeasureReport v-if="printing" :measuring="measuring" />
    <KeySheet v-model="keysShown" :commands="commands.commands" />
  </div>
</template>

<style scoped>
.measure {
  display: grid;
  grid-template-columns: 204px minmax(0, 1fr) 300px;
  min-height: 0;
}

/* Where it is narrow, or low, the findings lie under the picture, and all of it is gone through by scrolling. */
@media (width < 900px) {
  .measure {
    grid-template-columns: 176px minmax(0, 1fr);
    grid-template-rows: minmax(420px, 1fr) minmax(200px, auto);
    overflow: auto;
  }

  .measure > :nth-child(3) {
    grid-column: 1 / -1;
    border-top: 1px solid var(--rule);
  }
}

.middle {
  display: grid;
  grid-template-rows: minmax(0, 1fr) minmax(190px, 34%);
  min-width: 0;
  min-height: 0;
}

@media print {
  .measure {
    display: block;
    overflow: visible;
  }

  .measure > :not(.report) {
    display: none;
  }
}
</style>
