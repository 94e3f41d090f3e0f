<script setup lang="ts">
import { counted } from '@unhurried/core/time'
import { find, isStroke, LABELS } from '@unhurried/core/document'
import { computed, reactive, ref } from 'vue'
import type { StrokeActs } from '../acts/strokeActs.ts'
import type { Commands } from '../commands.ts'
import { PEN_WORDS } from '../../../strokes/pens.ts'
import { useKit } from '../../../stores/kit.ts'
import { useShot } from '../../../stores/shot.ts'
import { oneLine } from '../../../words/oneLine.ts'
import GatheredPicture from './GatheredPicture.vue'

/** What is gathered, and everything that can be done with it in numbers and words. */
const props = defineProps<{ commands: Commands; strokes: StrokeActs }>()
const kit = useKit()
const shot = useShot()

const touched = computed(() => kit.changed.filter(drawing => [...kit.gathered].some(id => drawing.elements[id])))
/** What is gathered, on whatever drawing it lies. */
const elements = computed(() =>
  touched.value.flatMap(drawing => [...kit.gathered].flatMap(id => drawing.elements[id] ?? [])),
)
const pen = computed(() => elements.value.filter(isStroke))
const pictures = computed(() => elements.value.flatMap(one => (one.kind === 'picture' ? [one] : [])))
const said = computed(() => {
  const where = touched.value.length === 1 ? `on ${touched.value[0]?.number}` : `on ${touched.value.length} drawings`
  const lines = pen.value.length
  const what = [
    ...(lines > 0 || pictures.value.length === 0 ? [counted(lines, 'stroke')] : []),
    ...(pictures.value.length > 0 ? [counted(pictures.value.length, 'picture')] : []),
  ]
  return `${what.join(' and ')} ${where}`
})
const colour = computed(() => shot.document && find(shot.document.swatches, kit.swatch))

const AS_IT_IS = { dx: 0, dy: 0, width: 100, height: 100, turn: 0, skew: 0 }
const numbers = reactive({ ...AS_IT_IS })
const FIELDS = [
  { name: 'dx', words: 'right', unit: 'px', least: -9999, most: 9999 },
  { name: 'dy', words: 'down', unit: 'px', least: -9999, most: 9999 },
  { name: 'width', words: 'width', unit: '%', least: 1, most: 1000 },
  { name: 'height', words: 'height', unit: '%', least: 1, most: 1000 },
  { name: 'turn', words: 'turn', unit: '°', least: -360, most: 360 },
  { name: 'skew', words: 'skew', unit: '°', least: -80, most: 80 },
] as const

/** What is typed and out of reach is brought to the nearest that is not; nothing typed is as it is. */
function doNumbers(): void {
  for (const { name, least, most } of FIELDS) {
    const typed = Number(numbers[name])
    numbers[name] = Number.isFinite(typed) ? Math.max(least, Math.min(most, typed)) : AS_IT_IS[name]
  }
  if (FIELDS.some(({ name }) => numbers[name] !== AS_IT_IS[name])) props.strokes.byNumbers({ ...numbers })
  Object.assign(numbers, AS_IT_IS)
  leave()
}
const part = reactive<{ name: string; timing: 'held' | 'timed'; where: 'above' | 'below' }>({
  name: '',
  timing: 'held',
  where: 'below',
})
const turnTiming = () => (part.timing = part.timing === 'held' ? 'timed' : 'held')
const turnWhere = () => (part.where = part.where === 'above' ? 'below' : 'above')
const behind = computed(() => props.strokes.behind())
const alikeWords = computed(() => {
  const n = props.strokes.alike()?.size ?? 0
  return n > 1 ? `alike on ${counted(n, 'drawing')}` : 'on this drawing alone'
})
function toLayer(): void {
  props.strokes.toLayer({ ...part, name: oneLine(part.name) || 'part' })
  part.name = ''
}
/** Degrees of the axis through the pivot: 0 is level, 45 rises to the right. */
const axis = ref(45)
const axisNow = () => (Number.isFinite(Number(axis.value)) ? Number(axis.value) : 45)

/** The keys are the desk's again. */
const leave = () => (document.activeElement as HTMLElement | null)?.blur()
</script>

<template>
  <section class="gathered" aria-label="Gathered strokes">
    <h2>gathered</h2>
    <p :class="{ rust: touched.length > 1 }">{{ said }}</p>
    <form class="numbers" @submit.prevent="doNumbers" @keydown.esc="leave">
      <label v-for="field in FIELDS" :key="field.name">
        {{ field.words }}
        <input
          v-model.number="numbers[field.name]"
          type="number"
          :min="field.least"
          :max="field.most"
          step="any"
          :aria-label="`${field.words}, ${field.unit}`"
        />
        <span class="soft">{{ field.unit }}</span>
      </label>
      <button class="plain link" type="submit">do it</button>
      <button v-if="kit.pivot" class="plain link" type="button" @click="kit.pivot = null">pivot to the middle</button>
    </form>
    <dl>
      <dt>mirror</dt>
      <dd>
        <button class="plain link" title="Left and right change places" @click="strokes.mirror('upright')">
          sideways
        </button>
        <button class="plain link" title="Up and down change places" @click="strokes.mirror('level')">
          upside down
        </button>
      </dd>
      <dt>mirrored copy</dt>
      <dd>
        <button class="plain link" aria-label="Mirrored copy, sideways" @click="strokes.duplicateMirrored('upright')">
          sideways
        </button>
        <button class="plain link" aria-label="Mirrored copy, upside down" @click="strokes.duplicateMirrored('level')">
          upside down
        </button>
      </dd>
      <dt>mirror about an axis at</dt>
      <dd>
        <input
          v-model.number="axis"
          type="number"
          min="-180"
          max="180"
          step="any"
          aria-label="Axis, °"
          @keydown.esc="leave"
        />
        <span class="soft">°</span>
        <button class="plain link" aria-label="Mirror about the axis" @click="strokes.mirror(axisNow())">mirror</button>
        <button
          class="plain link"
          aria-label="Mirrored copy about the axis"
          @click="strokes.duplicateMirrored(axisNow())"
        >
          copy
        </button>
      </dd>
      <GatheredPicture v-if="pictures.length" :pictures="pictures" :strokes="strokes" />
      <dt v-if="pen.length">line</dt>
      <dd v-if="pen.length">
        <button class="plain link" @click="strokes.reweight(1 / 1.2)">thinner</button>
        <button class="plain link" @click="strokes.reweight(1.2)">thicker</button>
        <button class="plain link" title="Take the tremble out" @click="strokes.smooth()">smooth</button>
        <button
          class="plain link"
          :disabled="!strokes.canJoin()"
          title="Join the gathered lines into one at their nearest ends"
          @click="strokes.join()"
        >
          join
        </button>
      </dd>
      <template v-if="behind">
        <dt>lines that run on behind it</dt>
        <dd>
          <button
            v-if="behind.lines"
            class="plain link"
            title="What lies behind a painted part, or a closed line, is cut where it goes in"
            @click="strokes.cutBehind()"
          >
            cut {{ counted(behind.lines, 'line') }}
          </button>
          <span class="soft">{{ behind.lines ? `on ${counted(behind.drawings, 'drawing')}` : 'none' }}</span>
        </dd>
      </template>
      <dt>a layer of its own</dt>
      <dd class="part">
        <input
          v-model="part.name"
          type="text"
          maxlength="80"
          placeholder="body"
          aria-label="Name of the part's layer"
        />
        <button
          class="plain link"
          title="One sheet through the whole shot, or one with each drawing"
          @click="turnTiming"
        >
          {{ part.timing }}
        </button>
        <button class="plain link" @click="turnWhere">{{ part.where }}</button>
        <button class="plain link go" :title="alikeWords" @click="toLayer">move it there</button>
        <span class="soft">{{ alikeWords }}</span>
      </dd>
      <dt v-if="pen.length">in</dt>
      <dd v-if="pen.length">
        <button class="plain link" title="In the colour that is in the hand" @click="strokes.recolour()">
          <i :style="{ background: colour?.colour }" />{{ colour?.name }}
        </button>
        <button
          class="plain link"
          title="With the pen that is in the hand"
          @click="strokes.renib(kit.pens[kit.pen].nib)"
        >
          {{ PEN_WORDS[kit.pen] }} pen
        </button>
      </dd>
      <dt v-if="pen.length">label</dt>
      <dd v-if="pen.length">
        <button v-for="label in LABELS" :key="label" class="plain link" @click="strokes.relabel(label)">
          {{ label }}
        </button>
        <button class="plain link" @click="strokes.relabel(null)">none</button>
      </dd>
    </dl>
    <p>
      <button class="plain link" :title="commands.tip('delete', 'Take off what is gathered')" @click="strokes.remove()">
        take off
      </button>
      <button
        class="plain link"
        :title="`${commands.tip('copy-frames', 'Copy')}; ${commands.tip('paste-share', 'paste in place')}`"
        @click="strokes.copy()"
      >
        copy
      </button>
      <button class="plain link" :title="commands.tip('let-go', 'Let go of what is gathered')" @click="kit.gather([])">
        let go
      </button>
    </p>
  </section>
</template>

<style scoped>
p {
  display: flex;
  gap: 8px;
}

h2 {
  font: 500 16px var(--serif);
  color: var(--soft);
}

.numbers {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 3px 8px;
  margin: 6px 0 8px;
}

.numbers label {
  display: grid;
  grid-template-columns: 1fr 42px 11px;
  gap: 3px;
  align-items: center;
  font-size: 12px;
}

.numbers button {
  justify-self: start;
}

input {
  width: 100%;
  padding: 1px 4px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  text-align: right;
  font-variant-numeric: tabular-nums;
  appearance: textfield;
}

input::-webkit-inner-spin-button {
  display: none;
}

.part {
  flex-wrap: wrap;
}

.part input {
  flex: 1 1 60px;
  text-align: left;
}

.part .go {
  font-weight: 700;
}

dl {
  display: grid;
  grid-template-columns: auto;
  gap: 0;
}

dt {
  font-size: 12px;
  color: var(--soft);
}

dd {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 8px;
  margin-bottom: 4px;
}

dd input {
  width: 46px;
}

dd input + .soft {
  margin-left: -6px;
}

.link {
  color: var(--green);
  padding: 1px 2px;
}

.link i {
  display: inline-block;
  width: 9px;
  height: 9px;
  margin-right: 4px;
  border-radius: 50%;
  border: 1px solid var(--rule);
}
</style>
