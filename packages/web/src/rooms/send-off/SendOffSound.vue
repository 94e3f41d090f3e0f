<script setup lang="ts">
import { endsOn } from '@unhurried/core/sound'
import type { LoopRange } from '@unhurried/core/time'
import { ElSwitch } from 'element-plus'
import { computed } from 'vue'
import type { SendFormat } from '../../send/formats/format.ts'
import { useShot } from '../../stores/shot.ts'
import { useSound } from '../../stores/sound.ts'

/** Which sounds go along with what is sent off, and which stay, and why. */
const props = defineProps<{ format: SendFormat; range: LoopRange; disabled: boolean }>()
const on = defineModel<boolean>({ required: true })
const shot = useShot()
const sound = useSound()
const fps = computed(() => shot.document?.format.fps ?? 24)
/** Those that would be heard on the frames that are sent. */
const heard = computed(() =>
  sound.sounds.filter(
    one => !one.muted && one.gain > 0 && one.from < props.range.to && endsOn(one, fps.value) > props.range.from,
  ),
)
const names = (all: typeof heard.value) => all.map(one => one.name).join(', ')
const own = computed(() => heard.value.filter(one => one.mine))
const others = computed(() => heard.value.filter(one => !one.mine))
const away = computed(() => own.value.filter(one => sound.heard.get(one.media)?.state !== 'there'))
</script>

<template>
  <section v-if="heard.length" aria-label="Sound">
    <p v-if="format.sound === 'none'" class="soft">This format is silent.</p>
    <template v-else>
      <div v-if="own.length" class="row">
        <label class="label" for="sound">{{
          format.sound === 'beside' ? 'sound beside, as WAV' : 'with the sound'
        }}</label>
        <ElSwitch id="sound" v-model="on" :disabled="disabled" aria-label="With the sound" />
      </div>
      <p v-if="own.length && on" class="soft small">{{ names(own) }}</p>
      <p v-if="others.length" class="soft small">
        Stays here: {{ names(others) }}. Only what is marked as yours, in Plan, goes out with the film.
      </p>
      <p v-if="away.length" class="rust small">{{ names(away) }} is not here yet, and would be missing.</p>
    </template>
  </section>
</template>

<style scoped src="./goesAlong.css"></style>
