<script setup lang="ts">
import type { ClipChange } from '@unhurried/core/document'
import { counted } from '@unhurried/core/time'
import { computed } from 'vue'
import NumberField from '../../../shared/NumberField.vue'
import SourceField from '../../../shared/SourceField.vue'
import { useClips } from '../../../stores/clips.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useMedia } from '../../../stores/media.ts'
import { useShot } from '../../../stores/shot.ts'
import { EXPOSURES } from '../../../words/exposures.ts'
import type { Commands } from '../commands.ts'
import ClipNotes from './ClipNotes.vue'
import ClipReading from './ClipReading.vue'

/** A clip under the paper: which of its pictures lies here, how it is laid, and what is done with it. */
defineProps<{ commands: Commands }>()
const shot = useShot()
const desk = useDesk()
const media = useMedia()
const clips = useClips()
const clip = computed(() => clips.one)
const isShut = computed(() => !shot.mayDraw)
const opened = computed(() => clip.value && clips.openedOf(clip.value))
const here = computed(() => (clip.value ? clips.numberUnder(clip.value, desk.frame) : null))
const where = computed(() => {
  const times = opened.value?.times.value ?? []
  if (opened.value?.state.value === 'broken') return 'It cannot be read here.'
  if (times.length === 0) return 'It is being opened, or has not arrived yet.'
  if (here.value === null) return 'Nothing of it lies under this frame.'
  return `picture ${here.value + 1} of ${times.length} lies here, ${(times[here.value] ?? 0).toFixed(2)} s`
})
const hundredth = (n: number) => Math.round(n * 100) / 100
const change = (patch: ClipChange, joins = false) => clip.value && clips.change(clip.value, patch, joins)
const way = computed(() => media.onTheirWay.find(one => one.id === clip.value?.media && one.film === shot.film))
const FIELDS = [
  { field: 'inS', words: 'from', unit: 's' },
  { field: 'outS', words: 'to', unit: 's' },
  { field: 'rate', words: 'its speed', unit: '×' },
] as const
/** What lies under the layer in the hand and is not drawn over yet. */
const left = computed(() => clips.untraced)
</script>

<template>
  <div v-if="!clip">
    <p class="soft told">
      A filmed movement, or an admired one, under the paper: to be drawn over on ones, twos or threes, and to have its
      timing read. MP4 or WebM; drop it on the paper, or
    </p>
    <button class="plain word" @click="commands.get('bring-in').run()">bring a clip in</button>
  </div>
  <div v-else class="fields">
    <label v-if="clips.all.length > 1">
      <span>clip</span>
      <select :value="clip.id" @change="event => (clips.chosen = (event.target as HTMLSelectElement).value)">
        <option v-for="one in clips.all" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
    </label>
    <p v-else class="head">
      <b>{{ clip.name }}</b>
    </p>
    <p class="told" role="status">{{ where }}</p>
    <p v-if="way" class="told" :class="way.refused ? 'why' : 'soft'">
      {{ way.refused ? `The server does not take it: ${way.refused}` : 'on its way to the server' }}
    </p>
    <label>
      <span>begins on</span>
      <NumberField
        :value="clip.from + 1"
        :take="n => n !== null && change({ from: Math.max(0, Math.round(n) - 1) })"
        :step="1"
        :least="1"
        :disabled="isShut"
        label="Frame the clip begins on"
      />
    </label>
    <label v-for="{ field, words, unit } in FIELDS" :key="field">
      <span>{{ words }}</span>
      <NumberField
        :value="hundredth(clip[field])"
        :take="n => n !== null && change({ [field]: n })"
        :step="field === 'rate' ? 0.25 : 0.04"
        :least="0"
        :disabled="isShut"
        :label="`Clip ${words}, ${unit}`"
      />
      <span class="soft">{{ unit }}</span>
    </label>
    <label class="wash">
      <span>paper over it</span>
      <input
        type="range"
        min="0"
        max="1"
        step="0.05"
        :value="clip.wash"
        :disabled="isShut"
        @change="event => change({ wash: Number((event.target as HTMLInputElement).value) }, true)"
      />
    </label>
    <label class="tick">
      <span>seen under the paper</span>
      <input type="checkbox" :checked="clip.shown" :disabled="isShut" @change="change({ shown: !clip.shown })" />
    </label>
    <label class="tick" title="Only what is your own can be sent off under the drawings">
      <span>mine: may be sent off</span>
      <input type="checkbox" :checked="clip.mine" :disabled="isShut" @change="change({ mine: !clip.mine })" />
    </label>
    <label v-if="!clip.mine" class="source" title="Somebody else’s work is here for practice only">
      <span>whose</span>
      <SourceField
        :source="clip.source"
        :disabled="isShut"
        placeholder="whose it is"
        label="Whose work the clip is"
        @said="source => change({ source })"
      />
    </label>
    <p v-if="!isShut" class="acts">
      <span class="soft">trace it on</span>
      <button
        v-for="on in [1, 2, 3]"
        :key="on"
        class="plain word"
        :title="`A layer over it with a blank drawing for every ${on === 1 ? 'frame' : `${on} frames`}`"
        @click="clips.trace(clip, on)"
      >
        {{ EXPOSURES[on - 1] }}
      </button>
    </p>
    <p v-if="left.length" class="told">
      <b>{{ counted(left.length, 'drawing') }}</b> on this layer not traced yet;
      <kbd>{{ commands.keysOf('next') }}</kbd> goes to the next.
    </p>
    <ClipNotes :clip="clip" :moment="here === null ? null : (opened?.times.value[here] ?? null)" />
    <ClipReading v-if="opened && opened.times.value.length > 1" :clip="clip" :times="opened.times.value" />
    <p class="acts">
      <button
        class="plain word"
        :aria-pressed="clips.away"
        :title="commands.tip('clips')"
        @click="clips.away = !clips.away"
      >
        {{ clips.away ? 'see it again' : 'paper alone' }}
      </button>
      <button v-if="!isShut" class="plain word" @click="clips.remove(clip)">take it away</button>
    </p>
  </div>
</template>

<style scoped src="./fields.css"></style>
<style scoped>
.head {
  margin: 2px 0;
}

.wash {
  grid-template-columns: auto minmax(0, 1fr);
}

.tick {
  grid-template-columns: minmax(0, 1fr) auto;
}

.source {
  grid-template-columns: auto minmax(0, 1fr);
}

input[type='range'] {
  padding: 0;
  accent-color: var(--green);
}
</style>
