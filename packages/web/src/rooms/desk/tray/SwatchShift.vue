<script setup lang="ts">
import { shifted, SHIFT_LIMITS, UNSHIFTED, type ColourShift } from '@unhurried/core/colour'
import { shiftSwatches, swatchesInOrder } from '@unhurried/core/document'
import { counted } from '@unhurried/core/time'
import { computed, ref, shallowRef } from 'vue'
import { useShot } from '../../../stores/shot.ts'

/** Several colours shifted together: ticked, lighter or darker, stronger or weaker, further round; seen before and after. */
const shot = useShot()
const chosen = shallowRef<ReadonlySet<string>>(new Set())
const by = ref<{ -readonly [field in keyof ColourShift]: number }>({ ...UNSHIFTED })
const swatches = computed(() => (shot.document ? swatchesInOrder(shot.document) : []))
const FIELDS = [
  { field: 'lightness', words: 'light' },
  { field: 'chroma', words: 'strength' },
  { field: 'hueDeg', words: 'hue' },
] as const
function toggle(id: string): void {
  const next = new Set(chosen.value)
  if (!next.delete(id)) next.add(id)
  chosen.value = next
}
const ops = computed(() => (shot.document ? shiftSwatches(shot.document, [...chosen.value], by.value) : []))
function shift(): void {
  if (ops.value.length === 0 || shot.commit(`shift ${counted(ops.value.length, 'colour')}`, ops.value)) return
  by.value = { ...UNSHIFTED }
}
const inWords = (n: number, field: keyof ColourShift) => `${n > 0 ? '+' : ''}${n}${field === 'hueDeg' ? '°' : ''}`
</script>

<template>
  <section class="shift" aria-label="Shift colours together">
    <p class="chips">
      <button
        v-for="swatch in swatches"
        :key="swatch.id"
        class="plain chip"
        role="checkbox"
        :aria-checked="chosen.has(swatch.id)"
        :aria-label="`Shift ${swatch.name}`"
        :title="swatch.name"
        @click="toggle(swatch.id)"
      >
        <span :style="{ background: swatch.colour }" />
        <span :style="{ background: chosen.has(swatch.id) ? shifted(swatch.colour, by) : swatch.colour }" />
      </button>
    </p>
    <label v-for="{ field, words } in FIELDS" :key="field">
      <span>{{ words }}</span>
      <input
        v-model.number="by[field]"
        type="range"
        :min="-SHIFT_LIMITS[field]"
        :max="SHIFT_LIMITS[field]"
        step="1"
        :aria-label="`Shift of ${words}`"
      />
      <span class="soft">{{ inWords(by[field], field) }}</span>
    </label>
    <p class="acts">
      <button class="plain word" @click="chosen = new Set(chosen.size ? [] : swatches.map(one => one.id))">
        {{ chosen.size ? 'none' : 'all' }}
      </button>
      <button class="strong" :disabled="ops.length === 0" @click="shift">
        shift {{ ops.length ? counted(ops.length, 'colour') : 'them' }}
      </button>
    </p>
  </section>
</template>

<style scoped>
.shift {
  padding-top: 6px;
  border-top: 1px solid var(--rule);
}

.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-bottom: 6px;
}

.chip {
  display: grid;
  padding: 2px;
  border-radius: 6px;
}

.chip span {
  width: 24px;
  height: 12px;
}

.chip[aria-checked='true'] {
  box-shadow: 0 0 0 2px var(--green);
}

label {
  display: grid;
  grid-template-columns: 62px 1fr 44px;
  align-items: center;
  gap: 8px;
}

label .soft {
  text-align: right;
  font-variant-numeric: tabular-nums;
}

input {
  accent-color: var(--green);
}

.acts {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-top: 6px;
}

.word {
  color: var(--green);
}
</style>
