<script setup lang="ts">
import { LIMITS, markStudy, studyOf } from '@unhurried/core/document'
import { computed } from 'vue'
import { useShot } from '../../stores/shot.ts'
import { oneLine } from '../../words/oneLine.ts'
import { studyInWords } from '../../words/study.ts'

/** Whether the shot is one's own, or redrawn from somebody else's work. */
const shot = useShot()
const said = computed(() => (shot.document ? studyInWords(studyOf(shot.document)) : ''))
function say(event: Event): void {
  const source = oneLine((event.target as HTMLInputElement).value)
  if (source === shot.document?.study) return
  shot.commit(source ? `a study of ${source}` : 'work of one’s own', markStudy(source))
}
</script>

<template>
  <section aria-label="Whose work it is">
    <h2>Whose work it is</h2>
    <label>
      <span class="label">a study of</span>
      <input
        type="text"
        :value="shot.document?.study ?? ''"
        :maxlength="LIMITS.sourceLength"
        :disabled="!shot.mayDraw"
        placeholder="nobody’s: it is mine"
        aria-label="Whose work the shot is a study of; empty for one’s own"
        @change="say"
        @keydown.enter="event => (event.target as HTMLElement).blur()"
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

input {
  min-height: 28px;
  padding: 2px 8px;
  border: 1px solid var(--rule);
  border-radius: 6px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  font-size: 13px;
}
</style>
