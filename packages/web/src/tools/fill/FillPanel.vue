<script setup lang="ts">
import { ElSlider } from 'element-plus'
import { settingsOf } from '../tool.ts'
import { Filling } from './settings.ts'

const filling = settingsOf('fill', Filling)
</script>

<template>
  <p class="setting">
    gaps that count as closed <b>{{ filling.gapPx }} px</b>
  </p>
  <ElSlider
    :model-value="filling.gapPx"
    :min="0"
    :max="40"
    :show-tooltip="false"
    aria-label="Gaps that count as closed, px"
    @update:model-value="gapPx => (filling = { gapPx: Number(gapPx) })"
  />
  <p class="soft">A ring shows where it would run out. On a tied layer the lines it lies under bound too.</p>
</template>

<style scoped>
.setting {
  display: flex;
  justify-content: space-between;
  color: var(--ink);
}
</style>
