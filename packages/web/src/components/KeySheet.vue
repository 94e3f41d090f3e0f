<script setup lang="ts">
import { ElDialog } from 'element-plus'
import { computed } from 'vue'
import type { Command } from '../keys/commands.ts'

const props = defineProps<{ commands: readonly Command[] }>()
const shown = defineModel<boolean>({ required: true })
const groups = computed(() =>
  [...new Set(props.commands.map(c => c.group))].map(name => ({
    name,
    commands: props.commands.filter(c => c.group === name),
  })),
)

const SIGNS: Record<string, string> = {
  space: 'Space',
  shift: '⇧',
  ctrl: 'Ctrl',
  alt: 'Alt',
  arrowup: '↑',
  arrowdown: '↓',
  arrowleft: '←',
  arrowright: '→',
  backspace: '⌫',
  delete: 'Del',
  escape: 'Esc',
}
const written = (key: string) =>
  key
    .split('+')
    .map(part => SIGNS[part] ?? part.toUpperCase())
    .join(' ')
</script>

<template>
  <ElDialog v-model="shown" title="Keys" width="min(1060px, 94vw)" align-center>
    <div class="groups">
      <section v-for="group in groups" :key="group.name">
        <h3 class="serif">{{ group.name }}</h3>
        <p v-for="command in group.commands" :key="command.id">
          <span>{{ command.words }}</span>
          <span class="keys"
            ><kbd v-for="key in command.keys" :key="key">{{ written(key) }}</kbd></span
          >
        </p>
      </section>
    </div>
    <p v-if="props.commands.some(c => c.group === 'Paper')" class="soft">
      The wheel brings the paper nearer; with Shift it turns. The middle button moves it.
    </p>
  </ElDialog>
</template>

<style scoped>
.groups {
  columns: 3 280px;
  column-gap: 34px;
  margin-bottom: 14px;
}

section {
  margin-bottom: 12px;
}

/* Long groups go on in the next column, so that all keys are in sight at once. */
h3 {
  break-after: avoid;
}

p {
  break-inside: avoid;
}

h3 {
  font-weight: 500;
  font-size: 15px;
  border-bottom: 1px solid var(--rule);
  margin-bottom: 5px;
}

p {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  font-size: 13px;
  padding: 1px 0;
}

.keys {
  display: flex;
  gap: 4px;
  flex: none;
  align-items: flex-start;
}
</style>
