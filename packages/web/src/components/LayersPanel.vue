<script setup lang="ts">
import { LAYER_KINDS, layersInOrder, type Layer, type LayerKind, type Operation } from '@unhurried/core/document'
import { ArrowDown, ArrowUp, Eye, EyeOff, Lock, LockOpen, SunDim, Trash2 } from 'lucide-vue-next'
import { ElButton, ElDialog, ElInput, ElOption, ElSelect } from 'element-plus'
import { computed, ref } from 'vue'
import { useDesk, type LayerLook } from '../stores/desk.ts'
import { newId } from '../stores/ids.ts'
import { useShot } from '../stores/shot.ts'
import { oneLine } from '../words/oneLine.ts'
import TextField from './TextField.vue'

const shown = defineModel<boolean>({ required: true })
const shot = useShot()
const desk = useDesk()
const layers = computed(() => (shot.document ? [...layersInOrder(shot.document)].reverse() : []))
const KIND_WORDS: Record<LayerKind, string> = {
  drawn: 'drawn',
  background: 'background',
  reference: 'reference, not sent off',
  guide: 'guide, not sent off',
}
const fresh = ref('')

const counts = computed(() => {
  const seen = new Map<string, number>()
  for (const { layer } of Object.values(shot.document?.drawings ?? {})) seen.set(layer, (seen.get(layer) ?? 0) + 1)
  return seen
})

function set(layer: Layer, patch: Partial<Pick<Layer, 'name' | 'kind' | 'locked' | 'order'>>, label: string): void {
  shot.commit(label, [{ kind: 'layer.set', id: layer.id, patch }])
}

function rename(layer: Layer, name: string): void {
  if (name !== layer.name) set(layer, { name }, `name of ${layer.name}`)
}

function add(): void {
  const name = oneLine(fresh.value) || `layer ${layers.value.length + 1}`
  const top = layers.value[0]?.order ?? 0
  const id = newId()
  const layer: Layer = { id, name, kind: 'drawn', order: top + 1, locked: false }
  if (shot.commit(`new layer ${name}`, [{ kind: 'layer.add', layer }])) return
  fresh.value = ''
  desk.layerId = id
}

/** Changes places with the layer above (−1) or below (+1). */
function move(index: number, by: -1 | 1): void {
  const [one, other] = [layers.value[index], layers.value[index + by]]
  if (!one || !other) return
  // Layers of the same order lie by id; then everything above makes room.
  const ops: Operation[] =
    one.order === other.order
      ? [{ kind: 'layer.set', id: one.id, patch: { order: other.order - by * 0.5 } }]
      : [
          { kind: 'layer.set', id: one.id, patch: { order: other.order } },
          { kind: 'layer.set', id: other.id, patch: { order: one.order } },
        ]
  shot.commit(`order of ${one.name}`, ops)
}

function remove(layer: Layer): void {
  if (shot.commit(`remove ${layer.name}`, [{ kind: 'layer.remove', id: layer.id }])) return
  if (desk.layerId === layer.id) desk.layerId = layers.value[0]?.id ?? ''
}

const NEXT_LOOK: Record<string, LayerLook | null> = { shown: 'dimmed', dimmed: 'hidden', hidden: null }
const lookOf = (layer: Layer) => desk.looks[layer.id] ?? 'shown'
</script>

<template>
  <ElDialog v-model="shown" title="Layers" width="620px" align-center append-to-body>
    <p class="soft">
      The topmost layer covers those below it. Dimming and hiding are for looking only: they change nothing that is sent
      off.
    </p>
    <p class="looking">
      <label> <input v-model="desk.onlyLayer" type="checkbox" /> see only the layer in the hand </label>
      <label>
        a dimmed layer shows
        <input
          v-model.number="desk.dimming"
          type="range"
          min="0.05"
          max="0.9"
          step="0.05"
          aria-label="A dimmed layer shows"
        />
        <b>{{ Math.round(desk.dimming * 100) }} %</b>
      </label>
    </p>
    <ul>
      <li v-for="(layer, i) in layers" :key="layer.id" :class="{ on: layer.id === desk.layerId }">
        <TextField
          class="name"
          :text="layer.name"
          :most="80"
          :disabled="!shot.mayDraw"
          :label="`Name of layer ${layer.name}`"
          @done="name => rename(layer, name)"
        />
        <ElSelect
          :model-value="layer.kind"
          size="small"
          class="kind"
          :disabled="!shot.mayDraw"
          :aria-label="`Kind of layer ${layer.name}`"
          @change="(kind: LayerKind) => set(layer, { kind }, `kind of ${layer.name}`)"
        >
          <ElOption v-for="kind in LAYER_KINDS" :key="kind" :value="kind" :label="KIND_WORDS[kind]" />
        </ElSelect>
        <span class="soft count">{{ counts.get(layer.id) ?? 0 }} drawings</span>
        <button
          class="plain"
          :title="`${lookOf(layer)} for looking: click to change`"
          :aria-label="`${layer.name} is ${lookOf(layer)}`"
          @click="desk.setLook(layer.id, NEXT_LOOK[lookOf(layer)] ?? null)"
        >
          <EyeOff v-if="lookOf(layer) === 'hidden'" :size="16" />
          <SunDim v-else-if="lookOf(layer) === 'dimmed'" :size="16" />
          <Eye v-else :size="16" />
        </button>
        <button
          class="plain"
          :disabled="!shot.mayDraw"
          :aria-pressed="layer.locked"
          :aria-label="layer.locked ? `Unlock ${layer.name}` : `Lock ${layer.name}`"
          :title="layer.locked ? 'Unlock' : 'Lock: not drawn on, not retimed'"
          @click="set(layer, { locked: !layer.locked }, layer.locked ? `unlock ${layer.name}` : `lock ${layer.name}`)"
        >
          <component :is="layer.locked ? Lock : LockOpen" :size="16" />
        </button>
        <button
          class="plain"
          :disabled="i === 0 || !shot.mayDraw"
          :aria-label="`${layer.name} up`"
          @click="move(i, -1)"
        >
          <ArrowUp :size="16" />
        </button>
        <button
          class="plain"
          :disabled="i === layers.length - 1 || !shot.mayDraw"
          :aria-label="`${layer.name} down`"
          @click="move(i, 1)"
        >
          <ArrowDown :size="16" />
        </button>
        <button
          class="plain"
          :disabled="!shot.mayDraw || layers.length < 2 || (counts.get(layer.id) ?? 0) > 0"
          :title="(counts.get(layer.id) ?? 0) > 0 ? 'Only an empty layer can be removed' : 'Remove'"
          :aria-label="`Remove ${layer.name}`"
          @click="remove(layer)"
        >
          <Trash2 :size="16" />
        </button>
      </li>
    </ul>
    <form v-if="shot.mayDraw" class="new" @submit.prevent="add">
      <ElInput
        v-model="fresh"
        placeholder="satchel, far legs, mist …"
        maxlength="80"
        aria-label="Name of a new layer"
      />
      <ElButton type="primary" native-type="submit">add a layer</ElButton>
    </form>
  </ElDialog>
</template>

<style scoped>
.looking {
  display: flex;
  justify-content: space-between;
  margin: 8px 0 2px;
}

.looking label {
  display: flex;
  align-items: center;
  gap: 6px;
}

.looking input {
  accent-color: var(--green);
}

ul {
  list-style: none;
  margin: 12px 0;
}

li {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 5px 6px;
  border-top: 1px solid var(--rule-faint);
}

li.on {
  background: var(--green-wash);
}

.name {
  width: 150px;
}

.kind {
  width: 168px;
}

.count {
  flex: 1;
  font-size: 12px;
  text-align: right;
  padding-right: 6px;
}

.plain {
  line-height: 0;
  padding: 4px;
}

.new {
  display: flex;
  gap: 10px;
}
</style>
