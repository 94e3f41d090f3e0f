<script setup lang="ts">
import { ElInput } from 'element-plus'
import { onMounted, ref, watch } from 'vue'

/** A text that is changed when one is done with it: on Enter or on leaving the field; Escape puts back what was there. */
const props = defineProps<{ text: string; most: number; label: string; disabled?: boolean; begins?: boolean }>()
const emit = defineEmits<{ done: [text: string] }>()
const typed = ref(props.text)
const field = ref<InstanceType<typeof ElInput> | null>(null)
watch(
  () => props.text,
  text => (typed.value = text),
)
onMounted(() => props.begins && field.value?.select())

function done(): void {
  const text = typed.value.replace(/\p{Cc}+/gu, ' ').trim()
  if (!text) typed.value = props.text
  emit('done', text || props.text)
}
/** What was typed is put back first; with nothing typed, Escape is for what the field stands in. */
function putBack(event: Event): void {
  if (typed.value === props.text && !props.begins) return
  event.stopPropagation()
  typed.value = props.text
  emit('done', props.text)
}
</script>

<template>
  <ElInput
    ref="field"
    v-model="typed"
    size="small"
    :maxlength="most"
    :disabled="disabled"
    :aria-label="label"
    @keydown.enter="done"
    @keydown.esc="putBack"
    @blur="done"
  />
</template>
