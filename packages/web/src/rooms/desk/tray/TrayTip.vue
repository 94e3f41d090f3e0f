<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ElPopover } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { PEN_WORDS } from '../../../strokes/pens.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useToolInHand } from '../../../tools/table.ts'

/** What the tool in the hand is set to, and its settings. */
const desk = useDesk()
const kit = useKit()
const { name, tool, settings, width } = useToolInHand()
watch(name, () => tool.value.taken?.(), { immediate: true })
const open = ref(false)
/** The settings are made when they are first asked for: their samples of pens take as long to paint as a drawing. */
const wasOpen = ref(false)
watch(open, now => (wasOpen.value ||= now))
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if (event.key === 'Escape') open.value = false
})
const dot = computed(() => `${Math.min(24, Math.max(2, width.value ?? 1))}px`)
const said = computed(() =>
  width.value === null ? (tool.value.beside?.(settings.value) ?? '') : `${Math.round(width.value * 10) / 10} px`,
)
</script>

<template>
  <div v-if="tool.panel" class="settings">
    <ElPopover v-model:visible="open" trigger="click" placement="top" :width="tool.panelWidth ?? 280">
      <template #reference>
        <button class="tip" title="Settings of the tool in the hand">
          <span v-if="width !== null" class="dot" :style="{ width: dot, height: dot }" />
          <b v-if="tool.tip === 'pen'">{{ PEN_WORDS[kit.pen] }}</b>
          <span>{{ said }}</span>
        </button>
      </template>
      <component :is="tool.panel" v-if="wasOpen" :key="name" :name="name" />
      <label v-if="tool.through" class="through">
        <input v-model="kit.through" type="checkbox" />
        through all marked drawings
        <span class="soft">{{
          desk.markedDrawings.length ? `(${desk.markedDrawings.length} are marked)` : '(none is marked on the sheet)'
        }}</span>
      </label>
    </ElPopover>
    <component :is="tool.choices" v-if="tool.choices" />
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

.through {
  display: block;
  margin-top: 8px;
}

.through input {
  accent-color: var(--green);
}
</style>
