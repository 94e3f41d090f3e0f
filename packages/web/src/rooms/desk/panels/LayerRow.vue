<script setup lang="ts">
import { changeLayer, followersOf, LAYER_KINDS, type Layer, type LayerKind } from '@unhurried/core/document'
import { ArrowDown, ArrowUp, Eye, EyeOff, Lock, LockOpen, Paintbrush, SunDim, Trash2 } from 'lucide-vue-next'
import { ElOption, ElSelect } from 'element-plus'
import { computed } from 'vue'
import { isPlain, LEAST_OPACITY, lookInWords, lookOf, nextLook } from '../../../paint/looks.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useSight } from '../../../stores/sight.ts'
import { useShot } from '../../../stores/shot.ts'
import LayerMore from './LayerMore.vue'
import TextField from '../../../shared/TextField.vue'
import TintField from '../../../shared/TintField.vue'

/** One layer in the list of layers: what it is, and how it is looked at. */
const props = defineProps<{ layer: Layer; drawings: number; isFirst: boolean; isLast: boolean; mayRemove: boolean }>()
const emit = defineEmits<{ move: [by: -1 | 1]; remove: []; paint: [] }>()
const shot = useShot()
const desk = useDesk()
const sight = useSight()
/** No id begins like this. */
const OWN = '-'
const KIND_WORDS: Record<LayerKind, string> = {
  drawn: 'drawn',
  background: 'background',
  reference: 'reference, not sent off',
  guide: 'guide, not sent off',
}
/** A pass that was left is out of sight until it is looked at, dimmed. */
const look = computed(() => {
  const own = lookOf(sight.looks, props.layer.id)
  return props.layer.left && isPlain(own) ? { ...own, hidden: true } : own
})
const passLook = computed(() => (look.value.hidden ? { hidden: false, opacity: 0.5 } : { opacity: 1, tint: null }))
const followers = computed(() => (shot.document ? followersOf(shot.document, props.layer.id) : []))
/** Layers this one may be tied to: none that are tied themselves, and none while others are tied to it. */
const lines = computed(() => {
  if (followers.value.length) return []
  const others = Object.values(shot.document?.layers ?? {})
  return others.filter(other => other.id !== props.layer.id && other.follows === null && other.kind === 'drawn')
})

type Patch = Partial<Pick<Layer, 'name' | 'kind' | 'locked' | 'follows'>>
function set(patch: Patch, label: string): void {
  shot.commit(label, changeLayer(props.layer.id, patch))
}
function rename(name: string): void {
  if (name !== props.layer.name) set({ name }, `name of ${props.layer.name}`)
}
function follow(id: string): void {
  const { name } = props.layer
  if (id === OWN) set({ follows: null }, `untie ${name}`)
  else set({ follows: id }, `tie ${name} to ${shot.document?.layers[id]?.name}`)
}
</script>

<template>
  <li :class="{ on: layer.id === desk.layerId, tied: layer.follows }">
    <TextField
      class="name"
      :text="layer.name"
      :most="80"
      :disabled="!shot.mayDraw"
      :label="`Name of layer ${layer.name}`"
      @done="rename"
    />
    <ElSelect
      :model-value="layer.kind"
      size="small"
      class="kind"
      :disabled="!shot.mayDraw"
      :aria-label="`Kind of layer ${layer.name}`"
      @change="(kind: LayerKind) => set({ kind }, `kind of ${layer.name}`)"
    >
      <ElOption v-for="kind in LAYER_KINDS" :key="kind" :value="kind" :label="KIND_WORDS[kind]" />
    </ElSelect>
    <ElSelect
      v-if="!layer.left && (lines.length || layer.follows)"
      :model-value="layer.follows ?? OWN"
      size="small"
      class="timing"
      :disabled="!shot.mayDraw"
      :aria-label="`Timing of layer ${layer.name}`"
      @change="follow"
    >
      <ElOption :value="OWN" label="its own timing" />
      <ElOption v-for="line in lines" :key="line.id" :value="line.id" :label="`with ${line.name}`" />
    </ElSelect>
    <span v-else-if="layer.left" class="timing soft left" :title="layer.left.why"
      >left: {{ layer.left.why || 'no reason given' }}</span
    >
    <span v-else class="timing soft">{{
      followers.length ? `with ${followers.map(f => f.name).join(', ')}` : ''
    }}</span>
    <span class="soft count">{{ drawings }}</span>
    <span class="look">
      <button
        class="plain"
        :title="`${lookInWords(look)} for looking: press to change`"
        :aria-label="`${layer.name} is ${lookInWords(look)}`"
        @click="sight.setLook(layer.id, layer.left ? passLook : nextLook(look))"
      >
        <EyeOff v-if="look.hidden" :size="16" />
        <SunDim v-else-if="!isPlain(look)" :size="16" />
        <Eye v-else :size="16" />
      </button>
      <input
        type="range"
        :min="LEAST_OPACITY"
        max="1"
        step="0.05"
        :value="look.opacity"
        :disabled="look.hidden"
        :aria-label="`How much of ${layer.name} is seen`"
        :title="`${Math.round(look.opacity * 100)} % seen`"
        @input="event => sight.setLook(layer.id, { opacity: Number((event.target as HTMLInputElement).value) })"
      />
      <TintField
        :model-value="look.tint"
        :label="`Tint of ${layer.name}`"
        fresh="#5b7f95"
        clearable
        @update:model-value="tint => sight.setLook(layer.id, { tint })"
      />
    </span>
    <span class="acts">
      <LayerMore v-if="layer.kind !== 'background'" :layer="layer" />
      <button
        v-if="layer.kind === 'drawn' && layer.follows === null && layer.left === null"
        class="plain"
        :disabled="!shot.mayDraw"
        :aria-label="`Add paint under ${layer.name}`"
        title="A layer for paint under this one, timed with it sheet by sheet"
        @click="emit('paint')"
      >
        <Paintbrush :size="16" />
      </button>
      <button
        class="plain"
        :disabled="!shot.mayDraw"
        :aria-pressed="layer.locked"
        :aria-label="layer.locked ? `Unlock ${layer.name}` : `Lock ${layer.name}`"
        :title="layer.locked ? 'Unlock' : 'Lock: not drawn on, not retimed'"
        @click="set({ locked: !layer.locked }, layer.locked ? `unlock ${layer.name}` : `lock ${layer.name}`)"
      >
        <component :is="layer.locked ? Lock : LockOpen" :size="16" />
      </button>
      <button
        class="plain"
        :disabled="isFirst || !shot.mayDraw"
        :aria-label="`${layer.name} up`"
        @click="emit('move', -1)"
      >
        <ArrowUp :size="16" />
      </button>
      <button
        class="plain"
        :disabled="isLast || !shot.mayDraw"
        :aria-label="`${layer.name} down`"
        @click="emit('move', 1)"
      >
        <ArrowDown :size="16" />
      </button>
      <button
        class="plain"
        :disabled="!shot.mayDraw || !mayRemove"
        :title="mayRemove ? 'Remove' : 'Only an empty layer can be removed, and the last one never'"
        :aria-label="`Remove ${layer.name}`"
        @click="emit('remove')"
      >
        <Trash2 :size="16" />
      </button>
    </span>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 132px 112px 148px 40px 1fr auto;
  align-items: center;
  gap: 8px;
  padding: 5px 6px;
  border-top: 1px solid var(--rule-faint);
}

li.on {
  background: var(--green-wash);
}

li.tied .name {
  margin-left: 14px;
  width: 118px;
}

.timing {
  font-size: 12.5px;
}

.acts {
  min-width: 156px;
}

.left {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.count {
  font-size: 12px;
  text-align: right;
}

.look,
.acts {
  display: flex;
  align-items: center;
  gap: 2px;
  justify-content: flex-end;
}

.look {
  gap: 6px;
}

.look input[type='range'] {
  width: 72px;
  min-height: 24px;
  accent-color: var(--green);
}

.look > .plain,
.acts .plain {
  line-height: 0;
  padding: 4px;
}
</style>
