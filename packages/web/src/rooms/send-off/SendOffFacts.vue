<script setup lang="ts">
import { find, isDelivered, layersInOrder, placeholdersIn, studyOf } from '@unhurried/core/document'
import { counted, secondsLabel, type LoopRange } from '@unhurried/core/time'
import { computed } from 'vue'
import { useShot } from '../../stores/shot.ts'
import { studyInWords } from '../../words/study.ts'

/** What will be sent, in figures; and what is to be known of it before it is. */
const props = defineProps<{
  range: LoopRange
  pictures: readonly { readonly frames: number; readonly blank: boolean }[]
  figures: readonly { readonly name: string; readonly says: string }[]
}>()
const shot = useShot()
const fps = computed(() => shot.document?.format.fps ?? 24)
const frames = computed(() => props.range.to - props.range.from)
const blanks = computed(() => props.pictures.filter(p => p.blank).reduce((sum, p) => sum + p.frames, 0))
/** Whose work it is redrawn from. */
const study = computed(() => (shot.document ? studyOf(shot.document, shot.filmStudy) : []))
/** Pictures that only stand for something, on what is sent off. */
const placeholders = computed(() => {
  const { document, take } = shot
  return document && take ? placeholdersIn(document, take, props.range) : 0
})
/** Layers whose way is left out. */
const pinned = computed(() => {
  const { document, take } = shot
  if (!document || !take) return ''
  const layers = layersInOrder(document).filter(
    layer => isDelivered(layer) && find(take.paths, layer.id)?.use === 'pin',
  )
  return layers.map(layer => layer.name).join(', ')
})
</script>

<template>
  <dl>
    <dt>frames {{ range.from + 1 }}–{{ range.to }}</dt>
    <dd>{{ frames }} at {{ fps }}</dd>
    <dt>lasts</dt>
    <dd>{{ secondsLabel(frames, fps) }}</dd>
    <template v-for="figure in figures" :key="figure.name">
      <dt>{{ figure.name }}</dt>
      <dd>{{ figure.says }}</dd>
    </template>
  </dl>
  <p v-if="study.length" class="rust">This is {{ studyInWords(study) }}; its file says so.</p>
  <p v-if="pinned" class="soft">
    {{ pinned }} is sent off on the spot: the way it has on the desk is for looking only.
  </p>
  <p v-if="placeholders" class="rust">
    {{ counted(placeholders, 'picture stands', 'pictures stand') }} for something that is still to be drawn.
  </p>
  <p v-if="blanks" class="rust">{{ counted(blanks, 'frame shows', 'frames show') }} no drawing: a blink of nothing.</p>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 3px 14px;
  padding: 8px 0;
  border-top: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
}

dt {
  color: var(--soft);
}

dd {
  text-align: right;
}
</style>
