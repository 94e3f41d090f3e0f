<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import SheetCamera from './SheetCamera.vue'
import SheetLevels from './SheetLevels.vue'
import SheetPhotos from './SheetPhotos.vue'
import SheetRegister from './SheetRegister.vue'
import SheetSeen from './SheetSeen.vue'
import SheetTelephone from './SheetTelephone.vue'
import SheetsLay from './SheetsLay.vue'
import { useSheets } from './useSheets.ts'
import { useTelephone } from './useTelephone.ts'

/** The steps from photographs to drawings: each is seen as it was and as it becomes, and can be put right. */
const props = defineProps<{ files: readonly File[]; shown: boolean }>()
const emit = defineEmits<{ done: []; asked: [] }>()
const sheets = useSheets()
const STEPS = [
  { step: 'light', words: '1 · light and ink' },
  { step: 'drawings', words: '2 · drawings' },
  { step: 'lay', words: '3 · on one another' },
  { step: 'sheet', words: '4 · onto the sheet' },
] as const
type Step = (typeof STEPS)[number]['step']
const step = ref<Step>('light')
/** the photograph, and the drawing, that are looked at */
const sheetId = ref<string | null>(null)
const key = ref<string | null>(null)
const sheet = computed(
  () => sheets.sheets.value.find(one => one.id === sheetId.value) ?? sheets.sheets.value[0] ?? null,
)
const drawing = computed(() => {
  const all = sheets.drawings.value
  // Found anew its box is another one: what was looked at is then the drawing of the same sheet.
  const ofSheet = () => all.find(one => key.value?.startsWith(`${one.sheet.id} `))
  return all.find(one => one.key === key.value) ?? ofSheet() ?? all[0] ?? null
})
/** where photographs are taken from while one does not look at them */
const source = ref<'camera' | 'telephone' | null>(null)
const telephone = useTelephone((blob, name) => sheets.add([{ name, blob }]))
function turnTo(to: 'camera' | 'telephone'): void {
  source.value = source.value === to ? null : to
  if (source.value === 'telephone' && !telephone.code.value) void telephone.open()
}
/** a photograph that is taken again by the camera */
const again = ref<string | null>(null)
/** Photographs that were brought to the desk are added to those there are. */
const begin = (files: readonly File[]) =>
  files.length > 0 && void sheets.add(files.map(file => ({ name: file.name, blob: file })))
onMounted(() => begin(props.files))
watch(() => props.files, begin)
// What was added last is looked at.
watch(
  () => sheets.sheets.value.length,
  (now, before) => now > before && (sheetId.value = sheets.sheets.value.at(-1)?.id ?? null),
)
function takeAgain(id: string): void {
  again.value = id
  source.value = 'camera'
}
/** The number on the sheet that is taken next; one that is there already is taken again. */
const number = ref<number | null>(null)
const numberNow = computed(() => number.value ?? sheets.nextNumber())
const instead = computed(
  () =>
    sheets.sheets.value.find(one => one.id === again.value) ??
    sheets.sheets.value.find(one => one.number === numberNow.value) ??
    null,
)
async function taken(blob: Blob): Promise<void> {
  const mine = numberNow.value
  const asked = again.value
  await sheets.add([{ name: `sheet ${mine}`, blob, number: mine }], instead.value?.id ?? null)
  // Another one may have been chosen to be taken again while this one was read.
  if (again.value === asked) again.value = null
  if (number.value === mine) number.value = null
}
/** The last sheet that was taken, to be seen through while the next one is. */
const last = computed(() => {
  const at = sheets.sheets.value.findIndex(one => one.id === again.value)
  return sheets.sheets.value[at > 0 ? at - 1 : sheets.sheets.value.length - 1] ?? null
})
</script>

<template>
  <div class="work" @keydown="event => event.key !== 'Escape' && event.stopPropagation()">
    <SheetPhotos
      class="photos"
      :sheets="sheets"
      :sheet="sheet"
      :source="source"
      :telephone="telephone"
      @look="id => ((sheetId = id), (source = null))"
      @source="turnTo"
      @again="takeAgain"
    />
    <SheetCamera
      v-if="source === 'camera' && shown"
      class="middle"
      :last="last"
      :again="instead?.name ?? null"
      :count="sheets.sheets.value.length"
      :number="instead?.number ?? numberNow"
      :taken="taken"
      @number="n => ((number = n), (again = null))"
    />
    <SheetTelephone v-else-if="source === 'telephone'" class="middle" :from="telephone" @done="source = null" />
    <SheetSeen
      v-else
      class="middle"
      :sheets="sheets"
      :sheet="sheet"
      :drawing="drawing"
      :step="step"
      @key="key = $event"
    />
    <div class="steps">
      <nav aria-label="Steps">
        <button
          v-for="one in STEPS"
          :key="one.step"
          class="plain step"
          :class="{ on: step === one.step && !source }"
          :aria-current="step === one.step ? 'step' : undefined"
          :disabled="!sheet"
          @click="((step = one.step), (source = null))"
        >
          {{ one.words }}
        </button>
      </nav>
      <template v-if="sheet && !source">
        <SheetLevels v-if="step === 'light'" :sheets="sheets" :sheet="sheet" />
        <SheetRegister
          v-else-if="step !== 'sheet'"
          :sheets="sheets"
          :sheet="sheet"
          :drawing="drawing"
          :step="step"
          @key="key = $event"
        />
        <SheetsLay v-else :sheets="sheets" @done="emit('done')" @asked="emit('asked')" />
      </template>
      <p v-if="sheets.busy.value" class="soft" role="status">{{ sheets.busy.value }}</p>
    </div>
  </div>
</template>

<style scoped>
.work {
  display: grid;
  grid-template: min(66vh, 640px) / 168px minmax(0, 1fr) 268px;
  gap: 18px;
}

.photos,
.steps {
  min-height: 0;
  overflow-y: auto;
}

.middle {
  min-width: 0;
  min-height: 0;
}

nav {
  display: grid;
  margin-bottom: 10px;
  border-bottom: 1px solid var(--rule);
  padding-bottom: 6px;
}

.step {
  min-height: 28px;
  padding: 0;
  text-align: left;
  font-family: var(--serif);
  font-size: 15px;
  color: var(--soft);
}

.step.on {
  color: var(--ink);
  font-weight: 700;
}
</style>
