<script setup lang="ts">
import { LABELS, type Label } from '@unhurried/core/document'
import { useEventListener } from '@vueuse/core'
import { ElPopover, ElSlider } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { LABEL_COLOURS } from '../desk/colours.ts'
import { TAKES, type Takes } from '../desk/edits.ts'
import { KEEPS, type Keeps } from '../desk/figureHand.ts'
import { PEN_WORDS } from '../desk/pens.ts'
import { useDesk } from '../stores/desk.ts'
import { drawsLines } from '../stores/settings.ts'
import { useLetters } from '../stores/letters.ts'
import LettersPanel from './LettersPanel.vue'
import PenPanel from './PenPanel.vue'
import WordChoice from './WordChoice.vue'

/** What the tool in the hand is set to, and its settings. */
const desk = useDesk()
const letters = useLetters()
// The typeface is fetched when letters are taken up, so that it is there when the pen comes down.
watch(
  () => desk.tool === 'letters',
  taken => taken && void letters.shape(),
  { immediate: true },
)
const PUSH_MOST_PX = 400
const most = computed(() => (desk.tool === 'push' ? PUSH_MOST_PX : 80))
const hasSettings = computed(() => desk.tool !== 'mark' && desk.tool !== 'trace')
const goesThrough = computed(() => ['gather', 'rub-out', 'trim'].includes(desk.tool))
const TAKES_WORDS: Record<Takes, string> = { all: 'all', line: 'lines', shape: 'paint' }
const TAKEN = TAKES.map(value => ({ value, words: TAKES_WORDS[value] }))
const GATHERED_BY = [
  { value: 'loop', words: 'loop' },
  { value: 'box', words: 'box' },
] as const
const GATHERED_PARTS = [
  { value: false, words: 'whole' },
  { value: true, words: 'cut where it crosses' },
] as const
const KEEPS_WORDS: Record<Keeps, string> = { free: 'free', area: 'area', volume: 'volume' }
const open = ref(false)
/** The settings are made when they are first asked for: their samples of pens take as long to paint as a drawing. */
const wasOpen = ref(false)
watch(open, now => (wasOpen.value ||= now))
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if (event.key === 'Escape') open.value = false
})
const dot = computed(() => `${Math.min(24, Math.max(2, desk.width ?? 1))}px`)
const KEEPS_TIPS: Record<Keeps, string> = {
  free: 'From corner to corner',
  area: 'Pulled from its middle, its area kept: a flat shape squashed and stretched',
  volume: 'Pulled from its middle, its volume kept: a body as deep as it is wide',
}
function setRadius(event: Event): void {
  const field = event.target as HTMLInputElement
  const radius = Number(field.value)
  if (radius >= 1 && radius <= 4000) desk.round = { ...desk.round, radius }
  else field.value = String(desk.round.radius)
}
const LABEL_WORDS: Record<Label, string> = { near: 'near limb', far: 'far limb' }
</script>

<template>
  <div v-if="hasSettings" class="settings">
    <ElPopover
      v-model:visible="open"
      trigger="click"
      placement="top"
      :width="drawsLines(desk.tool) ? 550 : desk.tool === 'letters' ? 360 : 280"
    >
      <template #reference>
        <button class="tip" :title="`Settings of the tool in the hand`">
          <span v-if="desk.width !== null" class="dot" :style="{ width: dot, height: dot }" />
          <template v-if="drawsLines(desk.tool)">
            <b>{{ PEN_WORDS[desk.pen] }}</b>
          </template>
          <span>{{
            desk.width === null
              ? desk.tool === 'gather'
                ? desk.gathering.by
                : desk.tool === 'letters'
                  ? `${Math.round(letters.settings.sizePx)} px`
                  : 'edge'
              : `${Math.round(desk.width * 10) / 10} px`
          }}</span>
        </button>
      </template>
      <template v-if="!wasOpen" />
      <PenPanel v-else-if="drawsLines(desk.tool)" />
      <LettersPanel v-else-if="desk.tool === 'letters'" />
      <template v-else-if="desk.width !== null">
        <p class="setting">
          {{ desk.tool === 'push' ? 'reach' : 'width' }} <b>{{ desk.width }} px</b>
        </p>
        <ElSlider v-model="desk.width" :min="1" :max="most" :show-tooltip="false" aria-label="Width" />
        <p v-if="desk.tool !== 'push'" class="choices">
          takes off
          <WordChoice v-model="desk.takes" label="Takes off" :options="TAKEN" />
        </p>
      </template>
      <template v-else-if="desk.tool === 'gather'">
        <p class="choices">
          gather with a
          <WordChoice
            label="Gather by"
            :options="GATHERED_BY"
            :model-value="desk.gathering.by"
            @update:model-value="by => (desk.gathering = { ...desk.gathering, by })"
          />
        </p>
        <p class="choices">
          strokes
          <WordChoice
            label="Gather strokes"
            :options="GATHERED_PARTS"
            :model-value="desk.gathering.parts"
            @update:model-value="parts => (desk.gathering = { ...desk.gathering, parts })"
          />
        </p>
        <p class="soft">Shift adds to what is gathered, Alt takes away; a tap takes one stroke.</p>
      </template>
      <template v-else>
        <p class="setting">
          smoothing of the edge <b>{{ Math.round(desk.shapeSmoothing * 100) }} %</b>
        </p>
        <ElSlider
          v-model="desk.shapeSmoothing"
          :min="0"
          :max="1"
          :step="0.05"
          :show-tooltip="false"
          aria-label="Smoothing"
        />
        <p class="soft">More smoothing lags further behind the pen.</p>
      </template>
      <label v-if="goesThrough" class="through">
        <input v-model="desk.through" type="checkbox" />
        through all marked drawings
        <span class="soft">{{
          desk.markedDrawings.length ? `(${desk.markedDrawings.length} are marked)` : '(none is marked on the sheet)'
        }}</span>
      </label>
    </ElPopover>
    <div v-if="desk.tool === 'round'" class="keeps" role="radiogroup" aria-label="Pulled">
      <button
        v-for="keeps in KEEPS"
        :key="keeps"
        class="label"
        role="radio"
        :aria-checked="desk.round.keeps === keeps"
        :class="{ on: desk.round.keeps === keeps }"
        :title="KEEPS_TIPS[keeps]"
        @click="desk.round = { ...desk.round, keeps }"
      >
        {{ KEEPS_WORDS[keeps] }}
      </button>
      <label v-if="desk.round.keeps !== 'free'" class="rest" title="Radius of the body at rest, in paper pixels">
        rest
        <input
          :value="desk.round.radius"
          type="number"
          min="1"
          max="4000"
          aria-label="Radius at rest, px"
          @change="event => setRadius(event)"
        />
      </label>
      <button
        class="label"
        :aria-pressed="desk.round.painted"
        :class="{ on: desk.round.painted }"
        @click="desk.round = { ...desk.round, painted: !desk.round.painted }"
      >
        painted
      </button>
    </div>
    <div v-else-if="drawsLines(desk.tool)" class="labels" role="group" aria-label="Label of new lines">
      <button
        v-for="label in LABELS"
        :key="label"
        class="label"
        :class="{ on: desk.label === label }"
        :aria-pressed="desk.label === label"
        :title="`Label new lines as the ${LABEL_WORDS[label]}: a working colour here, their own colour when sent off`"
        @click="desk.label = desk.label === label ? null : label"
      >
        <i :style="{ background: LABEL_COLOURS[label] }" />{{ label }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.settings {
  display: flex;
  align-items: center;
  gap: 2px;
  flex: none;
}

.tip {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: flex-end;
  gap: 2px;
  min-width: 46px;
  height: 56px;
  white-space: nowrap;
  padding: 0 2px;
  border: 0;
  border-radius: 8px;
  background: none;
  font-size: 11.5px;
  line-height: 1.25;
  color: var(--soft);
  cursor: pointer;
}

.tip:hover {
  color: var(--ink);
}

.tip b {
  color: var(--ink);
}

.dot {
  border-radius: 50%;
  background: var(--ink);
  margin: auto;
}

.labels {
  display: flex;
  flex-direction: column;
  gap: 2px;
}

.label {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 2px 5px;
  border: 0;
  border-radius: 6px;
  background: none;
  font-size: 11.5px;
  color: var(--soft);
  cursor: pointer;
}

.label i {
  width: 9px;
  height: 9px;
  border-radius: 50%;
}

.label.on {
  background: var(--green-wash);
  color: var(--ink);
  font-weight: 700;
}

.keeps {
  display: grid;
  grid-template-rows: repeat(3, auto);
  grid-auto-flow: column;
  gap: 1px 2px;
}

.rest {
  display: flex;
  align-items: center;
  gap: 4px;
  font-size: 11.5px;
  color: var(--soft);
}

.rest input {
  width: 38px;
  padding: 0 3px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  font-size: 11.5px;
  text-align: right;
}

.choices {
  display: flex;
  gap: 4px;
  align-items: baseline;
}

.through {
  display: block;
  margin-top: 8px;
}

.through input {
  accent-color: var(--green);
}

.setting {
  display: flex;
  justify-content: space-between;
  color: var(--ink);
}
</style>
