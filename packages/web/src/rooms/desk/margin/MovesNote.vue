<script setup lang="ts">
import { judderOf, PATH_USES, placeOn, seamPx, type LayerPath, type PathUse } from '@unhurried/core/path'
import { computed, ref } from 'vue'
import NumberField from '../../../shared/NumberField.vue'
import WordChoice from '../../../shared/WordChoice.vue'
import { useCarried } from '../../../stores/carried.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'
import { pxInWords } from '../../../words/lengths.ts'
import { usePathActs } from '../acts/pathActs.ts'
import MovesSpacing from './MovesSpacing.vue'
import MovesWhole from './MovesWhole.vue'

/** How the layer in the hand moves as a whole, with no drawing made for it: by places on frames, or on and on at a speed. */
const shot = useShot()
const desk = useDesk()
const carried = useCarried()
const acts = usePathActs()
const why = ref('')
const whole = ref(false)
const isShut = computed(() => !acts.mayMove())
const path = computed(acts.now)
const here = computed(() => placeOn(path.value, desk.frame))
const DEGREES = 180 / Math.PI
const hundredth = (value: number) => Math.round(value * 100) / 100 + 0
const name = computed(() => shot.document?.layers[desk.timedLayer]?.name ?? '')

/** the place that holds now, and the next one */
const from = computed(() => path.value.keys.filter(key => key.frame <= desk.frame).at(-1) ?? path.value.keys[0]!)
const next = computed(() => path.value.keys.find(key => key.frame > desk.frame) ?? null)
const isPlace = computed(() => carried.path !== null && from.value.frame === desk.frame)
const where = computed(() => {
  if (!carried.path) return ''
  if (isPlace.value) return 'a place of its own'
  if (!next.value) return `after its place on ${from.value.frame + 1}`
  return desk.frame < from.value.frame
    ? `before its first place`
    : `between ${from.value.frame + 1} and ${next.value.frame + 1}`
})

const say = (answer: string | null) => (why.value = answer ?? '')
const put = (field: 'x' | 'y' | 'turnRad', value: number | null) =>
  value !== null && say(acts.place({ [field]: field === 'turnRad' ? value / DEGREES : value }))
const speed = (field: 'x' | 'y', value: number | null) =>
  say(acts.change({ speed: { ...path.value.speed, [field]: value ?? 0 } }))
const set = (patch: Partial<LayerPath>) => say(acts.change(patch))

const PLACES = [
  { field: 'x', words: 'to the right', unit: 'px' },
  { field: 'y', words: 'down', unit: 'px' },
  { field: 'turnRad', words: 'turned', unit: '°' },
] as const
const SPEEDS = [
  { field: 'x', words: 'speed right' },
  { field: 'y', words: 'speed down' },
] as const
const USES: Record<PathUse, { words: string; tip: string }> = {
  moves: { words: 'moves', tip: 'Seen, and sent off' },
  ground: { words: 'is the ground', tip: 'Seen, and sent off; what is planted on other layers stands on it' },
  pin: {
    words: 'for looking only',
    tip: 'A figure drawn on the spot: seen where it would be, and sent off on the spot',
  },
}
const uses = PATH_USES.map(value => ({ value, ...USES[value] }))

/** A picture that goes by quicker than this may judder. */
const JUDDER_S = 5
const told = computed(() => {
  const { document, take } = shot
  if (!document || !take || !carried.path) return []
  const said: string[] = []
  const { width, fps } = document.format
  const jump = take.loop ? seamPx(path.value, take.loop) : 0
  if (jump >= 0.5) said.push(`where the loop begins again it jumps by ${pxInWords(jump)} px`)
  const judder = judderOf(path.value, width, fps, JUDDER_S)
  if (judder) said.push(judder)
  return said
})
</script>

<template>
  <div>
    <p v-if="!carried.path" class="soft told">
      All of {{ name }} can move with no drawing made for it: a held part that travels, a ground that passes, a slow
      camera. Put it elsewhere on some frame, or give it a speed.
    </p>
    <div class="fields">
      <p class="head">
        <b>on frame {{ desk.frame + 1 }}</b> <span class="soft">{{ where }}</span>
      </p>
      <label v-for="{ field, words, unit } in PLACES" :key="field">
        <span>{{ words }}</span>
        <NumberField
          :value="hundredth(field === 'turnRad' ? here.turnRad * DEGREES : here[field])"
          :take="value => put(field, value)"
          :label="`${words}, ${unit}`"
          :step="1"
          :disabled="isShut"
        />
        <span class="soft">{{ unit }}</span>
      </label>
      <MovesSpacing
        v-if="carried.path && next && desk.frame >= from.frame"
        :from="from"
        :to="next.frame"
        :on="path.on"
        :shut="isShut"
        :space="patch => say(acts.space(from.frame, patch))"
      />
      <p v-if="carried.path && path.keys.length > 1" class="places">
        <button
          v-for="{ frame } in path.keys"
          :key="frame"
          class="plain place"
          :class="{ on: frame === desk.frame }"
          :title="`Go to the place on frame ${frame + 1}`"
          @click="desk.goTo(frame)"
        >
          {{ frame + 1 }}
        </button>
        <button
          v-if="isPlace"
          class="plain word"
          :disabled="isShut"
          title="Takes the place on this frame out"
          @click="say(acts.takeOut(desk.frame))"
        >
          take it out
        </button>
      </p>
      <label v-for="{ field, words } in SPEEDS" :key="words">
        <span>{{ words }}</span>
        <NumberField
          :value="hundredth(path.speed[field])"
          :take="value => speed(field, value)"
          :label="`${words}, px a frame`"
          :step="0.5"
          :disabled="isShut"
        />
        <span class="soft">px/frame</span>
      </label>
      <MovesWhole v-if="carried.path && whole" :path="path" :shut="isShut" :set="set" />
      <WordChoice
        v-if="carried.path"
        label="What the movement is"
        :options="uses"
        :model-value="path.use"
        @update:model-value="use => set({ use })"
      />
      <button v-if="carried.path" class="plain soft all" :aria-expanded="whole" @click="whole = !whole">
        {{ whole ? 'fewer' : 'all numbers' }}
      </button>
      <p v-if="why" class="why" role="alert">{{ why }}</p>
    </div>
    <p v-for="sentence in told" :key="sentence" class="soft told">{{ sentence }}</p>
    <p v-if="carried.path" class="acts">
      <button
        class="plain word"
        :aria-pressed="carried.atRest"
        title="For looking: every layer lies where it was drawn"
        @click="carried.atRest = !carried.atRest"
      >
        {{ carried.atRest ? 'see it move' : 'see it where it was drawn' }}
      </button>
      <button class="plain word" :disabled="isShut" @click="say(acts.lieStill())">lie still</button>
    </p>
  </div>
</template>

<style scoped src="./fields.css"></style>
<style scoped>
.head {
  margin: 2px 0;
}

.all {
  justify-self: start;
  padding-left: 0;
}

.places {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 4px;
}

.place {
  min-width: 24px;
  padding: 0 4px;
  font-variant-numeric: tabular-nums;
}

.on {
  color: var(--ink);
  font-weight: 700;
}
</style>
