<script setup lang="ts">
import { markStudy, studyOf } from '@unhurried/core/document'
import { computed } from 'vue'
import SourceField from '../../shared/SourceField.vue'
import { useShot } from '../../stores/shot.ts'
import { studyInWords } from '../../words/study.ts'

/** Whether the shot is one's own, or redrawn from somebody else's work. */
const shot = useShot()
const said = computed(() => (shot.document ? studyInWords(studyOf(shot.document, shot.filmStudy)) : ''))
function say(source: string): void {
  if (source === shot.document?.study) return
  shot.commit(source ? `a study of ${source}` : 'work of one’s own', markStudy(source))
}
</script>

<template>
  <section aria-label="Whose work it is">
    <h2>Whose work it is</h2>
    <label>
      <span class="label">a study of</span>
      <SourceField
        :source="shot.document?.study ?? ''"
        :disabled="!shot.mayDraw"
        placeholder="nobody’s: it is mine"
        label="Whose work the shot is a study of; empty for one’s own"
        @said="say"
      />
    </label>
    <p class="soft small">
      {{
        said
          ? `It is ${said}. The shelf, the send-off and its files say so.`
          : 'Redrawn to learn from somebody? Say whom: it is for practice only then.'
      }}
    </p>
  </section>
</template>

<style scoped>
label {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  align-items: center;
  gap: 10px;
}
</style>
