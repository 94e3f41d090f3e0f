<script setup lang="ts">
import { ChevronDown, ChevronRight } from 'lucide-vue-next'
import { nextTick, ref } from 'vue'

/** A drawer of the margin: its title stays in sight, what is in it is folded away. */
const props = defineProps<{ label: string; words: string; says: string; open: boolean }>()
const emit = defineEmits<{ toggle: [] }>()
const section = ref<HTMLElement | null>(null)
/** What one opens is brought into sight, with what is in it; what a task opens stays where it is. */
async function toggle(): Promise<void> {
  const opens = !props.open
  emit('toggle')
  await nextTick()
  if (opens) section.value?.scrollIntoView({ block: 'start' })
}
</script>

<template>
  <section ref="section" :aria-label="label" :class="{ open }">
    <h2>
      <button class="title" :aria-expanded="open" @click="toggle">
        <component :is="open ? ChevronDown : ChevronRight" :size="14" aria-hidden="true" />
        <span>{{ words }}</span>
        <small v-if="says" class="soft">{{ says }}</small>
      </button>
    </h2>
    <slot v-if="open" />
  </section>
</template>

<style scoped>
section {
  padding: 3px 14px;
  border-bottom: 1px solid var(--rule);
}

section.open {
  padding-bottom: 10px;
}

.title {
  display: flex;
  align-items: center;
  gap: 6px;
  width: 100%;
  min-height: 28px;
  margin-left: -5px;
  padding: 0 3px;
  border: 0;
  border-radius: 6px;
  background: none;
  font: 500 14px var(--serif);
  color: var(--soft);
  text-align: left;
  cursor: pointer;
}

.title:hover {
  color: var(--ink);
  background: var(--green-wash);
}

.title small {
  margin-left: auto;
  font: 12px var(--sans);
}
</style>
