<script setup lang="ts">
import { computed } from 'vue'
import { GRID_PX, type PaperAids } from '../desk/aids.ts'
import { useDesk } from '../stores/desk.ts'
import { useShot } from '../stores/shot.ts'

/** Lines over the paper to draw by. */
const desk = useDesk()
const shot = useShot()
const height = computed(() => shot.document?.format.height ?? 720)
const set = (patch: Partial<PaperAids>) => (desk.aids = { ...desk.aids, ...patch })

const SWITCHES = [
  { name: 'safe', words: 'safe margin' },
  { name: 'thirds', words: 'thirds' },
  { name: 'rulers', words: 'rulers' },
  { name: 'room', words: 'head room' },
] as const
const lines = computed(() => [
  { name: 'grid' as const, words: 'grid of', fresh: GRID_PX.fresh, least: GRID_PX.least, most: GRID_PX.most },
  { name: 'horizon' as const, words: 'horizon at', fresh: Math.round(height.value * 0.45), least: -9999, most: 9999 },
  { name: 'ground' as const, words: 'ground at', fresh: Math.round(height.value * 0.85), least: -9999, most: 9999 },
])

function type(event: Event, name: 'grid' | 'horizon' | 'ground', least: number, most: number): void {
  const field = event.target as HTMLInputElement
  const typed = Number(field.value)
  if (field.value !== '' && typed >= least && typed <= most) set({ [name]: typed })
  else field.value = String(desk.aids[name] ?? '')
}
</script>

<template>
  <section aria-label="Lines on the paper">
    <h2>on the paper</h2>
    <p class="switches">
      <button
        v-for="{ name, words } in SWITCHES"
        :key="name"
        class="plain"
        :class="{ on: desk.aids[name] }"
        :aria-pressed="desk.aids[name]"
        @click="set({ [name]: !desk.aids[name] })"
      >
        {{ words }}
      </button>
    </p>
    <p v-for="{ name, words, fresh, least, most } in lines" :key="name" class="line">
      <button
        class="plain"
        :class="{ on: desk.aids[name] !== null }"
        :aria-pressed="desk.aids[name] !== null"
        @click="set({ [name]: desk.aids[name] === null ? fresh : null })"
      >
        {{ words }}
      </button>
      <template v-if="desk.aids[name] !== null">
        <input
          type="number"
          :value="Math.round(desk.aids[name] ?? 0)"
          :min="least"
          :max="most"
          :aria-label="`${words}, px`"
          @change="event => type(event, name, least, most)"
          @keydown.enter="event => (event.target as HTMLElement).blur()"
        />
        <span class="soft">px</span>
      </template>
    </p>
  </section>
</template>

<style scoped>
.switches {
  display: flex;
  flex-wrap: wrap;
  gap: 0 2px;
  margin: 4px -4px 2px;
}

.plain {
  font-size: 12.5px;
  border-radius: 0;
  border-bottom: 2px solid transparent;
  padding: 1px 4px;
  color: var(--soft);
}

.on {
  border-color: var(--green);
  color: var(--ink);
  font-weight: 700;
}

.line {
  display: flex;
  align-items: center;
  gap: 4px;
  margin-left: -4px;
  min-height: 25px;
}

input {
  width: 58px;
  padding: 1px 4px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  text-align: right;
}
</style>
