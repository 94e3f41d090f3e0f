<script setup lang="ts">
import { LIMITS, type Sound, type SoundChange } from '@unhurried/core/document'
import { computed } from 'vue'
import NumberField from '../../../shared/NumberField.vue'
import SourceField from '../../../shared/SourceField.vue'
import TextField from '../../../shared/TextField.vue'
import { useMedia } from '../../../stores/media.ts'
import { useShot } from '../../../stores/shot.ts'
import { useSound } from '../../../stores/sound.ts'
import { useSoundActs } from '../../../stores/soundActs.ts'

/** One track in figures: where it begins, what of it is heard, how loud, whose it is; and how far it is on its way. */
const props = defineProps<{ track: Sound; several: string }>()
const shot = useShot()
const sound = useSound()
const media = useMedia()
const acts = useSoundActs()
const isShut = computed(() => !shot.mayDraw)
const hundredth = (n: number) => Math.round(n * 100) / 100
const change = (patch: SoundChange, joins = false) => acts.change(props.track, patch, joins)
const state = computed(() => sound.heard.get(props.track.media))
const way = computed(() => media.onTheirWay.find(one => one.id === props.track.media && one.film === shot.film))
const MB = 1024 * 1024
const inMB = (bytes: number) => (bytes / MB).toFixed(bytes < 10 * MB ? 1 : 0)
</script>

<template>
  <div class="fields" :aria-label="`Track ${sound.sounds.indexOf(props.track) + 1} of ${several}`" role="group">
    <TextField
      class="name"
      :text="props.track.name"
      :most="80"
      :disabled="isShut"
      label="Name of the sound"
      @done="name => name && change({ name })"
    />
    <label>
      begins on
      <NumberField
        :value="props.track.from + 1"
        :take="n => n !== null && change({ from: Math.max(0, Math.round(n) - 1) })"
        :step="1"
        :least="1"
        label="Frame the sound begins on"
        :disabled="isShut"
      />
    </label>
    <label title="Seconds of the recording that are left out at its beginning">
      leaves out
      <NumberField
        :value="hundredth(props.track.skip)"
        :take="n => n !== null && change({ skip: n })"
        :step="0.04"
        :least="0"
        label="Seconds left out at its beginning"
        :disabled="isShut"
      />
      s
    </label>
    <label>
      heard for
      <NumberField
        :value="hundredth(props.track.use)"
        :take="n => n !== null && change({ use: n })"
        :step="0.04"
        :least="0.02"
        label="Seconds that are heard"
        :disabled="isShut"
      />
      of {{ hundredth(props.track.seconds) }} s
    </label>
    <label class="loud">
      {{ Math.round(props.track.gain * 100) }} %
      <input
        type="range"
        min="0"
        :max="LIMITS.gain"
        step="0.05"
        :value="props.track.gain"
        :disabled="isShut"
        aria-label="How loud"
        @change="event => change({ gain: Number((event.target as HTMLInputElement).value) }, true)"
      />
    </label>
    <label class="tick">
      <input
        type="checkbox"
        :checked="props.track.muted"
        :disabled="isShut"
        @change="change({ muted: !props.track.muted })"
      />
      silent
    </label>
    <label class="tick" title="Only what is your own, or yours to use, is sent off with the film">
      <input
        type="checkbox"
        :checked="props.track.mine"
        :disabled="isShut"
        @change="change({ mine: !props.track.mine })"
      />
      mine: goes out with the film
    </label>
    <label v-if="!props.track.mine" title="Somebody else’s is for listening to only">
      whose
      <SourceField
        class="whose"
        :source="props.track.source"
        :disabled="isShut"
        placeholder="whose it is"
        label="Whose the sound is"
        @said="source => change({ source })"
      />
    </label>
    <button v-if="!isShut" class="plain word" @click="acts.remove(props.track)">take it off</button>
    <p v-if="state?.state === 'opening'" class="soft small" role="status">it is being opened …</p>
    <p v-else-if="state?.state === 'missing'" class="rust small" role="status">
      This recording {{ state.why }}. It is heard as soon as it is here.
    </p>
    <p v-if="way" class="small" :class="way.refused ? 'rust' : 'soft'" role="status">
      <template v-if="way.refused"
        >The server does not take it: {{ way.refused }} Take it off, or keep it on this machine.</template
      >
      <template v-else>on its way to the server: {{ inMB(way.sent) }} of {{ inMB(way.of) }} MB</template>
    </p>
  </div>
</template>

<style scoped>
.fields {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  font-size: 13px;
}

.fields p {
  flex-basis: 100%;
}

label {
  display: flex;
  align-items: center;
  gap: 5px;
  white-space: nowrap;
}

.name {
  width: 130px;
}

.loud input {
  width: 90px;
}

.whose {
  width: 150px;
}

input {
  accent-color: var(--green);
}
</style>
