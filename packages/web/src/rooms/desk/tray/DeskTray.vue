<script setup lang="ts">
import { Redo2, Undo2 } from 'lucide-vue-next'
import { computed } from 'vue'
import { swatchesInOrder } from '@unhurried/core/document'
import { secondsLabel } from '@unhurried/core/time'
import type { BitmapShelf } from '../../../paint/bitmaps.ts'
import type { Commands } from '../commands.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { SPEEDS, useFlip } from '../../../stores/flip.ts'
import { useShot } from '../../../stores/shot.ts'
import { TOOLS, useToolInHand } from '../../../tools/table.ts'
import FlipFan from './FlipFan.vue'
import PlayButton from '../../../shared/PlayButton.vue'
import SwatchPanel from './SwatchPanel.vue'
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
const kit = useKit()

const { name: inHand } = useToolInHand()
const swatches = computed(() => (shot.document ? swatchesInOrder(shot.document) : []))
const undo = props.commands.get('undo')
const redo = props.commands.get('redo')
const play = props.commands.get('play')
const flip = useFlip()
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
        v-for="(tool, name) in TOOLS"
        :key="name"
        class="tool"
        role="radio"
        :aria-checked="inHand === name"
        :class="{ on: inHand === name }"
        :title="commands.tip(`tool-${name}`)"
        @click="inHand = name"
      >
        <component :is="tool.icon" :size="16" :stroke-width="1.6" aria-hidden="true" />
        <span>{{ tool.words }}</span>
      </button>
    </div>
    <TrayTip v-if="shot.mayDraw" />
    <div v-if="shot.mayDraw" class="palette" role="radiogroup" aria-label="Palette strip">
      <button
        v-for="swatch in swatches"
        :key="swatch.id"
        class="swatch"
        role="radio"
        :aria-checked="kit.swatch === swatch.id"
        :aria-label="swatch.name"
        :title="swatch.name"
        :class="{ on: kit.swatch === swatch.id }"
        @click="kit.swatch = swatch.id"
      >
        <svg width="15" height="19" viewBox="0 0 15 24" preserveAspectRatio="none" aria-hidden="true">
          <path d="M0 0 H15 V17 Q7.5 27 0 17 Z" :fill="swatch.colour" />
        </svg>
      </button>
    </div>
    <SwatchPanel v-if="shot.mayDraw" />
    <div v-if="shot.mayDraw" class="steps">
      <button
        class="tool"
        :disabled="!undo.can()"
        :title="lastStep ? commands.tip('undo', `Undo: ${lastStep}`) : 'Nothing to undo'"
        @click="undo.run()"
      >
        <Undo2 :size="16" :stroke-width="1.6" aria-hidden="true" /><span>undo</span>
      </button>
      <button
        class="tool"
        :disabled="!redo.can()"
        :title="nextStep ? commands.tip('redo', `Redo: ${nextStep}`) : 'Nothing to redo'"
        @click="redo.run()"
      >
        <Redo2 :size="16" :stroke-width="1.6" aria-hidden="true" /><span>redo</span>
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
    >
      <button
        class="plain speed"
        :class="{ rust: flip.speed !== 1 }"
        title="Viewing speed, here and in Flip: press for the next slower one. The delivery rate stays."
        @click="flip.speed = SPEEDS[(SPEEDS.indexOf(flip.speed as 1) + SPEEDS.length - 1) % SPEEDS.length] ?? 1"
      >
        {{ flip.speedWords }}
      </button>
    </PlayButton>
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
  padding: 0 8px;
  min-width: 0;
  container: tray / inline-size;
}

.playing {
  flex: none;
  margin-left: auto;
}

.tools,
.steps {
  flex: none;
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
  position: relative;
  width: 42px;
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
  gap: 2px 1px;
  flex: 0 1 164px;
  min-width: 58px;
  max-height: 82px;
  overflow-y: auto;
  scrollbar-width: thin;
  padding: 3px 8px 3px 3px;
}

.swatch {
  display: grid;
  place-items: center;
  width: 24px;
  height: 25px;
  padding: 0;
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

/* The tray is as wide as sheet and margin leave it. Undo and play stay in sight; the fan goes first, then words of tools. */
@container tray (width < 840px) {
  .fan {
    display: none;
  }
}

@container tray (width < 720px) {
  .tools,
  .steps {
    grid-template-rows: repeat(2, 36px);
  }

  .tool {
    justify-content: center;
    width: 32px;
    padding: 0;
  }

  .playing {
    min-width: 58px;
  }

  .tool span {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}

@container tray (width < 560px) {
  .tool {
    width: 29px;
  }

  .tools,
  .palette {
    padding-right: 3px;
  }
}
</style>
