<script setup lang="ts">
import type { LayerPath } from '@unhurried/core/path'
import NumberField from '../../../shared/NumberField.vue'

/** What holds for all of the way of a layer: how long each place is kept, how its strip closes, what it turns about, whole pixels. */
const props = defineProps<{ path: LayerPath; shut: boolean; set: (patch: Partial<LayerPath>) => void }>()
const hundredth = (value: number) => Math.round(value * 100) / 100 + 0
function pivot(field: 'x' | 'y', value: number | null): void {
  if (value !== null) props.set({ pivot: { ...props.path.pivot, [field]: value } })
}
const PIVOT = [
  { field: 'x', words: 'turns about' },
  { field: 'y', words: 'and down' },
] as const
</script>

<template>
  <label>
    <span>each place</span>
    <NumberField :value="path.on" :take="value => value !== null && set({ on: value })" :step="1" :disabled="shut" />
    <span class="soft">frames</span>
  </label>
  <label title="What is drawn is laid down again, to both sides, every so many pixels">
    <span>drawn again every</span>
    <NumberField :value="path.closes" :take="value => set({ closes: value })" :step="10" open="–" :disabled="shut" />
    <span class="soft">{{ path.closes === null ? 'once' : 'px' }}</span>
  </label>
  <label v-for="{ field, words } in PIVOT" :key="field">
    <span>{{ words }}</span>
    <NumberField
      :value="hundredth(path.pivot[field])"
      :take="value => pivot(field, value)"
      :step="1"
      :disabled="shut"
    />
    <span class="soft">px</span>
  </label>
  <label title="Places are rounded, ties up; the speed never is">
    <span>whole pixels</span>
    <input
      type="checkbox"
      :checked="path.whole"
      :disabled="shut"
      @change="event => set({ whole: (event.target as HTMLInputElement).checked })"
    />
  </label>
</template>

<style scoped src="./fields.css"></style>
