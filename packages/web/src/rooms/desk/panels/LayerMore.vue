<script setup lang="ts">
import {
  changeLayer,
  layerOver,
  newPass,
  newPassOfAll,
  VOLUMES,
  type Layer,
  type Volume,
} from '@unhurried/core/document'
import { MoreHorizontal } from 'lucide-vue-next'
import { ElInput, ElPopover } from 'element-plus'
import { computed, ref } from 'vue'
import { useStrokeActs } from '../acts/strokeActs.ts'
import { useDesk } from '../../../stores/desk.ts'
import { newId } from '../../../local/ids.ts'
import { useShot } from '../../../stores/shot.ts'
import { oneLine } from '../../../words/oneLine.ts'

/** What is seldom wanted of a layer: how its volume is measured, a layer over it in its time, a new pass. */
const props = defineProps<{ layer: Layer }>()
const shot = useShot()
const desk = useDesk()
const strokes = useStrokeActs()
const open = ref(false)
const why = ref('')
const over = ref('')
const sendBlocks = ref(false)
const VOLUME_WORDS: Record<Volume, string> = {
  flat: 'flat: its area is kept',
  round: 'round: its volume is kept',
  off: 'off: area means nothing here',
}

function setVolume(volume: Volume): void {
  if (volume === props.layer.volume) return
  shot.commit(`volume of ${props.layer.name}`, changeLayer(props.layer.id, { volume }))
}

function beginAll(): void {
  const { document } = shot
  if (!document || shot.commit('new pass of the shot', newPassOfAll(document, oneLine(why.value), newId))) return
  const fresh = shot.document?.layers[props.layer.id]?.left?.for
  if (fresh) desk.layerId = fresh
  why.value = ''
  open.value = false
}
const lines = computed(() =>
  props.layer.follows === null && props.layer.left === null
    ? Object.values(shot.document?.layers ?? {}).filter(
        other => other.id !== props.layer.id && other.kind === 'drawn' && !other.follows && !other.left,
      )
    : [],
)
function backInto(line: string): void {
  desk.layerId = props.layer.id
  strokes.intoDrawings(line)
  open.value = false
}

function begin(): void {
  const { document } = shot
  if (!document) return
  const ops = newPass(document, props.layer.id, oneLine(why.value), newId)
  if (shot.commit(`new pass of ${props.layer.name}`, ops)) return
  const fresh = shot.document?.layers[props.layer.id]?.left?.for
  if (fresh) desk.layerId = fresh
  why.value = ''
  open.value = false
}

function lay(where: 'above' | 'below'): void {
  const { document } = shot
  if (!document) return
  const name = oneLine(over.value) || 'finished'
  const ops = layerOver(document, props.layer.id, name, where, sendBlocks.value, newId)
  if (shot.commit(`${name} ${where === 'above' ? 'over' : 'under'} ${props.layer.name}`, ops)) return
  const fresh = Object.values(shot.document?.layers ?? {}).find(
    layer => layer.follows === props.layer.id && layer.name === name,
  )
  if (fresh) desk.layerId = fresh.id
  over.value = ''
  open.value = false
}
</script>

<template>
  <ElPopover v-model:visible="open" trigger="click" :width="540" placement="bottom-end" :persistent="false">
    <template #reference>
      <button class="plain more" :aria-label="`More about ${layer.name}`" title="Volume, a layer over it, a new pass">
        <MoreHorizontal :size="16" />
      </button>
    </template>
    <div class="box" @keydown.esc.stop="open = false">
      <fieldset>
        <legend>volume</legend>
        <label v-for="volume in VOLUMES" :key="volume">
          <input
            type="radio"
            :name="`volume-${layer.id}`"
            :checked="layer.volume === volume"
            :disabled="!shot.mayDraw"
            @change="setVolume(volume)"
          />
          {{ VOLUME_WORDS[volume] }}
        </label>
      </fieldset>
      <fieldset v-if="layer.follows === null && layer.left === null">
        <legend>a layer in its time</legend>
        <p class="soft">
          Finished art over blocks: a blank sheet over every drawing, under its number, drawn and counted.
        </p>
        <ElInput v-model="over" size="small" placeholder="finished" aria-label="Name of the layer over it" />
        <label><input v-model="sendBlocks" type="checkbox" /> send {{ layer.name }} off as well</label>
        <p class="words">
          <button class="plain word" :disabled="!shot.mayDraw" @click="lay('above')">lay it over</button>
          <button class="plain word" :disabled="!shot.mayDraw" @click="lay('below')">lay it under</button>
        </p>
      </fieldset>
      <fieldset v-if="lines.length">
        <legend>back into drawings</legend>
        <p class="soft">What it shows goes into the drawings of another layer; this layer goes.</p>
        <p class="words">
          <button
            v-for="line in lines"
            :key="line.id"
            class="plain word"
            :disabled="!shot.mayDraw"
            @click="backInto(line.id)"
          >
            {{ line.name }}
          </button>
        </p>
      </fieldset>
      <fieldset v-if="layer.follows === null && layer.left === null && layer.kind === 'drawn'">
        <legend>a new pass</legend>
        <p class="soft">
          Blank sheets under the same numbers, with the timing, charts and marks. The old ones stay beside them.
        </p>
        <ElInput
          v-model="why"
          size="small"
          maxlength="200"
          placeholder="why: the arm was too long"
          aria-label="Why the old pass is left"
        />
        <p class="words">
          <button class="plain word" :disabled="!shot.mayDraw" @click="begin">begin afresh</button>
          <button class="plain word" :disabled="!shot.mayDraw" @click="beginAll">and all drawn layers</button>
        </p>
      </fieldset>
    </div>
  </ElPopover>
</template>

<style scoped>
.more {
  line-height: 0;
  padding: 4px;
}

.box {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 24px;
}

fieldset {
  min-width: 0;
  margin: 0;
  padding: 0;
  border: 0;
}

.words {
  display: flex;
  gap: 14px;
  margin-top: 4px;
}

legend {
  font: 500 15px var(--serif);
}

label {
  display: block;
}

.word {
  color: var(--green);
  font-weight: 700;
  margin-left: -4px;
}
</style>
