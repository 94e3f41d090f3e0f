<script setup lang="ts">
import { frameOver } from '@unhurried/core/clip'
import { LIMITS, noteAt, noteOnClip, type FilmClip } from '@unhurried/core/document'
import { X } from 'lucide-vue-next'
import { computed, ref, watch } from 'vue'
import { newId } from '../../../local/ids.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'

/** What was noted of pictures of a clip: the one under this frame first, then all, each leading to its frame. `moment` is that of the picture that lies here; null: none does. */
const props = defineProps<{ clip: FilmClip; moment: number | null }>()
const shot = useShot()
const desk = useDesk()
const here = computed(() => (props.moment === null ? '' : noteAt(props.clip, props.moment)))
const text = ref('')
watch(here, now => (text.value = now), { immediate: true })
function say(s: number, words: string): void {
  const ops = noteOnClip(props.clip, s, words.trim(), newId())
  if (ops.length) shot.commit(words.trim() ? `note on ${props.clip.name}` : 'note taken off', ops)
}
const frameOf = (s: number) => frameOver(props.clip, shot.document?.format.fps ?? 24, s)
function go(s: number): void {
  const frame = frameOf(s)
  if (frame !== null) desk.goTo(frame)
}
</script>

<template>
  <form v-if="moment !== null && shot.mayDraw" @submit.prevent="say(moment, text)">
    <input
      v-model="text"
      type="text"
      class="fresh"
      :maxlength="LIMITS.noteLength"
      placeholder="note this picture"
      aria-label="Note on this picture of the clip"
    />
    <button class="plain word" :disabled="text.trim() === here">keep</button>
  </form>
  <ul v-if="clip.notes.length">
    <li v-for="note in clip.notes" :key="note.id" :class="{ on: note.text === here }">
      <button class="plain name" :disabled="frameOf(note.s) === null" :title="note.text" @click="go(note.s)">
        <span class="soft">{{ note.s.toFixed(2) }} s</span> {{ note.text }}
      </button>
      <button
        v-if="shot.mayDraw"
        class="plain soft x"
        :aria-label="`Take the note “${note.text}” off`"
        @click="say(note.s, '')"
      >
        <X :size="13" />
      </button>
    </li>
  </ul>
</template>

<style scoped src="./fields.css"></style>
<style scoped src="./named.css"></style>
<style scoped>
input.fresh {
  flex: 1;
  width: 0;
  text-align: left;
}
</style>
