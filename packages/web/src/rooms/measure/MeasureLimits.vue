<script setup lang="ts">
import {
  setThreshold,
  THRESHOLDS,
  thresholdOf,
  thresholdsOf,
  type CheckName,
  type ThresholdName,
} from '@unhurried/core/measure'
import { computed } from 'vue'
import NumberField from '../../shared/NumberField.vue'
import { useShot } from '../../stores/shot.ts'

/** At which values a check begins to speak in this shot: as they come, or as somebody has set them. */
const props = defineProps<{ check: CheckName }>()
const shot = useShot()
const FINE = 1e6
const limits = computed(() => {
  const { document } = shot
  if (!document) return []
  return thresholdsOf(props.check).map(name => {
    const { words, unit, times, is, least, most, why } = THRESHOLDS[name]
    const told = (value: number) => Math.round(value * times * FINE) / FINE
    return {
      ...{ name, words, unit, why, value: told(thresholdOf(document, name)), asItComes: told(is) },
      ...{ least: told(least), most: told(most), isSet: document.thresholds[name] !== undefined },
    }
  })
})
function set(name: ThresholdName, told: number | null): void {
  const { words, times } = THRESHOLDS[name]
  shot.commit(`${words} …`, setThreshold(name, told === null ? null : told / times), { joins: true })
}
const stepOf = (least: number) => (least >= 1 ? 1 : least >= 0.1 ? 0.1 : 0.01)
</script>

<template>
  <section v-if="limits.length" class="limits" aria-label="When it speaks">
    <p v-for="one in limits" :key="one.name" :title="`As it comes, ${one.asItComes} ${one.unit}: ${one.why}`">
      <span class="soft">{{ one.words }}</span>
      <NumberField
        :value="one.value"
        :take="n => set(one.name, n)"
        :least="one.least"
        :most="one.most"
        :step="stepOf(one.least)"
        :disabled="!shot.mayDraw"
        :label="`${one.words}, ${one.unit}`"
      />
      <span class="soft unit">{{ one.unit }}</span>
      <button v-if="one.isSet && shot.mayDraw" class="plain word" @click="set(one.name, null)">
        as it comes: {{ one.asItComes }}
      </button>
    </p>
  </section>
</template>

<style scoped>
.limits {
  padding: 8px 16px 10px;
  border-top: 1px solid var(--rule);
  font-size: 12.5px;
}

p {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 20px;
  align-items: center;
  gap: 2px 6px;
}

.word {
  grid-column: 1 / -1;
  justify-self: end;
  min-height: 24px;
  padding: 0 4px;
  color: var(--green);
  font-size: 12.5px;
}
</style>
