<script setup lang="ts">
import {
  Circle,
  Crosshair,
  Eraser,
  Lasso,
  Layers2,
  PenLine,
  Redo2,
  Scissors,
  Slash,
  Spline,
  Type,
  Undo2,
  Waves,
} from 'lucide-vue-next'
import { computed } from 'vue'
import { secondsLabel } from '@unhurried/core/time'
import type { BitmapShelf } from '../desk/bitmaps.ts'
import type { Commands } from '../keys/commands.ts'
import { useDesk } from '../stores/desk.ts'
import type { Tool } from '../stores/settings.ts'
import { useShot } from '../stores/shot.ts'
import FlipFan from './FlipFan.vue'
import PlayButton from './PlayButton.vue'
import TrayTip from './TrayTip.vue'

const props = defineProps<{
  commands: Commands
  bitmaps: BitmapShelf
  playing: boolean
  dropped: number
  shown: number
  playFrame: number | null
}>()
const shot = useShot()
const desk = useDesk()

const ICONS = {
  line: PenLine,
  shape: Spline,
  'rub-out': Eraser,
  trim: Scissors,
  gather: Lasso,
  mark: Crosshair,
  trace: Layers2,
  straight: Slash,
  round: Circle,
  push: Waves,
  letters: Type,
}
const WORDS: Record<Tool, string> = {
  line: 'line',
  shape: 'shape',
  'rub-out': 'rub out',
  trim: 'trim',
  gather: 'gather',
  mark: 'mark',
  trace: 'trace',
  straight: 'straight',
  round: 'round',
  push: 'push',
  letters: 'letters',
}
/** Two by two: what draws, what takes off, what moves, what measures. */
const IN_TRAY: readonly Tool[] = [
  'line',
  'shape',
  'straight',
  'round',
  'rub-out',
  'trim',
  'gather',
  'push',
  'mark',
  'trace',
  'letters',
]
const swatches = computed(() => Object.values(shot.document?.swatches ?? {}))
const undo = props.commands.get('undo')
const redo = props.commands.get('redo')
const play = props.commands.get('play')
const lastStep = computed(() => shot.history.undo[shot.history.undo.length - 1]?.label)
const nextStep = computed(() => shot.history.redo[shot.history.redo.length - 1]?.label)
const fps = computed(() => shot.document?.format.fps ?? 24)
const now = computed(() => {
  const frame = props.playFrame ?? desk.frame
  return `${frame + 1} · ${secondsLabel(frame, fps.value)}`
})
</script>

<template>
  <section class="tray" aria-label="Tray">
    <div v-if="shot.mayDraw" class="tools" role="radiogroup" aria-label="Tools">
      <button
        v-for="tool in IN_TRAY"
        :key="tool"
        class="tool"
        role="radio"
        :aria-checked="desk.tool === tool"
        :class="{ on: desk.tool === tool }"
        :title="commands.tip(`tool-${tool}`)"
        @click="desk.tool = tool"
      >
        <component :is="ICONS[tool]" :size="16" :stroke-width="1.6" aria-hidden="true" />
        {{ WORDS[tool] }}
      </button>
    </div>
    <TrayTip v-if="shot.mayDraw" />
    <div v-if="shot.mayDraw" class="palette" role="radiogroup" aria-label="Palette strip">
      <button
        v-for="swatch in swatches"
        :key="swatch.id"
        class="swatch"
        role="radio"
        :aria-checked="desk.swatch === swatch.id"
        :aria-label="swatch.name"
        :title="swatch.name"
        :class="{ on: desk.swatch === swatch.id }"
        @click="desk.swatch = swatch.id"
      >
        <svg width="15" height="19" viewBox="0 0 15 24" preserveAspectRatio="none" aria-hidden="true">
          <path d="M0 0 H15 V17 Q7.5 27 0 17 Z" :fill="swatch.colour" />
        </svg>
      </button>
    </div>
    <div v-if="shot.mayDraw" class="steps">
      <button
        class="tool"
        :disabled="!undo.can()"
        :title="lastStep ? commands.tip('undo', `Undo: ${lastStep}`) : 'Nothing to undo'"
        @click="undo.run()"
      >
        <Undo2 :size="16" :stroke-width="1.6" aria-hidden="true" />undo
      </button>
      <button
        class="tool"
        :disabled="!redo.can()"
        :title="nextStep ? commands.tip('redo', `Redo: ${nextStep}`) : 'Nothing to redo'"
        @click="redo.run()"
      >
        <Redo2 :size="16" :stroke-width="1.6" aria-hidden="true" />redo
      </button>
    </div>
    <FlipFan class="fan" :bitmaps="bitmaps" :commands="commands" />
    <PlayButton
      class="playing"
      :playing="playing"
      :tip="commands.tip('play')"
      :shown="shown"
      :dropped="dropped"
      :clock="now"
      @press="play.run()"
    />
  </section>
</template>

<style scoped>
.tray {
  grid-area: tray;
  background: var(--edge);
  border-top: 1px solid var(--rule);
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 0 10px;
  min-width: 0;
}

.tools,
.steps {
  display: grid;
  grid-template-rows: repeat(2, 41px);
  grid-auto-flow: column;
  gap: 1px;
}

.tools,
.palette {
  border-right: 1px solid var(--rule);
  padding-right: 8px;
}

.tool {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 2px;
  width: 43px;
  padding: 4px 0 2px;
  border: 0;
  border-radius: 8px;
  background: none;
  font-size: 11.5px;
  line-height: 1.3;
  color: var(--soft);
  cursor: pointer;
}

.tool:hover:not(:disabled) {
  color: var(--ink);
}

.tool.on {
  background: var(--green-wash);
  color: var(--green);
  font-weight: 700;
}

.tool:disabled {
  opacity: 0.45;
  cursor: default;
}

.palette {
  display: flex;
  flex-wrap: wrap;
  gap: 3px 4px;
  flex: none;
  width: 156px;
  max-height: 82px;
  overflow-y: auto;
  scrollbar-width: thin;
  padding: 3px 8px 3px 3px;
}

.swatch {
  padding: 2px;
  border: 0;
  border-radius: 5px 5px 9px 9px;
  background: none;
  cursor: pointer;
  line-height: 0;
}

.swatch path {
  stroke: var(--faint-line);
}

.swatch.on {
  box-shadow: 0 0 0 2px var(--green);
}

@media (width < 1180px) {
  .tray {
    gap: 5px;
    padding: 0 8px;
  }

  .tool {
    width: 41px;
  }

  .palette {
    width: 108px;
  }

  .fan {
    display: none;
  }

  .playing {
    margin-left: auto;
  }
}
</style>
