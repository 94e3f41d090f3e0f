<script setup lang="ts">
import { ElSlider } from 'element-plus'
import { settingsOf } from '../tool.ts'
import { Edge } from './settings.ts'

const edge = settingsOf('shape', Edge)
</script>

<template>
  <p class="setting">
    smoothing of the edge <b>{{ Math.round(edge.smoothing * 100) }} %</b>
  </p>
  <ElSlider
    :model-value="edge.smoothing"
    :min="0"
    :max="1"
    :step="0.05"
    :show-tooltip="false"
    aria-label="Smoothing"
    @update:model-value="smoothing => (edge = { smoothing: Number(smoothing) })"
  />
  <p class="soft">More smoothing lags further behind the pen.</p>
</template>

<style scoped>
.setting {
  display: flex;
  justify-content: space-between;
  color: var(--ink);
}
</style>
