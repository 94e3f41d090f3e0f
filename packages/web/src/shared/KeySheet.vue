<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ElDialog } from 'element-plus'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Command } from '../keys/command.ts'
import { keyName } from '../keys/listen.ts'
import { written } from '../words/written.ts'
import { useHabits } from '../stores/habits.ts'

/** All keys in sight at once, each of them to be changed: press it, then the key it should be. */
const props = defineProps<{ commands: readonly Command[] }>()
const shown = defineModel<boolean>({ required: true })
const habits = useHabits()
const groups = computed(() =>
  [...new Set(props.commands.map(c => c.group))].map(name => ({
    name,
    commands: props.commands.filter(c => c.group === name),
  })),
)
const changed = computed(() => props.commands.some(c => habits.habits.keys[c.id]))

/** the command that waits for its key, and what the last change did to another one */
const waiting = shallowRef<Command | null>(null)
const said = ref('')
watch(shown, () => {
  waiting.value = null
  said.value = ''
})

const MODIFIERS = new Set(['Shift', 'Control', 'Alt', 'Meta', 'AltGraph', 'CapsLock', 'Dead', 'Tab'])

useEventListener(
  window,
  'keydown',
  (event: KeyboardEvent) => {
    const command = waiting.value
    if (!shown.value || !command || MODIFIERS.has(event.key)) return
    event.preventDefault()
    event.stopPropagation()
    waiting.value = null
    if (event.key === 'Escape') return
    give(command, event.key === 'Backspace' ? null : keyName(event))
  },
  { capture: true },
)

/** Gives a command a key, or none; whoever had the key before loses it, and that is said. */
function give(command: Command, key: string | null): void {
  const keys = { ...habits.habits.keys, [command.id]: key === null ? [] : [key] }
  const other = key === null ? undefined : props.commands.find(c => c !== command && habits.keysOf(c).includes(key))
  if (other) keys[other.id] = habits.keysOf(other).filter(k => k !== key)
  habits.set({ keys })
  said.value = other
    ? `${written(key ?? '')} was “${other.words}”, which has ${keys[other.id]?.length ? 'its other key' : 'no key'} now.`
    : ''
}

/** The keys of this sheet as they came; those of other rooms stay as they are. */
function asTheyCame(): void {
  const own = new Set(props.commands.map(c => c.id))
  habits.set({ keys: Object.fromEntries(Object.entries(habits.habits.keys).filter(([id]) => !own.has(id))) })
  said.value = ''
}
</script>

<template>
  <ElDialog v-model="shown" title="Keys" width="min(1240px, 96vw)" align-center :close-on-press-escape="!waiting">
    <div class="groups">
      <section v-for="group in groups" :key="group.name">
        <h3 class="serif">{{ group.name }}</h3>
        <p v-for="command in group.commands" :key="command.id">
          <span>{{ command.words }}</span>
          <button
            class="plain keys"
            :class="{ waiting: waiting === command, changed: habits.habits.keys[command.id] }"
            :aria-label="`Another key for: ${command.words}`"
            title="Press to choose another key"
            @click="waiting = command"
          >
            <template v-if="waiting === command">press a key …</template>
            <kbd v-for="key in habits.keysOf(command)" v-else :key="key">{{ written(key) }}</kbd>
            <span v-if="waiting !== command && !habits.keysOf(command).length" class="soft">none</span>
          </button>
        </p>
      </section>
    </div>
    <p class="foot" aria-live="polite">
      <span v-if="waiting" class="soft">Esc leaves it as it is, ⌫ takes its key away.</span>
      <span v-else-if="said" class="rust">{{ said }}</span>
      <span v-else-if="commands.some(c => c.group === 'Paper')" class="soft">
        Press a key here to change it. The wheel brings the paper nearer; with Shift it turns. The middle button moves
        it.
      </span>
      <button v-if="changed" class="plain link" @click="asTheyCame">all keys as they came</button>
    </p>
  </ElDialog>
</template>

<style scoped>
.groups {
  columns: 4 262px;
  column-gap: 28px;
  max-height: calc(100vh - 160px);
  overflow: hidden auto;
  margin-bottom: 10px;
}

section {
  margin-bottom: 10px;
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
  margin-bottom: 3px;
}

p {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  font-size: 12.5px;
  line-height: 1.3;
  padding: 0.5px 0;
}

.keys {
  display: flex;
  gap: 4px;
  flex: none;
  align-items: flex-start;
  padding: 0 2px;
}

.keys.changed kbd {
  border-color: var(--green);
  color: var(--green);
}

.keys.waiting {
  background: var(--green-wash);
  color: var(--green);
  font-weight: 700;
}

.link {
  color: var(--green);
}

.foot {
  min-height: 22px;
}
</style>
