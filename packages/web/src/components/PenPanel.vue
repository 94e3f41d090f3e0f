<script setup lang="ts">
import { SIDE_BUTTONS } from '@unhurried/contract'
import { NIB_ENDS, NIB_LOOKS, type NibEnds, type NibLook } from '@unhurried/core/geometry'
import { ElSlider } from 'element-plus'
import { computed } from 'vue'
import { PEN_WORDS, PENS, PENS_AS_THEY_CAME, type PenSettings } from '../desk/pens.ts'
import { useHabits } from '../stores/habits.ts'
import { useDesk } from '../stores/desk.ts'
import PenPatch from './PenPatch.vue'
import PenSample from './PenSample.vue'

/** The pens in the case, the settings of the one in the hand, and a scrap of paper to try it on. */
const desk = useDesk()
const habits = useHabits()
const SIDE_WORDS: Record<(typeof SIDE_BUTTONS)[number], string> = {
  paper: 'moves the paper',
  'rub-out': 'rubs out',
  gather: 'gathers',
  nothing: 'nothing',
}
const pen = computed(() => desk.pens[desk.pen])
const colour = computed(() => desk.colours({ swatch: desk.swatch, label: desk.label }))

const set = desk.setPen
const LOOKS: Record<NibLook, string> = {
  ink: 'a crisp line',
  pencil: 'grain that builds up',
  brush: 'soft edges that build up',
}
const ENDS: Record<NibEnds, string> = { round: 'round', tapered: 'to a point', blunt: 'cut off' }
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
        :aria-checked="desk.pen === name"
        :class="{ on: desk.pen === name }"
        @click="desk.pen = name"
      >
        <PenSample :pen="desk.pens[name]" :colour="colour" :width="112" :height="30" />
        <span>{{ PEN_WORDS[name] }}</span>
        <small>{{ Math.round(desk.pens[name].width * 10) / 10 }} px</small>
      </button>
    </div>
    <div class="settings">
      <div class="row" role="radiogroup" aria-label="What it is">
        <button
          v-for="look in NIB_LOOKS"
          :key="look"
          class="choice"
          role="radio"
          :aria-checked="pen.nib.look === look"
          :class="{ on: pen.nib.look === look }"
          :title="LOOKS[look]"
          @click="set({ nib: { ...pen.nib, look } })"
        >
          {{ look }}
        </button>
        <span class="gap" />
        <template v-if="pen.nib.look !== 'brush'">
          <button
            v-for="ends in NIB_ENDS"
            :key="ends"
            class="choice"
            role="radio"
            :aria-checked="pen.nib.ends === ends"
            :class="{ on: pen.nib.ends === ends }"
            :title="`Lines end ${ENDS[ends]}`"
            @click="set({ nib: { ...pen.nib, ends } })"
          >
            {{ ends }}
          </button>
        </template>
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
      <label class="finger">
        <input v-model="habits.fingerDraws" type="checkbox" />
        <span>a finger draws too <span class="soft">(else it moves the paper; two turn it)</span></span>
      </label>
      <p class="side" role="radiogroup" aria-label="The pen’s side button">
        <span>side button</span>
        <button
          v-for="does in SIDE_BUTTONS"
          :key="does"
          class="choice"
          role="radio"
          :aria-checked="habits.sideButton === does"
          :class="{ on: habits.sideButton === does }"
          @click="habits.sideButton = does"
        >
          {{ SIDE_WORDS[does] }}
        </button>
      </p>
      <button class="plain link again" @click="set(PENS_AS_THEY_CAME[desk.pen])">this pen as it came</button>
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

.side span {
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

.finger {
  display: flex;
  gap: 7px;
  align-items: center;
  margin-top: 6px;
  font-size: 12.5px;
}

.finger input {
  accent-color: var(--green);
}

.again {
  margin-top: 4px;
}
</style>
