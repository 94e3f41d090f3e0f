<script setup lang="ts">
import {
  addLayer,
  addPaint,
  followersOf,
  layersInOrder,
  moveLayer,
  removeLayer,
  type Layer,
  type Operation,
} from '@unhurried/core/document'
import { ElButton, ElDialog, ElInput } from 'element-plus'
import { computed, ref } from 'vue'
import { useDesk } from '../../../stores/desk.ts'
import { useSight } from '../../../stores/sight.ts'
import { newId } from '../../../local/ids.ts'
import { useShot } from '../../../stores/shot.ts'
import { oneLine } from '../../../words/oneLine.ts'
import LayerRow from './LayerRow.vue'

const shown = defineModel<boolean>({ required: true })
const shot = useShot()
const desk = useDesk()
const sight = useSight()
const layers = computed(() => (shot.document ? [...layersInOrder(shot.document)].reverse() : []))
const fresh = ref('')

const counts = computed(() => {
  const seen = new Map<string, number>()
  for (const { layer } of Object.values(shot.document?.drawings ?? {})) seen.set(layer, (seen.get(layer) ?? 0) + 1)
  return seen
})
const mayRemove = (layer: Layer) =>
  layers.value.length > 1 &&
  !counts.value.get(layer.id) &&
  (!shot.document || followersOf(shot.document, layer.id).length === 0)

function put(id: string, name: string, ops: readonly Operation[]): boolean {
  if (shot.commit(`new layer ${name}`, ops)) return false
  desk.layerId = id
  return true
}

function add(): void {
  const [id, name] = [newId(), oneLine(fresh.value) || `layer ${layers.value.length + 1}`]
  if (shot.document && put(id, name, addLayer(shot.document, id, name))) fresh.value = ''
}

/** A layer for paint right under a line layer, timed with it. */
function addPaintUnder(line: Layer): void {
  const [id, name] = [newId(), oneLine(`${line.name} paint`).slice(0, 80)]
  if (shot.document) put(id, name, addPaint(shot.document, line, id, name))
}

/** Changes places with the layer above (−1, as they are listed) or below (+1). */
function move(layer: Layer, by: -1 | 1): void {
  if (shot.document) shot.commit(`order of ${layer.name}`, moveLayer(shot.document, layer.id, by === 1 ? -1 : 1))
}

function remove(layer: Layer): void {
  if (shot.commit(`remove ${layer.name}`, removeLayer(layer.id))) return
  if (desk.layerId === layer.id) desk.layerId = layers.value[0]?.id ?? ''
}
</script>

<template>
  <ElDialog v-model="shown" title="Layers" width="820px" align-center append-to-body>
    <p class="soft">
      The topmost layer covers those below it. A layer of paint can lie under a line layer, tied to it: its sheets are
      shown with the drawings they lie under.
    </p>
    <p class="heads soft" aria-hidden="true">
      <span>name</span><span>kind</span><span>timing</span><span class="count">sheets</span>
      <span class="looking">for looking only: seen, how much, tint</span>
    </p>
    <ul>
      <LayerRow
        v-for="(layer, i) in layers"
        :key="layer.id"
        :layer="layer"
        :drawings="counts.get(layer.id) ?? 0"
        :is-first="i === 0"
        :is-last="i === layers.length - 1"
        :may-remove="mayRemove(layer)"
        @move="by => move(layer, by)"
        @remove="remove(layer)"
        @paint="addPaintUnder(layer)"
      />
    </ul>
    <form v-if="shot.mayDraw" class="new" @submit.prevent="add">
      <ElInput
        v-model="fresh"
        placeholder="satchel, far legs, mist …"
        maxlength="80"
        data-first
        aria-label="Name of a new layer"
      />
      <ElButton type="primary" native-type="submit">add a layer</ElButton>
      <label class="only"> <input v-model="sight.onlyLayer" type="checkbox" /> see only the layer in the hand </label>
    </form>
  </ElDialog>
</template>

<style scoped>
.heads {
  display: grid;
  grid-template-columns: 132px 112px 148px 40px 1fr;
  gap: 8px;
  padding: 14px 6px 4px;
  font-size: 12px;
}

.count {
  text-align: right;
}

.looking {
  padding-left: 34px;
}

ul {
  list-style: none;
  margin-bottom: 14px;
  max-height: 50vh;
  overflow-y: auto;
}

.new {
  display: flex;
  align-items: center;
  gap: 10px;
}

.new .el-input {
  width: 240px;
}

.only {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 6px;
}

.only input {
  accent-color: var(--green);
}
</style>
