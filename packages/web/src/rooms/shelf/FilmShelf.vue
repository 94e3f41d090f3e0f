<script setup lang="ts">
import type { FilmCard, ShotCard } from '@unhurried/contract'
import { counted } from '@unhurried/core/time'
import { computed, ref } from 'vue'
import { VueDraggable } from 'vue-draggable-plus'
import { studyInWords } from '../../words/study.ts'
import FilmStrip from './FilmStrip.vue'
import ShotCardView from './ShotCardView.vue'

/** A film with its shots: as cards that can be laid in another order, or end to end as one strip. */
const props = defineProps<{ film: FilmCard; sought: string }>()
const emit = defineEmits<{
  start: []
  rename: []
  study: []
  people: []
  remove: []
  order: [shots: readonly ShotCard[]]
  renameShot: [shot: ShotCard]
  duplicateShot: [shot: ShotCard]
  removeShot: [shot: ShotCard]
}>()
const strip = ref(false)
const mayChange = computed(() => props.film.role !== 'reviewer')
/** While something is sought the order is not the film's. */
const mayOrder = computed(() => mayChange.value && props.sought === '' && props.film.shots.length > 1)
const shots = computed({
  get: () =>
    props.sought
      ? props.film.shots.filter(shot => shot.name.toLowerCase().includes(props.sought))
      : [...props.film.shots],
  set: (next: ShotCard[]) => emit('order', next),
})
function move(shot: ShotCard, by: -1 | 1): void {
  const next = [...props.film.shots]
  const at = next.indexOf(shot)
  const other = next[at + by]
  if (!other) return
  ;[next[at], next[at + by]] = [other, shot]
  emit('order', next)
}
</script>

<template>
  <section class="film" :aria-label="film.name">
    <div class="title">
      <h2>{{ film.name }}</h2>
      <span class="soft">{{ counted(film.shots.length, 'shot') }}</span>
      <button
        v-if="film.shots.length"
        class="plain act"
        :aria-pressed="strip"
        title="All shots end to end, as long as they last"
        @click="strip = !strip"
      >
        {{ strip ? 'as cards' : 'as one strip' }}
      </button>
      <template v-if="mayChange">
        <button class="plain act" @click="emit('start')">new shot</button>
        <button class="plain act" @click="emit('rename')">rename</button>
        <button class="plain act" title="Your own, or a study of somebody else’s" @click="emit('study')">
          whose work
        </button>
      </template>
      <template v-if="film.role === 'owner'">
        <button class="plain act" title="Who draws and who reviews" @click="emit('people')">people</button>
        <button class="plain act" @click="emit('remove')">remove</button>
      </template>
      <span v-else class="soft">{{ film.role === 'reviewer' ? 'you review it' : 'you draw in it' }}</span>
    </div>
    <p v-if="film.study" class="study">{{ studyInWords([film.study]) }}</p>
    <FilmStrip v-if="strip" :shots="shots" />
    <VueDraggable
      v-else
      v-model="shots"
      class="shots"
      handle=".grip"
      draggable=".card"
      :animation="150"
      :disabled="!mayOrder"
    >
      <ShotCardView
        v-for="(s, i) in shots"
        :key="s.id"
        :shot="s"
        :may-change="mayChange"
        :may-order="mayOrder"
        :first="i === 0"
        :last="i === shots.length - 1"
        @rename="emit('renameShot', s)"
        @duplicate="emit('duplicateShot', s)"
        @remove="emit('removeShot', s)"
        @move="by => move(s, by)"
      />
      <button v-if="mayChange && !sought" class="blank" @click="emit('start')">
        <b>A new shot</b>
        <span class="soft">size, frames a second, length, paper</span>
      </button>
    </VueDraggable>
  </section>
</template>

<style scoped>
.act {
  color: var(--green);
}

.study {
  margin: -4px 0 8px;
  color: var(--rust);
}

.film {
  margin-bottom: 34px;
}

.title {
  display: flex;
  align-items: baseline;
  gap: 14px;
  margin-bottom: 12px;
}

h2 {
  font: 500 23px var(--serif);
}

.shots {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  gap: 22px;
}

.blank {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 4px;
  min-height: 180px;
  border: 1.5px dashed var(--past);
  border-radius: 8px;
  background: none;
  cursor: pointer;
}

.blank:hover {
  background: var(--edge);
}
</style>
