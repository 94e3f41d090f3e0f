<script setup lang="ts">
import { LABELS, type Label } from '@unhurried/core/document'
import { ElPopover, ElSlider } from 'element-plus'
import { computed } from 'vue'
import { LABEL_COLOURS } from '../desk/colours.ts'
import { PEN_WORDS } from '../desk/pens.ts'
import { useDesk } from '../stores/desk.ts'
import PenPanel from './PenPanel.vue'

/** What the tool in the hand is set to, and its settings. */
const desk = useDesk()
const isRubber = computed(() => desk.tool === 'rub-out' || desk.tool === 'trim')
const dot = computed(() => `${Math.min(24, Math.max(2, desk.width ?? 1))}px`)
const LABEL_WORDS: Record<Label, string> = { near: 'near limb', far: 'far limb' }
</script>

<template>
  <div v-if="desk.tool === 'line' || desk.tool === 'shape' || isRubber" class="settings">
    <ElPopover trigger="click" placement="top" :width="desk.tool === 'line' ? 550 : 250">
      <template #reference>
        <button class="tip" :title="`Settings of the tool in the hand`">
          <span v-if="desk.width !== null" class="dot" :style="{ width: dot, height: dot }" />
          <template v-if="desk.tool === 'line'">
            <b>{{ PEN_WORDS[desk.pen] }}</b>
          </template>
          <span>{{ desk.width === null ? 'edge' : `${Math.round(desk.width * 10) / 10} px` }}</span>
        </button>
      </template>
      <PenPanel v-if="desk.tool === 'line'" />
      <template v-else-if="isRubber && desk.width !== null">
        <p class="setting">
          width <b>{{ desk.width }} px</b>
        </p>
        <ElSlider v-model="desk.width" :min="1" :max="80" :show-tooltip="false" aria-label="Width" />
      </template>
      <template v-else>
        <p class="setting">
          smoothing of the edge <b>{{ Math.round(desk.shapeSmoothing * 100) }} %</b>
        </p>
        <ElSlider
          v-model="desk.shapeSmoothing"
          :min="0"
          :max="1"
          :step="0.05"
          :show-tooltip="false"
          aria-label="Smoothing"
        />
        <p class="soft">More smoothing lags further behind the pen.</p>
      </template>
    </ElPopover>
    <div v-if="desk.tool === 'line'" class="labels" role="group" aria-label="Label of new lines">
      <button
        v-for="label in LABELS"
        :key="label"
        class="label"
        :class="{ on: desk.label === label }"
        :aria-pressed="desk.label === label"
        :title="`Label new lines as the ${LABEL_WORDS[label]}: a working colour here, their own colour when sent off`"
        @click="desk.label = desk.label === label ? null : label"
      >
        <i :style="{ background: LABEL_COLOURS[label] }" />{{ label }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.settings {
  display: flex;
  align-items: center;
  gap: 2px;
  flex: none;
}

.tip {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: flex-end;
  gap: 2px;
  min-width: 46px;
  height: 56px;
  white-space: nowrap;
  padding: 0 2px;
  border: 0;
  border-radius: 8px;
  background: none;
  font-size: 11.5px;
  line-height: 1.25;
  color: var(--soft);
  cursor: pointer;
}

.tip:hover {
  color: var(--ink);
}

.tip b {
  color: var(--ink);
}

.dot {
  border-radius: 50%;
  background: var(--ink);
  margin: auto;
}

.labels {
  display: flex;
  flex-direction: column;
  gap: 2px;
}

.label {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 2px 5px;
  border: 0;
  border-radius: 6px;
  background: none;
  font-size: 11.5px;
  color: var(--soft);
  cursor: pointer;
}

.label i {
  width: 9px;
  height: 9px;
  border-radius: 50%;
}

.label.on {
  background: var(--green-wash);
  color: var(--ink);
  font-weight: 700;
}

.setting {
  display: flex;
  justify-content: space-between;
  color: var(--ink);
}
</style>
