<script setup lang="ts">
import { beatsHeld, type Sound } from '@unhurried/core/document'
import { counted } from '@unhurried/core/time'
import { computed } from 'vue'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'
import { useSound } from '../../../stores/sound.ts'
import { useSoundActs } from '../../../stores/soundActs.ts'

/** Where a track sets in and its tempo, to be taken as beats; and beats held against poses. */
const props = defineProps<{ track: Sound }>()
const sensitivity = defineModel<number>({ required: true })
const shot = useShot()
const desk = useDesk()
const sound = useSound()
const acts = useSoundActs()
const isThere = computed(() => sound.heard.get(props.track.media)?.state === 'there')
const found = computed(() =>
  sound
    .onsets(props.track.media, sensitivity.value)
    .filter(({ seconds }) => seconds >= props.track.skip && seconds < props.track.skip + props.track.use),
)
const tempo = computed(() => sound.tempo(props.track.media))

/** A pose farther than this from an accent has nothing to do with it. */
const WITHIN_FRAMES = 4
const held = computed(() => (shot.document && shot.take ? beatsHeld(shot.document, shot.take, WITHIN_FRAMES) : null))
const without = computed(() => held.value?.accents.filter(one => one.pose === null) ?? [])
const off = computed(() => held.value?.accents.filter(one => one.offFrames) ?? [])
const late = (n: number | null) => `${Math.abs(n ?? 0)} ${(n ?? 0) > 0 ? 'late' : 'early'}`
</script>

<template>
  <div class="accents">
    <p v-if="isThere && shot.mayDraw" class="line">
      <label>
        accents
        <input
          v-model.number="sensitivity"
          type="range"
          min="0"
          max="1"
          step="0.02"
          aria-label="How much is listened for"
        />
      </label>
      <b>{{ counted(found.length, 'place') }}</b> where it sets in
      <button
        class="plain word"
        :disabled="found.length === 0"
        @click="
          acts.takeBeats(
            props.track,
            found.map(one => one.seconds),
            'accent',
          )
        "
      >
        take all as beats
      </button>
      <span class="soft">or press one on the track</span>
      <template v-if="tempo">
        <span
          >· about <b>{{ tempo.bpm.toFixed(1) }}</b> a minute</span
        >
        <button class="plain word" @click="acts.takeTempo(props.track)">beats of this tempo</button>
      </template>
    </p>
    <p v-if="held && held.accents.length" class="line held">
      <span v-if="!without.length && !off.length && !held.alone.length"
        >Every beat has its pose, and every pose its beat.</span
      >
      <span v-if="off.length">
        <span class="soft">off their beat:</span>
        <button
          v-for="one in off"
          :key="one.frame"
          class="plain place"
          :title="`Go to the pose on frame ${one.pose! + 1}`"
          @click="desk.goTo(one.pose!)"
        >
          {{ one.pose! + 1 }} ({{ late(one.offFrames) }})
        </button>
      </span>
      <span v-if="without.length">
        <span class="soft">beats without a pose:</span>
        <button
          v-for="one in without"
          :key="one.frame"
          class="plain place"
          title="Go there"
          @click="desk.goTo(one.frame)"
        >
          {{ one.frame + 1 }}
        </button>
      </span>
      <span v-if="held.alone.length">
        <span class="soft">poses without a beat:</span>
        <button v-for="frame in held.alone" :key="frame" class="plain place" title="Go there" @click="desk.goTo(frame)">
          {{ frame + 1 }}
        </button>
      </span>
    </p>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 10px;
  margin-top: 4px;
  font-size: 13px;
}

label {
  display: flex;
  align-items: center;
  gap: 6px;
}

input {
  width: 100px;
  accent-color: var(--green);
}

.place {
  min-width: 24px;
  padding: 1px 4px;
  font-variant-numeric: tabular-nums;
}
</style>
