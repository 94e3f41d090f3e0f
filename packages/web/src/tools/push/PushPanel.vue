<script setup lang="ts">
import { ElSlider } from 'element-plus'
import { Pushing } from './settings.ts'
import { settingsOf } from '../tool.ts'

const pushing = settingsOf('push', Pushing)
</script>

<template>
  <p class="setting">
    reach <b>{{ pushing.width }} px</b>
  </p>
  <ElSlider
    :model-value="pushing.width"
    :min="1"
    :max="400"
    :show-tooltip="false"
    aria-label="Width"
    @update:model-value="width => (pushing = { width: Number(width) })"
  />
</template>

<style scoped>
.setting {
  display: flex;
  justify-content: space-between;
  color: var(--ink);
}
</style>
