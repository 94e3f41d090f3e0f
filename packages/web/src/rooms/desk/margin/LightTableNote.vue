<script setup lang="ts">
import { ElSlider } from 'element-plus'
import { computed } from 'vue'
import type { Commands } from '../commands.ts'
import { useDrawers } from '../../../stores/drawers.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useLamp } from '../../../stores/lamp.ts'
import { TINTS, type LightTable } from '../../../stores/settings.ts'
import { useShot } from '../../../stores/shot.ts'
import LightTableLayers from './LightTableLayers.vue'
import TintField from '../../../shared/TintField.vue'

defineProps<{ commands: Commands }>()
const desk = useDesk()
const lamp = useLamp()
const shot = useShot()
const MOST = 5
const drawers = useDrawers()
const more = computed({ get: () => drawers.isOpen('light-more', false), set: open => drawers.set('light-more', open) })
/** How the light table is set for a task. */
const TASKS = [
  { words: 'draw on', tip: 'The two before', set: { on: true, before: 2, after: 0, wrap: false } },
  { words: 'in between', tip: 'One before, one after', set: { on: true, before: 1, after: 1, wrap: false } },
  {
    words: 'close a loop',
    tip: 'One before and one after, round the loop',
    set: { on: true, before: 1, after: 1, wrap: true },
  },
  { words: 'paint', tip: 'Nothing shows through', set: { on: false } },
] as const
const isSet = (set: Partial<LightTable>) =>
  Object.entries(set).every(([name, value]) => lamp.lightTable[name as keyof LightTable] === value)
const numbersPinned = computed(() => lamp.pinned.flatMap(id => shot.drawing(id) ?? []))
const past = Array.from({ length: MOST }, (_, i) => i + 1)
const future = past

/** A press on the outermost lit lamp puts it out. */
const setBefore = (n: number) => (lamp.lightTable.before = lamp.lightTable.before === n ? n - 1 : n)
const setAfter = (n: number) => (lamp.lightTable.after = lamp.lightTable.after === n ? n - 1 : n)
</script>

<template>
  <div>
    <div
      class="lamps"
      :class="{ off: !lamp.lightTable.on }"
      :style="{ '--past': lamp.lightTable.past, '--future': lamp.lightTable.future }"
    >
      <span class="soft">before</span>
      <button
        v-for="n in past"
        :key="`b${n}`"
        class="lamp past"
        :class="{ lit: n <= lamp.lightTable.before }"
        :aria-label="`${n} before`"
        :aria-pressed="n <= lamp.lightTable.before"
        @click="setBefore(n)"
      >
        <i />
      </button>
      <button
        class="plain switch"
        role="switch"
        :aria-checked="lamp.lightTable.on"
        :title="commands.tip('light-table', 'Light table on or off')"
        @click="lamp.lightTable.on = !lamp.lightTable.on"
      >
        {{ lamp.lightTable.on ? 'on' : 'off' }}
      </button>
      <span class="soft after">after</span>
      <button
        v-for="n in future"
        :key="`a${n}`"
        class="lamp future"
        :class="{ lit: n <= lamp.lightTable.after }"
        :aria-label="`${n} after`"
        :aria-pressed="n <= lamp.lightTable.after"
        @click="setAfter(n)"
      >
        <i />
      </button>
    </div>
    <p class="tasks">
      <button
        v-for="task in TASKS"
        :key="task.words"
        class="plain"
        :class="{ on: isSet(task.set) }"
        :aria-pressed="isSet(task.set)"
        :title="task.tip"
        @click="Object.assign(lamp.lightTable, task.set)"
      >
        {{ task.words }}
      </button>
    </p>
    <p v-if="lamp.parents" class="soft">
      showing what it is drawn from
      <button class="plain" @click="lamp.parents = null">show neighbours</button>
    </p>
    <button class="plain more" :aria-expanded="more" @click="more = !more">
      {{ more ? 'fewer settings' : 'more settings' }}
    </button>
    <template v-if="more">
      <p class="wraps">
        wraps on the loop:
        <button
          class="plain"
          role="switch"
          :aria-checked="lamp.lightTable.wrap"
          @click="lamp.lightTable.wrap = !lamp.lightTable.wrap"
        >
          <b>{{ lamp.lightTable.wrap ? 'yes' : 'no' }}</b>
        </button>
      </p>
      <p class="wraps">
        past ones as
        <button
          class="plain"
          title="All their lines over a light wash, or the wash alone"
          @click="lamp.lightTable.lines = !lamp.lightTable.lines"
        >
          <b>{{ lamp.lightTable.lines ? 'lines and wash' : 'wash alone' }}</b>
        </button>
      </p>
      <p class="wraps">
        of
        <button
          class="plain"
          title="All drawings, or only keys"
          @click="lamp.lightTable.keysOnly = !lamp.lightTable.keysOnly"
        >
          <b>{{ lamp.lightTable.keysOnly ? 'keys only' : 'all drawings' }}</b>
        </button>
        <button
          class="plain"
          :aria-pressed="lamp.lightTable.numbers"
          title="The number of each drawing that shows through"
          @click="lamp.lightTable.numbers = !lamp.lightTable.numbers"
        >
          {{ lamp.lightTable.numbers ? 'numbered' : 'not numbered' }}
        </button>
      </p>
      <p class="wraps">
        pinned:
        <button
          v-for="drawing in numbersPinned"
          :key="drawing.id"
          class="plain"
          :title="`Take ${drawing.number} off the light table`"
          @click="lamp.pin(drawing.id)"
        >
          {{ drawing.number }} ×
        </button>
        <button
          v-if="desk.drawing && !lamp.pinned.includes(desk.drawing.id)"
          class="plain link"
          :title="`${desk.drawing.number} shows through wherever you stand on its layer`"
          @click="lamp.pin(desk.drawing.id)"
        >
          pin {{ desk.drawing.number }}
        </button>
      </p>
      <LightTableLayers />
      <div class="strength">
        <span class="tints">
          <TintField v-model="lamp.lightTable.past" label="Colour of past drawings" :fresh="TINTS.past" />
          <TintField v-model="lamp.lightTable.future" label="Colour of future drawings" :fresh="TINTS.future" />
        </span>
        <ElSlider
          v-model="lamp.lightTable.strength"
          :min="0.1"
          :max="1"
          :step="0.05"
          size="small"
          :show-tooltip="false"
          aria-label="Strength of the light table"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.switch {
  justify-self: end;
  font-size: 13px;
  color: var(--green);
}

.more {
  min-height: 24px;
  margin-left: -4px;
  font-size: 12.5px;
  color: var(--green);
}

.tasks {
  display: flex;
  flex-wrap: wrap;
  gap: 0 2px;
  margin: 4px -4px 0;
}

.tasks .plain {
  font-size: 12.5px;
  border-radius: 0;
  border-bottom: 2px solid transparent;
  padding: 1px 4px;
}

.tasks .on {
  border-color: var(--green);
  font-weight: 700;
}

.link {
  color: var(--green);
}

.lamps {
  display: grid;
  grid-template-columns: 44px repeat(5, 24px) auto;
  align-items: center;
  font-size: 12.5px;
}

.lamps.off .lamp {
  opacity: 0.45;
}

.lamp {
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  padding: 0;
  border: 0;
  background: none;
  cursor: pointer;
}

.lamp i {
  width: 14px;
  height: 17px;
  border-radius: 3px;
  border: 1.2px dotted var(--faint-line);
}

.lamp.past.lit i {
  border: 1.2px solid var(--past);
  background: color-mix(in srgb, var(--past) 55%, transparent);
}

.lamp.future.lit i {
  border: 1.4px solid var(--future);
}

.wraps {
  margin-top: 5px;
  font-size: 13px;
  color: var(--soft);
}

.wraps b {
  color: var(--ink);
}

.strength {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 14px;
  align-items: center;
  font-size: 13px;
  padding-right: 8px;
}

.tints {
  display: flex;
  gap: 7px;
}

p {
  font-size: 13px;
}

p .plain {
  color: var(--green);
}
</style>
