<script setup lang="ts">
import { layWords, removeWords, wordsInOrder } from '@unhurried/core/document'
import { endsOn, spreadWords, tappedWords, wordsOf } from '@unhurried/core/sound'
import { counted } from '@unhurried/core/time'
import { ElInput } from 'element-plus'
import { computed, reactive, ref, watch } from 'vue'
import { newId } from '../../../local/ids.ts'
import NumberField from '../../../shared/NumberField.vue'
import { useShot } from '../../../stores/shot.ts'
import { useSound } from '../../../stores/sound.ts'

/** A typed line, spread as words over frames; or tapped along while it is heard. */
const props = defineProps<{ here: number; playing: boolean }>()
const emit = defineEmits<{ listen: [] }>()
const shot = useShot()
const sound = useSound()
const line = ref('')
const texts = computed(() => wordsOf(line.value))
const length = computed(() => shot.take?.length ?? 1)
const words = computed(() => (shot.document ? wordsInOrder(shot.document) : []))
const fps = computed(() => shot.document?.format.fps ?? 24)
const over = reactive({ from: 1, to: 1 })
// The stretch that the first track is heard on is where a line is most likely spoken.
watch(
  () => sound.sounds[0],
  one => {
    over.from = (one?.from ?? 0) + 1
    over.to = one ? Math.min(length.value, endsOn(one, fps.value)) : length.value
  },
  { immediate: true },
)

function spread(): void {
  if (!shot.document || over.to < over.from) return
  const spans = spreadWords(texts.value, over.from - 1, over.to)
  if (spans.length < texts.value.length)
    shot.notice = `${counted(texts.value.length - spans.length, 'word')} found no frame: each needs one at least.`
  if (shot.commit(`the line “${texts.value[0] ?? ''} …”`, layWords(shot.document, spans, newId)) === null)
    line.value = ''
}

const taps = ref<number[]>([])
function tap(): void {
  if (!props.playing) {
    taps.value = []
    emit('listen')
  } else taps.value = [...taps.value, props.here]
}
// What was tapped is laid when it has been heard.
watch(
  () => props.playing,
  playing => {
    if (playing || taps.value.length === 0 || !shot.document) return
    const spans = tappedWords(texts.value, taps.value, Math.round(fps.value / 3)).filter(
      span => span.from < length.value,
    )
    if (spans.length && shot.commit('words tapped along', layWords(shot.document, spans, newId)) === null)
      line.value = ''
    taps.value = []
  },
)
function clear(): void {
  if (shot.document)
    shot.commit(
      'take the words off',
      removeWords(
        shot.document,
        words.value.map(word => word.id),
      ),
    )
}
</script>

<template>
  <form v-if="shot.mayDraw" class="line" @submit.prevent="spread">
    <ElInput
      v-model="line"
      size="small"
      class="typed"
      maxlength="500"
      placeholder="The post is late again!"
      aria-label="A line that is spoken"
    />
    <span>over</span>
    <NumberField
      :value="over.from"
      :take="n => n !== null && (over.from = Math.max(1, Math.round(n)))"
      :step="1"
      :least="1"
      :most="length"
      label="From frame"
    />
    <span>to</span>
    <NumberField
      :value="over.to"
      :take="n => n !== null && (over.to = Math.max(1, Math.min(length, Math.round(n))))"
      :step="1"
      :least="1"
      :most="length"
      label="To frame"
    />
    <button class="plain word" :disabled="texts.length === 0">spread the words</button>
    <button
      type="button"
      class="plain word"
      :disabled="texts.length === 0"
      title="One tap at the beginning of each word, one more at the end"
      @click="tap"
    >
      {{ playing ? `tap: ${texts[taps.length] ?? 'the end'}` : 'tap along' }}
    </button>
    <button v-if="words.length" type="button" class="plain soft" @click="clear">
      take {{ counted(words.length, 'word') }} off
    </button>
  </form>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  margin-top: 6px;
  font-size: 13px;
}

.typed {
  flex: 1;
  min-width: 170px;
}
</style>
