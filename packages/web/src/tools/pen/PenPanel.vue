<script setup lang="ts">
import { SIDE_BUTTONS } from '@unhurried/contract'
import { NIB_ENDS, NIB_LOOKS, type NibEnds, type NibLook } from '@unhurried/core/geometry'
import { ElSlider } from 'element-plus'
import { computed } from 'vue'
import { PEN_WORDS, PENS, PENS_AS_THEY_CAME, type PenSettings } from '../../strokes/pens.ts'
import { useHabits } from '../../stores/habits.ts'
import { useKit } from '../../stores/kit.ts'
import { useSight } from '../../stores/sight.ts'
import PenPatch from './PenPatch.vue'
import PenSample from './PenSample.vue'
import WordChoice from '../../shared/WordChoice.vue'

/** The pens in the case, the settings of the one in the hand, and a scrap of paper to try it on. */
const kit = useKit()
const sight = useSight()
const habits = useHabits()
const SIDE_WORDS: Record<(typeof SIDE_BUTTONS)[number], string> = {
  paper: 'moves the paper',
  'rub-out': 'rubs out',
  gather: 'gathers',
  nothing: 'nothing',
}
const pen = computed(() => kit.pens[kit.pen])
const colour = computed(() => sight.colours({ swatch: kit.swatch, label: kit.label }))

const set = kit.setPen
const LOOKS: Record<NibLook, string> = {
  ink: 'a crisp line',
  pencil: 'grain that builds up',
  brush: 'soft edges that build up',
}
const ENDS: Record<NibEnds, string> = { round: 'round', tapered: 'to a point', blunt: 'cut off' }
const looks = NIB_LOOKS.map(value => ({ value, words: value, tip: LOOKS[value] }))
const ends = NIB_ENDS.map(value => ({ value, words: value, tip: `Lines end ${ENDS[value]}` }))
const FINGERS = [
  {
    value: null,
    words: 'as it comes',
    tip: 'It draws as long as no pen was seen on this machine; then it moves the paper',
  },
  { value: true, words: 'draws', tip: 'Two fingers move and turn the paper' },
  { value: false, words: 'moves the paper', tip: 'Two fingers turn it too' },
]
const sideButtons = SIDE_BUTTONS.map(value => ({ value, words: SIDE_WORDS[value] }))
const SLIDERS = [
  {
    name: 'width by pressure',
    of: (p: PenSettings) => p.nib.thinning,
    to: (v: number) => ({ nib: { ...pen.value.nib, thinning: v } }),
  },
  { name: 'thinner when fast', of: (p: PenSettings) => p.bySpeed, to: (v: number) => ({ bySpeed: v }) },
  { name: 'smoothing', of: (p: PenSettings) => p.smoothing, to: (v: number) => ({ smoothing: v }) },
]
</script>

<template>
  <div class="pens">
    <div class="case" role="radiogroup" aria-label="Pens">
      <button
        v-for="name in PENS"
        :key="name"
        class="pen"
        role="radio"
        :aria-checked="kit.pen === name"
        :class="{ on: kit.pen === name }"
        @click="kit.pen = name"
      >
        <PenSample :pen="kit.pens[name]" :colour="colour" :width="112" :height="30" />
        <span>{{ PEN_WORDS[name] }}</span>
        <small>{{ Math.round(kit.pens[name].width * 10) / 10 }} px</small>
      </button>
    </div>
    <div class="settings">
      <div class="row">
        <WordChoice
          label="What it is"
          :options="looks"
          :model-value="pen.nib.look"
          @update:model-value="look => set({ nib: { ...pen.nib, look } })"
        />
        <span class="gap" />
        <WordChoice
          v-if="pen.nib.look !== 'brush'"
          label="How lines end"
          :options="ends"
          :model-value="pen.nib.ends"
          @update:model-value="ends => set({ nib: { ...pen.nib, ends } })"
        />
      </div>
      <div class="setting">
        <span>width</span>
        <ElSlider
          :model-value="pen.width"
          :min="1"
          :max="pen.nib.look === 'brush' ? 160 : 60"
          :step="0.5"
          :show-tooltip="false"
          aria-label="Width"
          @update:model-value="(v: unknown) => set({ width: Number(v) })"
        />
        <b>{{ Math.round(pen.width * 10) / 10 }} px</b>
      </div>
      <div v-for="slider in SLIDERS" :key="slider.name" class="setting">
        <span>{{ slider.name }}</span>
        <ElSlider
          :model-value="slider.of(pen)"
          :min="0"
          :max="1"
          :step="0.05"
          :show-tooltip="false"
          :aria-label="slider.name"
          @update:model-value="(v: unknown) => set(slider.to(Number(v)))"
        />
        <b>{{ Math.round(slider.of(pen) * 100) }} %</b>
      </div>
      <PenPatch />
      <p class="side">
        <span>a finger</span>
        <WordChoice v-model="habits.fingerDraws" label="What a finger does" :options="FINGERS" />
      </p>
      <p class="side">
        <span>side button</span>
        <WordChoice v-model="habits.sideButton" label="The pen’s side button" :options="sideButtons" />
      </p>
      <button class="plain link again" @click="set(PENS_AS_THEY_CAME[kit.pen])">this pen as it came</button>
    </div>
  </div>
</template>

<style scoped>
.pens {
  display: grid;
  grid-template-columns: 138px 358px;
  gap: 18px;
}

.side {
  display: flex;
  align-items: baseline;
  margin-top: 6px;
  font-size: 12.5px;
  white-space: nowrap;
}

.side > span:first-child {
  margin-right: auto;
}

.case {
  display: flex;
  flex-direction: column;
  gap: 2px;
  border-right: 1px solid var(--rule);
  padding-right: 12px;
}

.pen {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 6px;
  padding: 6px 8px;
  border: 0;
  border-radius: 8px;
  background: none;
  text-align: left;
  cursor: pointer;
}

.pen canvas {
  grid-column: span 2;
}

.pen small {
  white-space: nowrap;
  color: var(--soft);
}

.pen.on {
  background: var(--green-wash);
  font-weight: 700;
}

.row {
  display: flex;
  gap: 4px;
  margin-bottom: 6px;
}

.gap {
  width: 18px;
}

.setting {
  display: grid;
  grid-template-columns: 122px 1fr 52px;
  gap: 12px;
  align-items: center;
  height: 28px;
}

.setting b {
  text-align: right;
}

.link {
  color: var(--green);
  padding-left: 0;
}

.again {
  margin-top: 4px;
}
</style>
