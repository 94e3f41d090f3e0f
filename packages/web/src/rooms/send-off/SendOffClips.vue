<script setup lang="ts">
import { clipEnds } from '@unhurried/core/document'
import type { LoopRange } from '@unhurried/core/time'
import { ElSwitch } from 'element-plus'
import { computed } from 'vue'
import { useClips } from '../../stores/clips.ts'
import { useShot } from '../../stores/shot.ts'

/** Which clips go out under the drawings, if one wishes, and which stay, and why. */
const props = defineProps<{ range: LoopRange; disabled: boolean }>()
const on = defineModel<boolean>({ required: true })
const shot = useShot()
const clips = useClips()
const fps = computed(() => shot.document?.format.fps ?? 24)
/** Those that are seen under the frames that are sent. */
const seen = computed(() =>
  clips.all.filter(clip => clip.shown && clip.from < props.range.to && clipEnds(clip, fps.value) > props.range.from),
)
const own = computed(() => seen.value.filter(clip => clips.toSend.includes(clip)))
const others = computed(() => seen.value.filter(clip => !clips.toSend.includes(clip)))
const names = (some: typeof seen.value) => some.map(clip => clip.name).join(', ')
</script>

<template>
  <section v-if="seen.length" aria-label="Clips">
    <div v-if="own.length" class="row">
      <label class="label" for="clips">with the clip under it</label>
      <ElSwitch id="clips" v-model="on" :disabled="disabled" aria-label="With the clip under it" />
    </div>
    <p v-if="own.length && on" class="soft small">{{ names(own) }}, without the paper that lies over it on the desk</p>
    <p v-if="others.length" class="soft small">
      Stays here: {{ names(others) }}. Only a clip that is marked as yours, at the desk, can go out under the drawings.
    </p>
  </section>
</template>

<style scoped src="./goesAlong.css"></style>
