<script setup lang="ts">
import type { Layer } from '@unhurried/core/document'
import { CornerRightUp, EyeOff, Layers, Lock, SunDim, Volume2, VolumeX } from 'lucide-vue-next'
import { isPlain, lookInWords, lookOf } from '../../../paint/looks.ts'
import type { Commands } from '../commands.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useSight } from '../../../stores/sight.ts'
import { useShot } from '../../../stores/shot.ts'
import { useSound } from '../../../stores/sound.ts'

defineProps<{ layers: readonly Layer[]; commands: Commands; hasSound: boolean }>()
const desk = useDesk()
const sight = useSight()
const shot = useShot()
const sound = useSound()
const look = (layer: Layer) => lookOf(sight.looks, layer.id)
const follows = (layer: Layer) => layer.follows && `timed with ${shot.document?.layers[layer.follows]?.name}`
const KINDS = { drawn: '', background: 'background', reference: 'reference', guide: 'guide' } as const
const stateOf = (layer: Layer) =>
  [KINDS[layer.kind], layer.locked && 'locked', follows(layer), !isPlain(look(layer)) && lookInWords(look(layer))]
    .filter(Boolean)
    .join(', ')
</script>

<template>
  <div class="head">
    <button
      class="plain nr"
      :title="commands.tip('layers', 'Layers: add, name, order, lock, hide')"
      aria-label="Layers"
      @click="commands.get('layers').run()"
    >
      <Layers :size="15" :stroke-width="1.7" aria-hidden="true" />
    </button>
    <button
      v-if="hasSound"
      class="plain sound"
      :class="{ wide: sight.sheetShape === 'room' }"
      :aria-pressed="sound.on"
      :title="
        commands.tip('sound', sound.on ? 'Sound is heard: press for silence' : 'Silence: press to hear the sound')
      "
      aria-label="Sound is heard"
      @click="commands.get('sound').run()"
    >
      <component :is="sound.on ? Volume2 : VolumeX" :size="14" :stroke-width="1.7" aria-hidden="true" />
    </button>
    <span v-if="sight.sheetShape === 'room'" class="notes">action</span>
    <button
      v-for="layer in layers"
      :key="layer.id"
      class="plain layer"
      :class="{ on: layer.id === desk.layerId, tied: layer.follows }"
      :aria-pressed="layer.id === desk.layerId"
      :title="`${layer.name}${stateOf(layer) ? ` (${stateOf(layer)})` : ''}: draw on this layer`"
      @click="desk.layerId = layer.id"
    >
      <CornerRightUp v-if="layer.follows && sight.sheetShape === 'edge'" :size="13" aria-hidden="true" />
      <span :class="{ hush: layer.follows && sight.sheetShape === 'edge' }">{{ layer.name }}</span>
      <Lock v-if="layer.locked" :size="11" aria-hidden="true" />
      <EyeOff v-if="look(layer).hidden" :size="12" aria-hidden="true" />
      <SunDim v-else-if="!isPlain(look(layer))" :size="12" aria-hidden="true" />
    </button>
  </div>
</template>

<style scoped>
.head {
  position: sticky;
  top: 0;
  z-index: 4;
  display: flex;
  align-items: stretch;
  height: 32px;
  width: fit-content;
  min-width: 100%;
  background: var(--edge);
  border-bottom: 1px solid var(--rule);
  font-size: 11.5px;
  color: var(--soft);
}

.nr {
  position: sticky;
  left: 0;
  z-index: 1;
  flex: none;
  width: 46px;
  display: grid;
  place-items: center;
  border-radius: 0;
  background: var(--edge);
}

.sound {
  flex: none;
  width: 26px;
  padding: 0;
  display: grid;
  place-items: center;
  border-radius: 0;
}

.sound.wide {
  width: 104px;
}

.notes {
  flex: 1 1 190px;
  max-width: 420px;
  padding: 8px 10px;
}

/* As wide as the column below it, whatever is written in it. */
.layer {
  contain: inline-size;
  flex: 1 0 var(--column, 34px);
  min-width: 0;
  display: flex;
  align-items: center;
  justify-content: center;
  gap: 3px;
  padding: 2px 1px;
  border-radius: 0;
}

.layer span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.layer svg {
  flex: none;
}

.layer.on {
  color: var(--ink);
  font-weight: 700;
  box-shadow: inset 0 -2px var(--green);
}

.layer.tied {
  --column: 28px;
}

/* As the strip below it has. */
.as-room .head {
  padding-right: 24px;
}

.as-room .layer {
  --column: 84px;

  max-width: 150px;
}
</style>
