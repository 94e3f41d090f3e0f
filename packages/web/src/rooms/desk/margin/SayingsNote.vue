<script setup lang="ts">
import {
  addSaying,
  changeSaying,
  exposures,
  marksOf,
  removeSaying,
  SAYINGS,
  swatchesInOrder,
  type Saying,
  type SayingKind,
} from '@unhurried/core/document'
import { holds, sayingInWords } from '@unhurried/core/measure'
import { framesTold } from '@unhurried/core/time'
import { X } from 'lucide-vue-next'
import { computed, ref, watch } from 'vue'
import { newId } from '../../../local/ids.ts'
import NumberField from '../../../shared/NumberField.vue'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'

/** What cannot be measured and is said: this part is still, that one follows, these two touch. Checks ask whether it is so. */
const shot = useShot()
const desk = useDesk()
const length = computed(() => shot.take?.length ?? 1)
const all = computed(() => {
  const { document } = shot
  if (!document) return []
  return Object.values(document.sayings)
    .sort((a, b) => a.from - b.from || a.id.localeCompare(b.id))
    .map(saying => ({
      saying,
      // Its frames stand below.
      words: sayingInWords(document, { ...saying, from: 0, to: length.value }, length.value),
      holds: holds(document, saying),
    }))
})

const KINDS: Readonly<Record<SayingKind, string>> = {
  still: 'is still',
  follows: 'follows',
  touches: 'touches',
  size: 'stays as far from',
  goes: 'comes and goes',
  large: 'stays as large',
  reads: 'is to be read',
}
const kind = ref<SayingKind>('still')
const first = ref('')
const second = ref('')
/** Marks of this layer first, then those of others: what touches may lie on another layer. */
const marks = computed(() => {
  const { document } = shot
  if (!document) return []
  const own = marksOf(document, desk.layerId).filter(mark => mark.kind === 'point')
  const others = Object.values(document.marks).filter(mark => mark.kind === 'point' && mark.layer !== desk.layerId)
  return [
    ...own.map(mark => ({ id: mark.id, name: mark.name })),
    ...others.map(mark => ({ id: mark.id, name: `${mark.name} (${document.layers[mark.layer]?.name ?? ''})` })),
  ]
})
const things = computed(() => {
  const { document } = shot
  if (!document || SAYINGS[kind.value].of === 'marks') return marks.value
  if (SAYINGS[kind.value].most === 0) return [{ id: '', name: 'the pose' }]
  const swatches = swatchesInOrder(document).map(({ id, name }) => ({ id, name }))
  return kind.value === 'still' ? [{ id: '', name: 'all that is drawn' }, ...swatches] : swatches
})
const wantsTwo = computed(() => SAYINGS[kind.value].least === 2)
watch(
  [things, kind],
  () => {
    const has = (id: string) => things.value.some(thing => thing.id === id)
    if (!has(first.value)) first.value = things.value[0]?.id ?? ''
    if (!has(second.value) || second.value === first.value) {
      second.value = things.value.find(thing => thing.id !== first.value)?.id ?? ''
    }
  },
  { immediate: true },
)
const about = computed(() => (wantsTwo.value ? [first.value, second.value] : first.value === '' ? [] : [first.value]))
const fits = computed(() => {
  const { least } = SAYINGS[kind.value]
  if (kind.value === 'reads') return desk.selection !== null || desk.drawing !== null
  return about.value.length >= least && new Set(about.value).size === about.value.length && !about.value.includes('')
})
/** Of the frames that are marked on the sheet, or of all; a pose is that of the drawing in the hand. */
const frames = computed(() => {
  if (desk.selection) return desk.selection
  const all = { from: 0, to: length.value }
  if (kind.value !== 'reads' || !shot.take) return all
  const run = exposures(shot.take, desk.layerId).find(
    ({ start, frames: held }) => desk.frame >= start && desk.frame < start + held,
  )
  return run ? { from: run.start, to: run.start + run.frames } : all
})
function say(): void {
  const { from, to } = frames.value
  const saying: Saying = { id: newId(), kind: kind.value, layer: desk.layerId, about: about.value, from, to }
  if (shot.document && fits.value) shot.commit(sayingInWords(shot.document, saying, length.value), addSaying(saying))
}
const change = (saying: Saying, patch: Partial<Pick<Saying, 'from' | 'to'>>) =>
  shot.commit('what is said', changeSaying(saying, patch), { joins: true })
const remove = ({ saying, words }: { saying: Saying; words: string }) =>
  shot.commit(`no longer: ${words}`, removeSaying(saying.id))
</script>

<template>
  <div>
    <ul v-if="all.length">
      <li v-for="one in all" :key="one.saying.id">
        <span :class="{ soft: !one.holds }">{{ one.words }}</span>
        <button v-if="shot.mayDraw" class="plain away" :aria-label="`no longer: ${one.words}`" @click="remove(one)">
          <X :size="14" aria-hidden="true" />
        </button>
        <span class="frames soft">
          frames
          <NumberField
            :value="one.saying.from + 1"
            :take="n => n !== null && change(one.saying, { from: Math.max(0, Math.round(n) - 1) })"
            :least="1"
            :step="1"
            :disabled="!shot.mayDraw"
            :label="`${one.words}: first frame`"
          />
          –
          <NumberField
            :value="Math.min(one.saying.to, length)"
            :take="n => n !== null && change(one.saying, { to: Math.max(1, Math.round(n)) })"
            :least="1"
            :step="1"
            :disabled="!shot.mayDraw"
            :label="`${one.words}: last frame`"
          />
        </span>
      </li>
    </ul>
    <p v-else class="soft told">
      What nobody can measure is said here, and then asked of every drawing: a stone is still, a tail follows the body,
      a hand touches the letter, a pose is to be read.
    </p>
    <form v-if="shot.mayDraw" @submit.prevent="say">
      <select v-model="first" :aria-label="wantsTwo ? 'The one' : 'What'" :disabled="!things.length">
        <option v-for="thing in things" :key="thing.id" :value="thing.id">{{ thing.name }}</option>
      </select>
      <select v-model="kind" aria-label="What is said">
        <option v-for="(words, name) in KINDS" :key="name" :value="name">{{ words }}</option>
      </select>
      <select v-if="wantsTwo" v-model="second" aria-label="The other" :disabled="!things.length">
        <option v-for="thing in things" :key="thing.id" :value="thing.id">{{ thing.name }}</option>
      </select>
      <button class="plain word" :disabled="!fits">
        say it{{ frames.from > 0 || frames.to < length ? `, ${framesTold(frames.from, frames.to)}` : '' }}
      </button>
    </form>
    <p v-if="shot.mayDraw && wantsTwo && marks.length < 2" class="soft told">It needs two marks on the drawings.</p>
  </div>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 24px;
  align-items: center;
  gap: 2px 6px;
  padding: 3px 0;
  border-bottom: 1px solid var(--rule-faint);
  font-size: 12.5px;
  line-height: 1.3;
}

.frames {
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  gap: 3px;
}

.frames :deep(input) {
  width: 40px;
  padding: 1px 3px;
  text-align: right;
  appearance: textfield;
}

.away {
  display: grid;
  place-items: center;
  min-height: 24px;
  padding: 0;
}

form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 4px;
  margin-top: 6px;
}

select {
  min-width: 0;
  min-height: 26px;
  padding: 1px 4px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  font-size: 12.5px;
}

.word {
  grid-column: 1 / -1;
  min-height: 26px;
  justify-self: start;
  padding: 2px 6px;
  color: var(--green);
  font-size: 12.5px;
}

.told {
  font-size: 12.5px;
}
</style>
