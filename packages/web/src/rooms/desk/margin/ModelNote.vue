<script setup lang="ts">
import type { ModelCard } from '@unhurried/contract'
import { addMarks, sheetsUnder } from '@unhurried/core/document'
import { counted } from '@unhurried/core/time'
import { EMPTY_BOX, grown, isEmptyBox, unite } from '@unhurried/core/geometry'
import { freshPoints } from '@unhurried/core/models'
import { X } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { newId } from '../../../local/ids.ts'
import { drawnIn } from '../../../paint/bitmaps.ts'
import { bringFiles } from '../../../pictures/bringing.ts'
import NumberField from '../../../shared/NumberField.vue'
import TextField from '../../../shared/TextField.vue'
import { useDesk } from '../../../stores/desk.ts'
import { useModels } from '../../../stores/models.ts'
import { useShelves } from '../../../stores/shelves.ts'
import { useShot } from '../../../stores/shot.ts'
import { useSight } from '../../../stores/sight.ts'
import { useStands } from '../../../stores/stands.ts'
import { outInWords } from '../../../words/bringing.ts'
import { nameOfFile, oneLine } from '../../../words/oneLine.ts'

/** One model sheet: its sides, brought in or drawn here, its heights, and how it lies over the paper. */
const props = defineProps<{ card: ModelCard }>()
const shot = useShot()
const desk = useDesk()
const sight = useSight()
const models = useModels()
const stands = useStands()
const shelves = useShelves()
const busy = ref('')
const USUAL = ['front', 'side', 'back'] as const
const freshName = computed(() => {
  const taken = new Set(props.card.model.views.map(view => view.name))
  return USUAL.find(name => !taken.has(name)) ?? `side ${props.card.model.views.length + 1}`
})

function choose(): void {
  const input = document.createElement('input')
  input.type = 'file'
  input.accept = 'image/*'
  input.multiple = true
  input.onchange = () => void bring([...(input.files ?? [])])
  input.click()
}
async function bring(files: readonly File[]): Promise<void> {
  const { id } = shot
  const { format } = shot.document ?? {}
  if (!format || files.length === 0) return
  busy.value = 'reading …'
  const isWanted = () => shot.id === id
  const all = await bringFiles(files, { widthPx: format.width, heightPx: format.height }, () => undefined, isWanted)
  busy.value = ''
  if (!isWanted()) return
  if (all.out.length) shot.notice = outInWords(all.out)
  for (const { bytes, name, widthPx, heightPx } of all.pictures) {
    const now = models.all.find(one => one.id === props.card.id)
    const points = freshPoints({ left: 0, top: 0, right: widthPx, bottom: heightPx })
    if (!now) return
    const view = { name: nameOfFile(name, freshName.value), widthPx, heightPx, ...points, bytes: bytes.slice() }
    if (!(await models.addView(now, view))) return
  }
}

/** Pixels of the picture that a drawing becomes: as large as the paper has it, and not beyond. */
const MARGIN_PX = 12
async function fromDrawing(): Promise<void> {
  const { document } = shot
  const { drawing } = desk
  if (!document || !drawing) return
  const all = [...sheetsUnder(document, drawing), drawing]
  const round = all.reduce((box, one) => unite(box, shelves.here.boxOf(one)), EMPTY_BOX)
  if (isEmptyBox(round)) return void (shot.notice = `There is nothing on ${drawing.number} yet.`)
  const box = grown(round, MARGIN_PX)
  const [left, top] = [Math.floor(box.left), Math.floor(box.top)]
  const [widthPx, heightPx] = [Math.ceil(box.right) - left, Math.ceil(box.bottom) - top]
  const brush = new OffscreenCanvas(widthPx, heightPx).getContext('2d')
  if (!brush) return
  brush.translate(-left, -top)
  for (const one of all) shelves.here.draw(brush, one, drawnIn(sight.colours), 1)
  const blob = await brush.canvas.convertToBlob({ type: 'image/png' })
  const bytes = new Uint8Array(await blob.arrayBuffer())
  const points = freshPoints({
    left: MARGIN_PX,
    top: MARGIN_PX,
    right: widthPx - MARGIN_PX,
    bottom: heightPx - MARGIN_PX,
  })
  await models.addView(props.card, { name: freshName.value, widthPx, heightPx, ...points, bytes })
}

/** Marks called like its heights: with them the layer in the hand is held against the sheet. Two heights only make the scale. */
const fresh = computed(() => {
  const { document } = shot
  const { heights } = props.card.model
  if (!document || heights.length < 3) return []
  return addMarks(
    document,
    desk.layerId,
    heights.map(({ name }) => name),
    newId,
  )
})

const side = computed(() => {
  const { views } = props.card.model
  return views.find(view => view.id === stands.all.find(one => one.id === props.card.id)?.side) ?? views[0] ?? null
})
const isOver = computed(() => stands.over?.model === props.card.id)
function layOver(): void {
  const { format } = shot.document ?? {}
  if (isOver.value) return void (stands.over = null)
  if (!side.value || !format) return
  const at = (share: number) => ({ x: Math.round(format.width / 2), y: Math.round(format.height * share) })
  const [low, high] = sight.aids.length ?? [at(0.85), at(0.25)]
  stands.lay(props.card.id, side.value.id, low, high)
}
/** What is gone is neither beside the paper nor over it. */
async function remove(): Promise<void> {
  await models.remove(props.card)
  if (models.all.some(one => one.id === props.card.id)) return
  if (isOver.value) stands.over = null
  for (const stand of stands.all) if (stand.id === props.card.id) stands.remove(stand.key)
}
const percent = (share: number) => Math.round(share * 1000) / 10
</script>

<template>
  <div class="model">
    <label v-if="shot.mayDraw" class="named">
      <span>name</span>
      <TextField
        :text="card.model.name"
        :most="80"
        label="Name of the model sheet"
        @done="name => oneLine(name) && oneLine(name) !== card.model.name && models.rename(card, oneLine(name))"
      />
    </label>
    <ul v-if="card.model.views.length">
      <li v-for="view in card.model.views" :key="view.id">
        <TextField
          :text="view.name"
          :most="80"
          :disabled="!shot.mayDraw"
          :label="`Name of the side ${view.name}`"
          @done="
            name =>
              oneLine(name) && oneLine(name) !== view.name && models.changeView(card, view.id, { name: oneLine(name) })
          "
        />
        <span class="soft">{{ view.widthPx }} × {{ view.heightPx }}</span>
        <button
          v-if="shot.mayDraw"
          class="plain soft x"
          :aria-label="`Take the side ${view.name} off`"
          @click="models.removeView(card, view.id)"
        >
          <X :size="13" />
        </button>
      </li>
    </ul>
    <p v-if="shot.mayDraw" class="acts">
      <button
        class="plain word"
        :disabled="!desk.drawing"
        title="With the paint under it, cut to what is drawn"
        @click="fromDrawing"
      >
        this drawing as its {{ freshName }}
      </button>
      <button class="plain word" @click="choose">bring pictures in</button>
    </p>
    <p v-if="busy" class="soft told" role="status">{{ busy }}</p>
    <ul v-if="card.model.heights.length">
      <li v-for="height in card.model.heights" :key="height.id">
        <TextField
          :text="height.name"
          :most="80"
          :disabled="!shot.mayDraw"
          :label="`Name of the height ${height.name}`"
          @done="
            name =>
              oneLine(name) &&
              oneLine(name) !== height.name &&
              models.changeHeight(card, height.id, { name: oneLine(name) })
          "
        />
        <NumberField
          :value="percent(height.share)"
          :take="n => n !== null && models.changeHeight(card, height.id, { share: n / 100 })"
          :least="-400"
          :most="400"
          :step="1"
          :disabled="!shot.mayDraw"
          :label="`${height.name}, per cent of the way from sole to crown`"
        />
        <span class="soft">%</span>
        <button
          v-if="shot.mayDraw"
          class="plain soft x"
          :aria-label="`Take the height ${height.name} off`"
          @click="models.removeHeight(card, height.id)"
        >
          <X :size="13" />
        </button>
      </li>
    </ul>
    <p v-if="shot.mayDraw && fresh.length" class="acts">
      <button
        class="plain word"
        :title="`On ${desk.layer?.name}: in Measure it is held against this sheet`"
        @click="shot.commit('marks for heights', fresh)"
      >
        marks for {{ counted(fresh.length, 'height') }}
      </button>
    </p>
    <p class="acts">
      <button
        v-if="side"
        class="plain word"
        :aria-pressed="isOver"
        title="Over the drawing, from its sole to its crown: drag the two points where they belong"
        @click="layOver"
      >
        {{ isOver ? 'off the paper' : 'lay it over the paper' }}
      </button>
      <button v-if="shot.mayDraw" class="plain word" @click="remove">take the sheet away</button>
    </p>
    <label v-if="isOver && stands.over" class="wash">
      <span>how strongly</span>
      <input
        type="range"
        min="0.05"
        max="1"
        step="0.05"
        :value="stands.over.strength"
        @input="
          event =>
            stands.over &&
            (stands.over = { ...stands.over, strength: Number((event.target as HTMLInputElement).value) })
        "
      />
    </label>
  </div>
</template>

<style scoped src="./fields.css"></style>
<style scoped src="./named.css"></style>
<style scoped>
.model {
  margin: 0 0 6px;
  padding: 2px 0 4px 8px;
  border-left: 2px solid var(--green);
  font-size: 12.5px;
}

li {
  min-height: 26px;
}

li > :first-child {
  flex: 1;
  min-width: 0;
}

li :deep(input) {
  text-align: left;
}

.named,
.wash {
  grid-template-columns: auto minmax(0, 1fr);
}

input[type='range'] {
  padding: 0;
  accent-color: var(--green);
}
</style>
