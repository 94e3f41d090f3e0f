<script setup lang="ts">
import { ChevronLeft, ChevronRight } from 'lucide-vue-next'
import { computed } from 'vue'
import type { Commands } from '../commands.ts'
import { useKit } from '../../../stores/kit.ts'
import { useSight } from '../../../stores/sight.ts'
import { TASKS, useDrawers, type Task } from '../../../stores/drawers.ts'
import { useHands } from '../../../stores/hands.ts'
import { useHabits } from '../../../stores/habits.ts'
import { DRAWER_NAMES, DRAWERS, type Drawer, type DrawerName } from './drawers.ts'
import GatheredNote from './GatheredNote.vue'
import MarginDrawer from './MarginDrawer.vue'

/** What is said beside the paper, in drawers: which are open belongs to the task in hand. */
defineProps<{ commands: Commands }>()
const kit = useKit()
const sight = useSight()
const habits = useHabits()
const hands = useHands()
const drawers = useDrawers()
const TASK_WORDS: Record<Task, string> = {
  drawing: 'draw',
  inbetweening: 'inbetween',
  painting: 'paint',
  judging: 'judge',
}
const isOpen = (name: DrawerName) => {
  const drawer: Drawer = DRAWERS[name]
  return drawer.inUse?.() || drawers.isOpen(name, drawer.openFor.includes(drawers.task))
}
/** Those in use lie on top, the shut ones below, each in their order. */
const order = computed(() => [...DRAWER_NAMES.filter(isOpen), ...DRAWER_NAMES.filter(name => !isOpen(name))])
</script>

<template>
  <aside class="margin" :class="{ folded: sight.marginFolded }" aria-label="Margin">
    <header>
      <div v-if="!sight.marginFolded" class="tasks" role="radiogroup" aria-label="What the desk is for now">
        <button
          v-for="task in TASKS"
          :key="task"
          class="plain"
          role="radio"
          :aria-checked="drawers.task === task"
          :class="{ on: drawers.task === task }"
          :title="`The drawers as they lie for ${task}`"
          @click="drawers.task = task"
        >
          {{ TASK_WORDS[task] }}
        </button>
      </div>
      <button
        class="plain fold"
        :aria-expanded="!sight.marginFolded"
        :title="commands.tip('margin', sight.marginFolded ? 'Unfold the margin' : 'Fold the margin')"
        @click="sight.marginFolded = !sight.marginFolded"
      >
        <component :is="sight.marginFolded ? ChevronLeft : ChevronRight" :size="15" aria-hidden="true" />
        <span class="hush">{{ sight.marginFolded ? 'Unfold the margin' : 'Fold the margin' }}</span>
      </button>
    </header>
    <div v-if="!sight.marginFolded" class="notes">
      <GatheredNote v-if="kit.gathered.size" class="gathered" :commands="commands" :strokes="commands.strokes" />
      <MarginDrawer
        v-for="name in order"
        :key="name"
        :label="DRAWERS[name].label"
        :words="DRAWERS[name].words"
        :says="DRAWERS[name].says()"
        :open="isOpen(name)"
        @toggle="drawers.set(name, !isOpen(name))"
      >
        <component :is="DRAWERS[name].show" :commands="commands" />
      </MarginDrawer>
      <p class="keys">
        <button class="plain soft" @click="commands.get('keys').run()">
          all keys <kbd>{{ commands.keysOf('keys') }}</kbd>
        </button>
        <button
          class="plain soft"
          :aria-pressed="hands.onScreen"
          title="Large keys on the screen, under the free hand: for a tablet without a keyboard"
          @click="hands.onScreen = !hands.onScreen"
        >
          {{ hands.onScreen ? 'no keys on screen' : 'keys on screen' }}
        </button>
        <button
          class="plain soft"
          :aria-pressed="habits.leftHanded"
          title="The desk and its keys the other way round, for those who draw with the other hand"
          @click="habits.leftHanded = !habits.leftHanded"
        >
          {{ habits.leftHanded ? 'for the right hand' : 'for the left hand' }}
        </button>
      </p>
    </div>
  </aside>
</template>

<style scoped>
.margin {
  grid-area: margin;
  display: flex;
  flex-direction: column;
  background: var(--edge);
  border-left: 1px solid var(--rule);
  min-width: 0;
  min-height: 0;
}

header {
  flex: none;
  display: flex;
  align-items: center;
  min-height: 30px;
  padding: 0 4px 0 8px;
  border-bottom: 1px solid var(--rule);
}

.folded header {
  justify-content: center;
  padding: 0;
}

.tasks {
  flex: 1;
  display: flex;
  justify-content: space-between;
  min-width: 0;
  padding-right: 4px;
  font-size: 12px;
}

.tasks .plain {
  min-height: 24px;
  padding: 1px 2px;
  border-radius: 0;
  border-bottom: 2px solid transparent;
  color: var(--soft);
}

.tasks .on {
  border-color: var(--green);
  color: var(--ink);
  font-weight: 700;
}

.fold {
  flex: none;
  width: 24px;
  height: 24px;
  margin-left: auto;
  padding: 0;
  line-height: 0;
  color: var(--soft);
}

.folded .fold {
  margin: 0;
}

.notes {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  overflow: hidden auto;
  scrollbar-width: thin;
}

.gathered {
  padding: 10px 14px 12px;
  border-bottom: 1px solid var(--rule);
}

.notes :deep(h2) {
  font: 500 14px var(--serif);
  color: var(--soft);
}

.keys {
  margin: auto 0 0;
  padding: 8px 10px;
  font-size: 12.5px;
}

.keys .plain {
  min-height: 24px;
}
</style>
