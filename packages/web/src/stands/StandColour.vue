<script setup lang="ts">
import { addSwatch } from '@unhurried/core/document'
import { ref, watch } from 'vue'
import { newId } from '../local/ids.ts'
import TextField from '../shared/TextField.vue'
import { useKit } from '../stores/kit.ts'
import { useShot } from '../stores/shot.ts'
import { oneLine } from '../words/oneLine.ts'

/** A colour that was taken from what stands beside the paper: named, and put into the palette and the hand; one that is there already is only taken into the hand. */
const props = defineProps<{ colour: string; from: string }>()
const emit = defineEmits<{ done: [] }>()
const shot = useShot()
const kit = useKit()
const name = ref('')
watch(
  () => props.colour,
  colour => (name.value = oneLine(`${props.from} ${colour}`)),
  { immediate: true },
)
function intoPalette(): void {
  const { document } = shot
  if (!document) return
  const known = Object.values(document.swatches).find(swatch => swatch.colour === props.colour)
  const id = known?.id ?? newId()
  if (!known && shot.commit(`take the colour ${name.value}`, addSwatch(document, id, props.colour, name.value))) return
  kit.swatch = id
  emit('done')
}
</script>

<template>
  <p>
    <span class="chip" :style="{ background: colour }" aria-hidden="true" />
    <TextField :text="name" :most="80" label="Name of the colour" @done="typed => (name = oneLine(typed) || name)" />
    <button class="plain word" @click="intoPalette">into the palette</button>
  </p>
</template>

<style scoped>
.chip {
  width: 18px;
  height: 18px;
  border-radius: 5px;
  border: 1px solid var(--rule);
}

.word {
  padding-left: 4px;
  color: var(--green);
}
</style>
