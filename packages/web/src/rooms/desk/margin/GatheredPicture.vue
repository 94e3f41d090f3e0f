<script setup lang="ts">
import type { Picture } from '@unhurried/core/document'
import { computed } from 'vue'
import NumberField from '../../../shared/NumberField.vue'
import { useKit } from '../../../stores/kit.ts'
import type { StrokeActs } from '../acts/strokeActs.ts'

/** Gathered pictures: how strong they are, what of them is seen, and whether they only stand for something. */
const props = defineProps<{ pictures: readonly Picture[]; strokes: StrokeActs }>()
const kit = useKit()
const one = computed(() => (props.pictures.length === 1 ? (props.pictures[0] ?? null) : null))
const strength = computed(() => Math.round((props.pictures[0]?.opacity ?? 1) * 100))
const isPlaceholder = computed(() => props.pictures.every(picture => picture.placeholder))
const SIDES = [
  { side: 'left', words: 'left' },
  { side: 'top', words: 'above' },
  { side: 'right', words: 'right' },
  { side: 'bottom', words: 'below' },
] as const
type Side = (typeof SIDES)[number]['side']
const whole = ({ widthPx, heightPx }: Picture) => ({ left: 0, top: 0, right: widthPx, bottom: heightPx })
/** How much is cut off at a side, in per cent of the picture. */
function offAt(picture: Picture, side: Side): number {
  const all = whole(picture)
  const across = side === 'left' || side === 'right' ? picture.widthPx : picture.heightPx
  return Math.round((Math.abs((picture.cut ?? all)[side] - all[side]) / across) * 1000) / 10
}
function cutOff(side: Side, percent: number | null): void {
  if (percent === null) return
  const share = Math.max(0, Math.min(0.99, percent / 100))
  props.strokes.cutTo(picture => {
    const all = whole(picture)
    const now = picture.cut ?? all
    const across = side === 'left' || side === 'right' ? picture.widthPx : picture.heightPx
    const at = side === 'left' || side === 'top' ? share * across : across - share * across
    const next = { ...now, [side]: at }
    if (next.right - next.left < 1 || next.bottom - next.top < 1) return picture.cut
    return SIDES.every(({ side: each }) => next[each] === all[each]) ? null : next
  })
}
</script>

<template>
  <dt>{{ pictures.length === 1 ? 'picture' : 'pictures' }}</dt>
  <dd>
    <label>
      as strong as
      <NumberField
        :value="strength"
        :take="n => n !== null && strokes.dim(n / 100)"
        :least="0"
        :most="100"
        :step="5"
        label="Strength of the picture, %"
      />
    </label>
    <span class="soft">%</span>
  </dd>
  <dt>cut off, %</dt>
  <dd class="sides">
    <label v-for="{ side, words } in SIDES" :key="side">
      {{ words }}
      <NumberField
        :value="pictures[0] ? offAt(pictures[0], side) : 0"
        :take="n => cutOff(side, n)"
        :least="0"
        :most="99"
        :step="5"
        :label="`Cut off, ${words}, %`"
      />
    </label>
    <button
      v-if="one"
      class="plain link"
      :aria-pressed="kit.cutting"
      title="Its sides are dragged on the paper"
      @click="kit.cutting = !kit.cutting"
    >
      {{ kit.cutting ? 'cut enough' : 'cut on the paper' }}
    </button>
    <button v-if="pictures.some(picture => picture.cut)" class="plain link" @click="strokes.cutTo(() => null)">
      all of it
    </button>
  </dd>
  <dt>placeholder</dt>
  <dd>
    <label title="It only stands for what is still to be drawn: the send-off says that it is there">
      <input
        type="checkbox"
        :checked="isPlaceholder"
        aria-label="A placeholder"
        @change="strokes.standIn(!isPlaceholder)"
      />
      stands for something
    </label>
  </dd>
</template>

<style scoped>
dt {
  font-size: 12px;
  color: var(--soft);
}

dd {
  margin: 0 0 4px;
  font-size: 12.5px;
}

.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 10px;
}

.sides label {
  justify-content: space-between;
}

label {
  display: inline-flex;
  align-items: center;
  gap: 4px;
}

input[type='checkbox'] {
  width: 16px;
  height: 16px;
  accent-color: var(--green);
}

:deep(input[type='number']) {
  width: 44px;
}

.link {
  padding: 1px 2px;
  color: var(--green);
  text-align: left;
}
</style>
