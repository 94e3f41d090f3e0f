<script setup lang="ts">
import { counted } from '@unhurried/core/time'
import { ArrowDown, ArrowUp, Camera, ImagePlus, RotateCcw, Smartphone, X } from 'lucide-vue-next'
import NumberField from '../../../shared/NumberField.vue'
import BitmapView from './BitmapView.vue'
import type { Sheet, Sheets } from './useSheets.ts'
import type { FromTelephone } from './useTelephone.ts'

/** The photographs in their order: added, taken by a camera, taken again, put elsewhere, let go. */
const props = defineProps<{
  sheets: Sheets
  sheet: Sheet | null
  source: 'camera' | 'telephone' | null
  telephone: FromTelephone
}>()
const emit = defineEmits<{ look: [id: string]; source: [of: 'camera' | 'telephone']; again: [id: string] }>()

function choose(): void {
  const input = document.createElement('input')
  input.type = 'file'
  input.multiple = true
  input.accept = 'image/*'
  input.onchange = () => void props.sheets.add([...(input.files ?? [])].map(file => ({ name: file.name, blob: file })))
  input.click()
}
</script>

<template>
  <div>
    <button class="plain word" @click="choose"><ImagePlus :size="15" aria-hidden="true" /> add photographs</button>
    <button class="plain word" :aria-pressed="source === 'camera'" @click="emit('source', 'camera')">
      <Camera :size="15" aria-hidden="true" /> {{ source === 'camera' ? 'leave the camera' : 'take by camera' }}
    </button>
    <button class="plain word" :aria-pressed="source === 'telephone'" @click="emit('source', 'telephone')">
      <Smartphone :size="15" aria-hidden="true" />
      {{ source === 'telephone' ? 'leave the code' : 'from a telephone' }}
    </button>
    <p v-if="telephone.code.value && source !== 'telephone'" class="soft open">
      may send {{ counted(Math.ceil(telephone.seconds.value / 60), 'minute') }} more
    </p>
    <ol>
      <li v-for="(one, i) in sheets.sheets.value" :key="one.id" :class="{ on: one.id === sheet?.id && !source }">
        <button class="plain look" :aria-label="`Look at ${one.name}`" @click="emit('look', one.id)">
          <BitmapView :bitmap="one.taken.seen" :width="150" />
          <span>{{ one.name }}</span>
        </button>
        <span class="acts">
          <NumberField
            class="number"
            :value="one.number"
            :take="n => n !== null && n >= 1 && sheets.setNumber(one.id, Math.round(n))"
            :least="1"
            :most="9999"
            :step="1"
            :label="`Number of ${one.name}`"
          />
          <button class="plain" :aria-label="`${one.name} earlier`" :disabled="i === 0" @click="sheets.move(one, -1)">
            <ArrowUp :size="14" />
          </button>
          <button
            class="plain"
            :aria-label="`${one.name} later`"
            :disabled="i === sheets.sheets.value.length - 1"
            @click="sheets.move(one, 1)"
          >
            <ArrowDown :size="14" />
          </button>
          <button
            class="plain"
            :aria-label="`Take ${one.name} again`"
            title="Take it again by camera"
            @click="emit('again', one.id)"
          >
            <RotateCcw :size="14" />
          </button>
          <button class="plain" :aria-label="`Let ${one.name} go`" @click="sheets.remove(one)"><X :size="14" /></button>
        </span>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.word {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 28px;
  padding: 0;
  color: var(--green);
}

p.open {
  padding-left: 21px;
  font-size: 12px;
}

ol {
  list-style: none;
  padding: 0;
  margin-top: 6px;
}

li {
  padding: 6px 4px;
  border-top: 1px solid var(--rule);
  font-size: 12px;
}

li.on {
  background: var(--green-wash);
}

.look {
  display: block;
  width: 100%;
  padding: 0;
  text-align: left;
}

.look span {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.acts {
  display: flex;
}

.number {
  width: 40px;
}

.acts button {
  min-width: 26px;
  min-height: 24px;
  padding: 0;
  line-height: 0;
  color: var(--soft);
}
</style>
