<script setup lang="ts">
import { counted } from '@unhurried/core/time'
import {
  addSwatch,
  changeSwatch,
  moveSwatch,
  replaceSwatch,
  strokesIn,
  swatchesInOrder,
  type Swatch,
} from '@unhurried/core/document'
import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-vue-next'
import { ElPopover } from 'element-plus'
import { computed, ref } from 'vue'
import { useKit } from '../../../stores/kit.ts'
import { newId } from '../../../local/ids.ts'
import { useShot } from '../../../stores/shot.ts'
import TextField from '../../../shared/TextField.vue'
import TintField from '../../../shared/TintField.vue'
import SwatchShift from './SwatchShift.vue'

/** The colours of the shot: added, named, mixed anew, put in order, taken off. */
const shot = useShot()
const kit = useKit()
const open = ref(false)
const shifts = ref(false)
const swatches = computed(() => (shot.document ? swatchesInOrder(shot.document) : []))
const counts = computed(
  () => new Map(open.value && shot.document ? swatches.value.map(s => [s.id, strokesIn(shot.document!, s.id)]) : []),
)
const inHand = computed(() => shot.document?.swatches[kit.swatch] ?? null)

function add(): void {
  const id = newId()
  const colour = inHand.value?.colour ?? '#7f9c5c'
  if (!shot.document || shot.commit('new colour', addSwatch(shot.document, id, colour))) return
  kit.swatch = id
}

function set(swatch: Swatch, patch: Partial<Omit<Swatch, 'id'>>, label: string): void {
  shot.commit(label, changeSwatch(swatch.id, patch))
}
function mix(swatch: Swatch, colour: string | null): void {
  if (colour && colour !== swatch.colour) set(swatch, { colour }, `mix ${swatch.name}`)
}
function move(swatch: Swatch, by: -1 | 1): void {
  if (shot.document) shot.commit(`order of ${swatch.name}`, moveSwatch(shot.document, swatch.id, by))
}

/** Strokes in a colour that goes take on the colour in the hand. */
function remove(swatch: Swatch): void {
  const { document } = shot
  if (!document) return
  const other = swatches.value.find(s => s.id !== swatch.id)
  const by = kit.swatch === swatch.id ? other?.id : kit.swatch
  if (!by || shot.commit(`remove ${swatch.name}`, replaceSwatch(document, swatch.id, by))) return
  if (kit.swatch === swatch.id) kit.swatch = by
}
const removing = (swatch: Swatch) => {
  const n = counts.value.get(swatch.id) ?? 0
  return n === 0
    ? `Remove ${swatch.name}`
    : `Remove ${swatch.name}: its ${counted(n, 'stroke takes', 'strokes take')} on the colour in the hand`
}
</script>

<template>
  <ElPopover v-model:visible="open" trigger="click" :width="320" placement="top" :persistent="false">
    <template #reference>
      <button class="plain mix" title="Colours of your own: add, name, mix, order, remove" aria-label="Colours">
        <Plus :size="14" aria-hidden="true" />
      </button>
    </template>
    <section class="box" aria-label="Colours of this shot" @keydown.esc.stop="open = false">
      <ul>
        <li v-for="(swatch, i) in swatches" :key="swatch.id" :class="{ on: swatch.id === kit.swatch }">
          <TintField
            :model-value="swatch.colour"
            :fresh="swatch.colour"
            :label="`Mix ${swatch.name}`"
            @update:model-value="colour => mix(swatch, colour)"
          />
          <TextField
            :text="swatch.name"
            :most="80"
            :label="`Name of ${swatch.name}`"
            @done="name => name !== swatch.name && set(swatch, { name }, `name ${name}`)"
          />
          <span class="soft count">{{ counts.get(swatch.id) || '' }}</span>
          <button class="plain" :disabled="i === 0" :aria-label="`${swatch.name} earlier`" @click="move(swatch, -1)">
            <ArrowUp :size="14" />
          </button>
          <button
            class="plain"
            :disabled="i === swatches.length - 1"
            :aria-label="`${swatch.name} later`"
            @click="move(swatch, 1)"
          >
            <ArrowDown :size="14" />
          </button>
          <button
            class="plain"
            :disabled="swatches.length < 2"
            :title="removing(swatch)"
            :aria-label="removing(swatch)"
            @click="remove(swatch)"
          >
            <Trash2 :size="14" />
          </button>
        </li>
      </ul>
      <button class="strong" @click="add">add a colour</button>
      <span class="soft from">mixed from {{ inHand?.name }}</span>
      <button class="plain word" :aria-expanded="shifts" @click="shifts = !shifts">shift several together</button>
      <SwatchShift v-if="shifts" />
    </section>
  </ElPopover>
</template>

<style scoped>
.mix {
  align-self: center;
  line-height: 0;
  padding: 4px;
  color: var(--soft);
}

ul {
  list-style: none;
  max-height: 330px;
  margin-bottom: 8px;
  overflow: hidden auto;
}

li {
  display: grid;
  grid-template-columns: 22px 1fr 34px repeat(3, 22px);
  align-items: center;
  gap: 4px;
  padding: 2px 4px;
}

li.on {
  background: var(--green-wash);
  border-radius: 6px;
}

.count {
  font-size: 12px;
  text-align: right;
}

li .plain {
  line-height: 0;
}

.word {
  display: block;
  margin: 4px 0 0 -4px;
  color: var(--green);
}

.from {
  margin-left: 10px;
  font-size: 12.5px;
}
</style>
