<script setup lang="ts">
import { nameOf } from '@unhurried/core/measure'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import RemarkList from '../../shared/RemarkList.vue'
import { SEVERITY_SIGNS } from '../../shared/severities.ts'
import { useMeasure } from '../../stores/measure.ts'
import { useReview } from '../../stores/review.ts'
import { useDesk } from '../../stores/desk.ts'
import type { Looking } from './useLooking.ts'
import type { Remarking } from './useRemarking.ts'

/** What is known of what is looked at: what the checks found on it, what was remarked, and what is being remarked. */
const props = defineProps<{ looking: Looking; remarking: Remarking; keysOf: (name: string) => string }>()
const measure = useMeasure()
const review = useReview()
const desk = useDesk()
const everywhere = ref(false)
const field = shallowRef<HTMLTextAreaElement | null>(null)
const list = ref<InstanceType<typeof RemarkList> | null>(null)
const found = computed(() => {
  const ids = new Set(props.looking.stop.value?.drawings.map(({ id }) => id))
  return measure.open.filter(({ drawings: [id] }) => id !== undefined && ids.has(id))
})
const remarks = computed(() => (everywhere.value ? review.open : review.here))
watch(props.remarking.isOn, async isOn => {
  await nextTick()
  if (isOn) field.value?.focus()
})
function keep(): void {
  props.remarking.keep()
  field.value?.blur()
}
defineExpose({
  answer(): void {
    const first = review.here.find(({ remark }) => !remark.closed) ?? review.here[0]
    if (!first) return
    everywhere.value = false
    void nextTick(() => list.value?.ask(first.remark))
  },
})
</script>

<template>
  <aside class="side" aria-label="What is known of it">
    <section aria-label="Findings here">
      <h2 class="serif">found here</h2>
      <ul v-if="found.length">
        <li v-for="one in found" :key="nameOf(one)">
          <component :is="SEVERITY_SIGNS[one.severity].icon" :size="14" aria-hidden="true" />
          <span
            ><span class="hush">{{ SEVERITY_SIGNS[one.severity].words }}: </span>{{ one.words }}</span
          >
        </li>
      </ul>
      <p v-else class="soft">nothing</p>
    </section>
    <section class="grows" aria-label="Remarks">
      <h2 class="serif">
        remarks
        <button
          v-if="review.open.length || everywhere"
          class="plain word"
          :aria-pressed="everywhere"
          @click="everywhere = !everywhere"
        >
          {{ everywhere ? 'those here' : `all open ones: ${review.open.length}` }}
        </button>
      </h2>
      <form v-if="remarking.isOn.value" class="draft" @submit.prevent="keep">
        <textarea
          ref="field"
          :value="remarking.text.value"
          rows="3"
          maxlength="500"
          aria-label="Remark"
          placeholder="what you see"
          @input="event => remarking.write((event.target as HTMLTextAreaElement).value)"
          @keydown.enter.exact.prevent="keep"
          @keydown.escape.stop="remarking.drop()"
        />
        <p class="soft">Press on the picture to say where, or draw over it.</p>
        <p class="acts">
          <button class="strong" :disabled="!remarking.text.value.trim() && !remarking.sketch.value.length">
            keep
          </button>
          <button v-if="remarking.sketch.value.length" type="button" class="plain word" @click="remarking.lineBack()">
            last line back
          </button>
          <button type="button" class="plain word" @click="remarking.drop()">drop it</button>
        </p>
      </form>
      <button v-else-if="review.me" class="plain word" @click="remarking.start()">
        remark something <kbd>{{ keysOf('remark') }}</kbd>
      </button>
      <div class="list">
        <RemarkList ref="list" :remarks="remarks" :with-frames="everywhere" @go-to="desk.goTo" />
        <p v-if="!remarks.length && !remarking.isOn.value" class="soft">
          {{ everywhere ? 'No remark is open.' : 'Nothing is remarked here.' }}
        </p>
      </div>
    </section>
  </aside>
</template>

<style scoped>
.side {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--edge);
  border-left: 1px solid var(--rule);
}

section {
  padding: 12px 16px 10px;
}

section + section {
  border-top: 1px solid var(--rule);
}

.grows {
  display: flex;
  flex: 1;
  flex-direction: column;
  min-height: 0;
}

.list {
  min-height: 0;
  overflow-y: auto;
}

h2 {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin-bottom: 4px;
  font-size: 16px;
  font-weight: 500;
}

ul {
  max-height: 30vh;
  margin: 0;
  padding: 0;
  overflow-y: auto;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 18px 1fr;
  gap: 5px;
  padding: 3px 0;
  font-size: 13.5px;
  line-height: 1.35;
}

li > svg {
  margin-top: 2px;
  color: var(--rust);
}

p.soft {
  font-size: 13px;
}

.word {
  align-self: flex-start;
  min-height: 26px;
  margin-left: -4px;
  padding: 2px 4px;
  color: var(--green);
  font: 13px var(--sans);
}

textarea {
  width: 100%;
  padding: 6px 8px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  resize: vertical;
}

.acts {
  display: flex;
  align-items: center;
  gap: 14px;
  margin: 6px 0 8px;
}
</style>
