<script setup lang="ts">
import { boilOrder } from '@unhurried/core/motion'
import {
  broughtShape,
  picturesInTurn,
  picturesOnLayer,
  roomOf,
  type BroughtIn,
  type BroughtShapes,
  type Manner,
} from '@unhurried/core/document'
import { counted, readLength } from '@unhurried/core/time'
import { ElButton, ElInput } from 'element-plus'
import { computed, ref } from 'vue'
import WordChoice from '../../../shared/WordChoice.vue'
import { newId } from '../../../local/ids.ts'
import { useAsking } from '../../../stores/asking.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'
import { lengthInWords } from '../../../words/lengths.ts'
import { oneLine } from '../../../words/oneLine.ts'
import type { Sheets } from './useSheets.ts'

/** Drawings of photographed sheets onto the exposure sheet: held so long, in turn or in an order that shivers. */
const props = defineProps<{ sheets: Sheets }>()
/** done: they are laid. asked: the desk answers, or asks for room, under what is open here */
const emit = defineEmits<{ done: []; asked: [] }>()
const shot = useShot()
const desk = useDesk()
const asking = useAsking()
const fps = computed(() => shot.document?.format.fps ?? 24)
const drawings = computed(() => props.sheets.drawings.value)
const wish = ref('0.2 s')
const reading = computed(() => readLength(wish.value, fps.value))
const hold = computed(() => (reading.value.ok ? Math.max(1, reading.value.frames) : null))
const becomes = computed(() => lengthInWords(reading.value, fps.value))
const boils = ref(false)
const traced = ref(false)
const WAYS = [
  { value: false, words: 'as pictures', tip: 'Every shade of the pencil, on transparency' },
  { value: true, words: 'traced as shapes', tip: 'Painted shapes, to be recoloured, cut and moved like any other' },
]
const name = ref('sheets')
const mayBoil = computed(() => drawings.value.length >= 3)
/** How often they are shown one after the other to the end of the take. */
const order = computed(() => {
  const count = drawings.value.length
  if (!boils.value || !mayBoil.value || !hold.value || !shot.take) return undefined
  const times = Math.max(count, Math.floor((shot.take.length - desk.frame) / hold.value))
  return boilOrder(count, Math.min(2000, times), 1)
})
const frames = computed(() => (order.value?.length ?? drawings.value.length) * (hold.value ?? 0))
const { swatch } = props.sheets

async function asPictures(keep: (bytes: Uint8Array) => string): Promise<BroughtIn[]> {
  const { width: widthPx, height: heightPx } = shot.document?.format ?? { width: 1, height: 1 }
  const bytes = await props.sheets.pictures()
  return bytes.map(one => ({ id: keep(one), widthPx, heightPx, was: { widthPx, heightPx }, frames: null }))
}
async function asShapes(keep: (bytes: Uint8Array) => string): Promise<BroughtShapes[]> {
  const id = swatch.value?.id ?? Object.keys(shot.document?.swatches ?? {})[0] ?? ''
  const pieces = await props.sheets.shapes()
  return pieces.map(one => ({
    elements: one.map((bytes, z) => broughtShape(newId(), keep(bytes), id, z)),
    frames: null,
  }))
}

async function lay(own: boolean): Promise<void> {
  const { document, take } = shot
  if (!document || !take || !hold.value) return
  const samples = new Map<string, Uint8Array>()
  const keep = (bytes: Uint8Array): string => {
    const id = newId()
    samples.set(id, bytes)
    return id
  }
  const all = traced.value ? await asShapes(keep) : await asPictures(keep)
  if (all.length === 0 || shot.document?.format !== document.format) return
  const from = {
    frame: desk.frame,
    holdFrames: hold.value,
    role: desk.roleOfNew(),
    ...(order.value && { order: order.value }),
  }
  const layer = { id: newId(), name: oneLine(name.value) || 'sheets', kind: 'drawn' as const }
  const attempt = (manner: Manner) => {
    const [now, here] = [shot.document ?? document, shot.take ?? take]
    return own
      ? picturesOnLayer(now, here, layer, from, all, { following: 'stay', room: roomOf(manner) }, newId)
      : picturesInTurn(now, here, { ...from, layer: desk.layerId }, all, manner, newId)
  }
  const done = () => {
    if (own) desk.layerId = layer.id
    emit('done')
  }
  asking.act({ label: counted(all.length, 'photographed drawing'), attempt, more: { samples }, done })
  emit('asked')
}
/** Laid twice by two presses they would be there twice. */
const isShut = computed(() => !hold.value || drawings.value.length === 0 || props.sheets.busy.value !== '')
</script>

<template>
  <div class="lay">
    <p>
      <b>{{ counted(drawings.length, 'drawing') }}</b> in {{ swatch?.name ?? 'ink' }}:
    </p>
    <WordChoice v-model="traced" label="How they are inked" :options="WAYS" />
    <label>
      <span>each held</span>
      <ElInput v-model="wish" size="small" maxlength="20" aria-label="How long each drawing is held" />
    </label>
    <p class="soft">{{ becomes }}</p>
    <label class="tick" :title="mayBoil ? '' : 'Three drawings at least'">
      <input v-model="boils" type="checkbox" :disabled="!mayBoil" />
      shivering: never the same twice running, to the end
    </label>
    <p v-if="hold" class="soft">{{ counted(frames, 'frame') }} from frame {{ desk.frame + 1 }} on.</p>
    <label>
      <span>layer</span>
      <ElInput v-model="name" size="small" maxlength="80" aria-label="Name of the layer" />
    </label>
    <ElButton type="primary" :disabled="isShut" @click="lay(true)"> lay them on a layer of their own </ElButton>
    <ElButton :disabled="isShut || !desk.mayEdit || desk.timedLayer !== desk.layerId" @click="lay(false)">
      on {{ shot.document?.layers[desk.layerId]?.name ?? 'this layer' }}
    </ElButton>
  </div>
</template>

<style scoped>
.lay {
  display: grid;
  gap: 8px;
  font-size: 13px;
}

label {
  display: grid;
  grid-template-columns: 70px minmax(0, 1fr);
  align-items: center;
  gap: 8px;
}

.tick {
  grid-template-columns: auto 1fr;
}

.tick input {
  accent-color: var(--green);
}

.el-button + .el-button {
  margin-left: 0;
}
</style>
