<script setup lang="ts">
import { exposures, marksOf, type Mark, type Operation } from '@unhurried/core/document'
import { slips } from '@unhurried/core/measure'
import { Footprints, X } from 'lucide-vue-next'
import { ElInput } from 'element-plus'
import { computed, ref } from 'vue'
import type { Commands } from '../keys/commands.ts'
import { useDesk } from '../stores/desk.ts'
import { newId } from '../stores/ids.ts'
import { useMeasure } from '../stores/measure.ts'
import { useShot } from '../stores/shot.ts'
import { oneLine } from '../words/oneLine.ts'

/** Named points of the layer, and the quick pass that places them drawing by drawing. */
const props = defineProps<{ commands: Commands }>()
const shot = useShot()
const desk = useDesk()
const measure = useMeasure()
const marks = computed(() => (shot.document ? marksOf(shot.document, desk.layerId) : []))
const sheets = computed(() => [
  ...new Set(shot.take ? exposures(shot.take, desk.layerId).map(run => run.drawing as string) : []),
])
const placed = (mark: Mark) => sheets.value.filter(id => shot.drawing(id)?.marks[mark.id]).length
const fresh = ref('')
const MOST_SLIPS = 4

function pass(mark: Mark): void {
  const on = desk.tool === 'mark' && desk.markId === mark.id
  desk.tool = on ? 'line' : 'mark'
  desk.markId = on ? null : mark.id
}

function add(): void {
  const name = oneLine(fresh.value)
  if (!name) return
  const id = newId()
  const order = (marks.value[marks.value.length - 1]?.order ?? 0) + 1
  if (shot.commit(`mark ${name}`, [{ kind: 'mark.add', mark: { id, layer: desk.layerId, name, order } }])) return
  fresh.value = ''
  desk.tool = 'mark'
  desk.markId = id
}

/** Takes a mark off every drawing, and away. */
function remove(mark: Mark): void {
  const drawings = Object.values(shot.document?.drawings ?? {})
  const charts = Object.values(shot.document?.charts ?? {}).filter(chart => chart.part === mark.id)
  const ops: Operation[] = [
    ...charts.map((chart): Operation => ({ kind: 'chart.remove', id: chart.id })),
    ...drawings
      .filter(drawing => drawing.marks[mark.id])
      .map((drawing): Operation => ({ kind: 'marks.place', drawing: drawing.id, places: { [mark.id]: null } })),
    { kind: 'mark.remove', id: mark.id },
  ]
  if (!shot.commit(`remove mark ${mark.name}`, ops) && desk.markId === mark.id) desk.markId = null
}

/** Plants a mark, or lifts it, on the present drawing and on all that are marked on the sheet. */
function plant(mark: Mark): void {
  const here = desk.drawing?.marks[mark.id]
  if (!here) return
  const planted = !here.planted
  const sheets = desk.markedDrawings.length ? desk.markedDrawings : desk.drawing ? [desk.drawing] : []
  const ops = sheets.flatMap((drawing): Operation[] => {
    const place = drawing.marks[mark.id]
    return place && place.planted !== planted
      ? [{ kind: 'marks.place', drawing: drawing.id, places: { [mark.id]: { ...place, planted } } }]
      : []
  })
  shot.commit(
    `${mark.name} ${planted ? 'planted' : 'lifted'} on ${ops.length === 1 ? desk.drawing?.number : `${ops.length} drawings`}`,
    ops,
  )
}

const nameOf = (id: string) => shot.document?.marks[id]?.name ?? ''
/** The planted marks that slip, the worst first. */
const slipping = computed(() =>
  measure.planted
    .filter(slips)
    .sort((a, b) => b.offPx - a.offPx)
    .slice(0, MOST_SLIPS),
)

function takeOff(mark: Mark): void {
  const { drawing } = desk
  if (drawing?.marks[mark.id]) {
    shot.commit(`${mark.name} off ${drawing.number}`, [
      { kind: 'marks.place', drawing: drawing.id, places: { [mark.id]: null } },
    ])
  }
}
</script>

<template>
  <section aria-label="Marks">
    <h2>
      marks
      <span v-if="desk.tool === 'mark' && desk.markId" class="pass">click where it lies</span>
    </h2>
    <label v-if="desk.tool === 'mark' && desk.markId" class="plants">
      <input v-model="desk.plants" type="checkbox" /> planted: it must not slip
    </label>
    <ul v-if="marks.length">
      <li v-for="mark in marks" :key="mark.id" :class="{ on: desk.tool === 'mark' && mark.id === desk.markId }">
        <button
          class="plain name"
          :disabled="!desk.mayEdit"
          :aria-pressed="desk.tool === 'mark' && mark.id === desk.markId"
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
    <p v-for="one in slipping" :key="`${one.mark} ${one.drawing}`" class="slip">
      <button class="plain" :title="`Go to frame ${one.frame + 1}`" @click="desk.goTo(one.frame)">
        {{ nameOf(one.mark) }} slips on {{ shot.drawing(one.drawing)?.number }}: {{ Math.round(one.offPx) }} px from
        where {{ shot.drawing(one.from)?.number }} set it down
      </button>
    </p>
    <form v-if="desk.mayEdit" @submit.prevent="add">
      <ElInput
        v-model="fresh"
        size="small"
        placeholder="nose, heel, tail tip …"
        maxlength="80"
        aria-label="Name of a new mark"
      />
      <button class="plain word" :disabled="!fresh.trim()">add</button>
    </form>
    <p v-if="!marks.length && !props.commands.get('mark-pass').can()" class="soft">No marks on this layer.</p>
  </section>
</template>

<style scoped>
h2 {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}

.pass {
  font: 700 12px var(--sans);
  color: var(--rust);
}

ul {
  list-style: none;
  margin-top: 4px;
}

li {
  display: flex;
  align-items: center;
  gap: 4px;
  font-size: 13px;
}

.name {
  flex: 1;
  min-width: 0;
  margin-left: -4px;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
}

.on .name {
  font-weight: 700;
  color: var(--rust);
}

.x,
.planted {
  line-height: 0;
}

.planted {
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

.slip .plain {
  margin-left: -4px;
  text-align: left;
  font-size: 12.5px;
  color: var(--rust);
}

form {
  display: flex;
  gap: 6px;
  margin-top: 4px;
}

.word {
  color: var(--green);
}
</style>
