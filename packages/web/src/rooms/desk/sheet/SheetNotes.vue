<script setup lang="ts">
import { computed } from 'vue'
import { useShot } from '../../../stores/shot.ts'

/** The action column of the whole sheet: notes over their frames, and the names of beats. */
const props = defineProps<{ rowPx: number; first: number; last: number }>()
const shot = useShot()
const length = computed(() => shot.take?.length ?? 0)
const notes = computed(() =>
  Object.values(shot.document?.notes ?? {}).filter(
    note => note.from < Math.min(props.last, length.value) && note.to > props.first,
  ),
)
const beats = computed(() =>
  Object.values(shot.document?.beats ?? {}).filter(beat => beat.frame >= props.first && beat.frame < props.last),
)
</script>

<template>
  <div class="action">
    <p
      v-for="note in notes"
      :key="note.id"
      class="note"
      :style="{
        top: `${note.from * rowPx + 2}px`,
        height: `${(Math.min(note.to, length) - note.from) * rowPx - 4}px`,
      }"
      :title="note.text"
    >
      {{ note.text }}
    </p>
    <span v-for="beat in beats" :key="beat.id" class="beat" :style="{ top: `${beat.frame * rowPx}px` }">{{
      beat.name
    }}</span>
  </div>
</template>

<style scoped>
.action {
  position: relative;
  flex: 1 1 190px;
  max-width: 420px;
}

.note {
  position: absolute;
  left: 8px;
  right: 58px;
  padding: 1px 6px;
  border-left: 2px solid var(--past);
  font: italic 12.5px/1.35 var(--serif);
  overflow: hidden;
}

.beat {
  position: absolute;
  right: 8px;
  max-width: 52px;
  line-height: var(--row);
  font-size: 11px;
  font-weight: 700;
  color: var(--rust);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
