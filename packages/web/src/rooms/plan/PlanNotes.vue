<script setup lang="ts">
import { addNote, changeNote, LIMITS, removeNote, type ActionNote } from '@unhurried/core/document'
import { X } from 'lucide-vue-next'
import { ElInput, ElInputNumber } from 'element-plus'
import { computed, reactive } from 'vue'
import { newId } from '../../local/ids.ts'
import { useShot } from '../../stores/shot.ts'
import TextField from '../../shared/TextField.vue'

/** What happens, in words, over the frames it happens on. */
const shot = useShot()
const length = computed(() => shot.take?.length ?? 1)
const notes = computed(() => Object.values(shot.document?.notes ?? {}).sort((a, b) => a.from - b.from || a.to - b.to))
const fresh = reactive({ from: 1, to: Math.min(12, length.value), text: '' })

function add(): void {
  const text = fresh.text.trim()
  if (!text) return
  const note: ActionNote = { id: newId(), from: fresh.from - 1, to: fresh.to, text }
  if (shot.commit('action note', addNote(note))) return
  fresh.text = ''
  fresh.from = Math.min(length.value, fresh.to + 1)
  fresh.to = Math.min(length.value, fresh.from + 11)
}

function set(note: ActionNote, patch: Partial<Pick<ActionNote, 'from' | 'to' | 'text'>>): void {
  shot.commit('action note', changeNote(note, patch))
}
</script>

<template>
  <section aria-label="Action notes">
    <h2>Action</h2>
    <ul>
      <li v-for="note in notes" :key="note.id">
        <ElInputNumber
          :model-value="note.from + 1"
          size="small"
          :min="1"
          :max="length"
          :controls="false"
          :disabled="!shot.mayDraw"
          aria-label="From frame"
          @change="(n: number | undefined) => n && set(note, { from: n - 1 })"
        />
        <span class="soft">–</span>
        <ElInputNumber
          :model-value="note.to"
          size="small"
          :min="1"
          :max="length"
          :controls="false"
          :disabled="!shot.mayDraw"
          aria-label="To frame"
          @change="(n: number | undefined) => n && set(note, { to: n })"
        />
        <TextField
          class="text"
          :text="note.text"
          :most="LIMITS.noteLength"
          :disabled="!shot.mayDraw"
          label="What happens"
          @done="text => text !== note.text && set(note, { text })"
        />
        <button
          v-if="shot.mayDraw"
          class="plain"
          aria-label="Remove this note"
          @click="shot.commit('remove a note', removeNote(note.id))"
        >
          <X :size="14" />
        </button>
      </li>
    </ul>
    <form v-if="shot.mayDraw" @submit.prevent="add">
      <ElInputNumber
        v-model="fresh.from"
        size="small"
        :min="1"
        :max="length"
        :controls="false"
        aria-label="New note from frame"
      />
      <span class="soft">–</span>
      <ElInputNumber
        v-model="fresh.to"
        size="small"
        :min="1"
        :max="length"
        :controls="false"
        aria-label="New note to frame"
      />
      <ElInput
        v-model="fresh.text"
        size="small"
        class="text"
        placeholder="crouches, looks up, and off"
        :maxlength="LIMITS.noteLength"
        aria-label="New note: what happens"
      />
      <button class="plain word" :disabled="!fresh.text.trim()">add</button>
    </form>
    <p v-if="!notes.length" class="soft small">
      What happens, in words, over some frames. It stands beside them on the whole sheet.
    </p>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
}

li,
form {
  display: flex;
  align-items: center;
  gap: 5px;
  padding: 2px 0;
}

.el-input-number {
  flex: none;
  width: 52px;
}

.text {
  flex: 1;
  min-width: 0;
}

.plain {
  line-height: 1;
}
</style>
