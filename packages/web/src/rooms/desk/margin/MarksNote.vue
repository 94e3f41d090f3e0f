<script setup lang="ts">
import { addMark, exposures, marksOf, placeMark, plantMark, removeMark, type Mark } from '@unhurried/core/document'
import { tracksOfMarks } from '@unhurried/core/measure'
import { Footprints, X } from 'lucide-vue-next'
import { ElInput, type InputInstance } from 'element-plus'
import { computed, nextTick, ref, watch } from 'vue'
import type { Commands } from '../commands.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useProposedMark } from '../../../stores/proposedMark.ts'
import { useSight } from '../../../stores/sight.ts'
import { newId } from '../../../local/ids.ts'
import { useShot } from '../../../stores/shot.ts'
import NumberField from '../../../shared/NumberField.vue'
import MovementTable from './MovementTable.vue'
import { oneLine } from '../../../words/oneLine.ts'

/** Named points of the layer, and the quick pass that places them drawing by drawing. */
const props = defineProps<{ commands: Commands }>()
const shot = useShot()
const desk = useDesk()
const kit = useKit()
const sight = useSight()
const marking = useProposedMark()
const marks = computed(() => (shot.document ? marksOf(shot.document, desk.layerId) : []))
const sheets = computed(() => [
  ...new Set(shot.take ? exposures(shot.take, desk.layerId).map(run => run.drawing as string) : []),
])
/** where the marks go, over the take */
const tracks = computed(() => {
  const { document, take } = shot
  return document && take ? tracksOfMarks(document, take, desk.timedLayer) : []
})
const placed = (mark: Mark) => sheets.value.filter(id => shot.drawing(id)?.marks[mark.id]).length
const fresh = ref('')
const field = ref<InputInstance | null>(null)
/** The tool is in the hand and there is nothing to place with it: it is named first. */
const asks = computed(() => kit.tool === 'mark' && desk.mayEdit && marks.value.length === 0)
watch(asks, now => now && void nextTick(() => field.value?.focus()), { immediate: true })

function pass(mark: Mark): void {
  const on = kit.tool === 'mark' && kit.markId === mark.id
  kit.tool = on ? 'line' : 'mark'
  kit.markId = on ? null : mark.id
}

/** A mark for enclosed empty space: an arm on the hip. What lies in it is not body, where areas are measured. */
function addSpace(): void {
  const nth = marks.value.filter(mark => mark.kind === 'space').length + 1
  put(nth === 1 ? 'empty space' : `empty space ${nth}`, 'space')
}

function add(): void {
  const name = oneLine(fresh.value)
  if (name) put(name, 'point')
}

function put(name: string, kind: Mark['kind']): void {
  const id = newId()
  if (!shot.document || shot.commit(`mark ${name}`, addMark(shot.document, desk.layerId, id, name, kind))) return
  if (kind === 'point') fresh.value = ''
  // It is placed next: the keys are the desk’s.
  field.value?.blur()
  kit.tool = 'mark'
  kit.markId = id
}

/** Takes a mark off every drawing, and away. */
function remove(mark: Mark): void {
  if (!shot.document || shot.commit(`remove mark ${mark.name}`, removeMark(shot.document, mark.id))) return
  if (kit.markId === mark.id) kit.markId = null
}

function setGap(px: number | null): void {
  if (px !== null) sight.closedGapPx = Math.max(0, Math.min(60, px))
}

/** Plants a mark, or lifts it, on the present drawing and on all that are marked on the sheet. */
function plant(mark: Mark): void {
  const here = desk.drawing?.marks[mark.id]
  if (!here) return
  const planted = !here.planted
  const sheets = desk.markedDrawings.length ? desk.markedDrawings : desk.drawing ? [desk.drawing] : []
  const ops = plantMark(sheets, mark.id, planted)
  shot.commit(
    `${mark.name} ${planted ? 'planted' : 'lifted'} on ${ops.length === 1 ? desk.drawing?.number : `${ops.length} drawings`}`,
    ops,
  )
}

function takeOff(mark: Mark): void {
  const { drawing } = desk
  if (drawing?.marks[mark.id]) {
    shot.commit(`${mark.name} off ${drawing.number}`, placeMark(drawing.id, mark.id, null))
  }
}
</script>

<template>
  <div>
    <label v-if="kit.tool === 'mark' && kit.markId" class="plants">
      <input v-model="kit.plants" type="checkbox" /> planted: it must not slip
    </label>
    <p v-if="marking.place" class="proposed" role="status">
      {{
        marking.place.isFound
          ? 'The shape around it is found here again:'
          : 'Nothing like it is found here; it would lie'
      }}
      <button class="plain word" @click="commands.get('mark-take').run()">
        {{ marking.place.isFound ? 'place it there' : 'there between its neighbours' }}
        <kbd>{{ commands.keysOf('mark-take') }}</kbd>
      </button>
    </p>
    <ul v-if="marks.length">
      <li v-for="mark in marks" :key="mark.id" :class="{ on: kit.tool === 'mark' && mark.id === kit.markId }">
        <button
          class="plain name"
          :disabled="!desk.mayEdit"
          :aria-pressed="kit.tool === 'mark' && mark.id === kit.markId"
          :title="commands.tip('mark-pass', 'Place it, drawing by drawing')"
          @click="pass(mark)"
        >
          {{ mark.name }}
        </button>
        <span class="soft">{{ placed(mark) }} of {{ sheets.length }}</span>
        <button
          v-if="desk.mayEdit && desk.drawing?.marks[mark.id]"
          class="plain soft"
          :class="{ planted: desk.drawing.marks[mark.id]?.planted }"
          :aria-pressed="desk.drawing.marks[mark.id]?.planted"
          :aria-label="`${mark.name} is planted`"
          title="Planted: it rests on the ground, and warns when it slips"
          @click="plant(mark)"
        >
          <Footprints :size="14" />
        </button>
        <button
          v-if="desk.mayEdit && desk.drawing?.marks[mark.id]"
          class="plain soft"
          :title="`Take it off ${desk.drawing.number}`"
          @click="takeOff(mark)"
        >
          off
        </button>
        <button
          v-if="desk.mayEdit"
          class="plain soft x"
          :aria-label="`Remove the mark ${mark.name}`"
          @click="remove(mark)"
        >
          <X :size="13" />
        </button>
      </li>
    </ul>
    <form v-if="desk.mayEdit" @submit.prevent="add">
      <ElInput
        ref="field"
        v-model="fresh"
        size="small"
        placeholder="nose, heel, tail tip …"
        maxlength="80"
        aria-label="Name of a new mark"
      />
      <button class="plain word" :disabled="!fresh.trim()">add</button>
    </form>
    <div v-if="desk.mayEdit" class="measured">
      <button
        class="plain word"
        title="Enclosed empty space, as between an arm on the hip and the body: place it there, and it is not measured as body"
        @click="addSpace"
      >
        mark empty space
      </button>
      <label
        title="Outlines open by no more than this, or by the width of their line, count as closed when areas are measured"
      >
        gaps up to
        <NumberField
          :value="sight.closedGapPx"
          :take="setGap"
          :least="0"
          :most="60"
          :step="1"
          label="Gaps that count as closed, px"
        />
        px closed
      </label>
    </div>
    <MovementTable v-if="tracks.length" :tracks="tracks" />
    <p v-if="!marks.length && !props.commands.get('mark-pass').can()" class="soft">No marks on this layer.</p>
  </div>
</template>

<style scoped src="./named.css"></style>
<style scoped>
ul {
  margin-top: 4px;
}

.on .name {
  color: var(--rust);
}

.planted {
  line-height: 0;
}

.planted {
  color: var(--green);
}

.proposed {
  font-size: 12.5px;
}

.proposed .word {
  color: var(--green);
}

.plants {
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 12.5px;
}

.plants input {
  accent-color: var(--green);
}

.measured {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 2px 8px;
  font-size: 12.5px;
  color: var(--soft);
}

.measured .word {
  margin-left: -4px;
}

.measured input {
  width: 40px;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: none;
  color: var(--ink);
  text-align: right;
}
</style>
