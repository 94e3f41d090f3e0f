<script setup lang="ts">
import { pointsToFollow, recipeShot, type Guide, type GuideNumber } from '@unhurried/core/document'
import { earthGravity, followedPoint } from '@unhurried/core/motion'
import { computed, ref } from 'vue'
import NumberField from '../../../shared/NumberField.vue'
import type { Field } from '../../../recipes/recipe.ts'
import { deskOf } from '../../../recipes/table.ts'
import { useShot } from '../../../stores/shot.ts'
import { useGuideActs } from '../acts/guideActs.ts'

type NumberAsked = Extract<Field, { kind: 'number' }>

/** The numbers of a guide: its three main ones, the rest folded. What cannot be taken says why, and is put back. */
const props = defineProps<{ guide: Guide; disabled: boolean }>()
const acts = useGuideActs()
const shot = useShot()
const recipe = computed(() => deskOf(props.guide))
const whole = ref(false)
const why = ref('')
const isAsked = (name: string, field: Field): boolean =>
  recipe.value.main.includes(name) || (field.kind === 'followed' && field.when(props.guide.numbers))
const shown = computed(() => {
  const idle = recipe.value.idle?.(props.guide.numbers) ?? []
  return Object.entries(recipe.value.fields).filter(
    (entry): entry is [string, Field] =>
      entry[1] !== undefined && !idle.includes(entry[0]) && (whole.value || isAsked(entry[0], entry[1])),
  )
})
/** A number as it is asked for: in its own unit, not longer than it need be. */
function asked({ times = 1, places = 4 }: NumberAsked, value: GuideNumber | undefined): number | null {
  return typeof value === 'number' ? Math.round(value * times * 10 ** places) / 10 ** places : null
}
const take = (name: string, value: GuideNumber) => (why.value = acts.change(props.guide, { [name]: value }) ?? '')
/** What a guide can follow: marks that are points, of whatever layer, points seen through a clip, and points of the other guides of its take. */
const followed = computed(() => {
  const { document } = shot
  if (!document) return []
  const marks = Object.values(document.marks).filter(mark => mark.kind === 'point')
  const others = pointsToFollow(document, props.guide).map(
    ({ guide, points }) =>
      [
        `${deskOf(guide).words} from ${guide.from + 1}`,
        points.map(point => [followedPoint({ guide: guide.id, point }), point] as const),
      ] as const,
  )
  const seen = Object.values(document.points)
  return [
    ['marks', marks.map(mark => [mark.id, mark.name] as const)] as const,
    ['followed through a clip', seen.map(point => [point.id, point.name] as const)] as const,
    ...others,
  ].filter(([, things]) => things.length > 0)
})
/** Gravity as on earth, to a thousandth; null while the shot has no scale. */
const earth = computed(() => {
  const scale = shot.document?.scale
  return scale ? Math.round(earthGravity(scale, shot.document?.format.fps ?? 24) * 1000) / 1000 : null
})
/** All its numbers as some way to do it has them. */
function takeWay(event: Event): void {
  const select = event.target as HTMLSelectElement
  const way = recipe.value.ways?.[select.value]
  const { document } = shot
  if (way && document) why.value = acts.change(props.guide, way(props.guide.numbers, recipeShot(document))) ?? ''
  select.value = ''
}
function takeNumber(name: string, field: NumberAsked, value: number | null): void {
  if (value !== null) take(name, value / (field.times ?? 1))
  else if (field.open) take(name, null)
}
</script>

<template>
  <div class="fields">
    <label v-if="recipe.ways">
      <span>as a</span>
      <select value="" :disabled="disabled" @change="takeWay">
        <option value="" disabled>choose</option>
        <option v-for="(_, way) in recipe.ways" :key="way" :value="way">{{ way }}</option>
      </select>
    </label>
    <label v-for="[name, field] in shown" :key="name">
      <span>{{ field.words }}</span>
      <template v-if="field.kind === 'number'">
        <NumberField
          :value="asked(field, guide.numbers[name])"
          :take="value => takeNumber(name, field, value)"
          :step="field.step"
          :open="field.open && '–'"
          :disabled="disabled"
        />
        <button
          v-if="field.gravity && earth !== null"
          class="plain earth"
          :disabled="disabled"
          :title="`As on earth, for the scale of the shot: ${earth} px/f²`"
          @click="take(name, earth)"
        >
          on earth
        </button>
        <span v-else class="soft">{{ guide.numbers[name] === null ? field.open : field.unit }}</span>
      </template>
      <input
        v-else-if="field.kind === 'switch'"
        type="checkbox"
        :checked="guide.numbers[name] === true"
        :disabled="disabled"
        @change="event => take(name, (event.target as HTMLInputElement).checked)"
      />
      <select
        v-else-if="field.kind === 'followed'"
        :value="guide.numbers[name] ?? ''"
        :disabled="disabled"
        @change="event => take(name, (event.target as HTMLSelectElement).value || null)"
      >
        <option value="">none</option>
        <optgroup v-for="[of, things] in followed" :key="of" :label="of">
          <option v-for="[value, words] in things" :key="value" :value="value">{{ words }}</option>
        </optgroup>
      </select>
      <select
        v-else
        :value="guide.numbers[name]"
        :disabled="disabled"
        @change="event => take(name, (event.target as HTMLSelectElement).value)"
      >
        <option v-for="[value, words] in field.options" :key="value" :value="value">{{ words }}</option>
      </select>
    </label>
    <p v-if="why" class="why" role="alert">{{ why }}</p>
    <button class="plain soft" :aria-expanded="whole" @click="whole = !whole">
      {{ whole ? 'fewer' : 'all numbers' }}
    </button>
  </div>
</template>

<style scoped src="./fields.css"></style>
<style scoped>
button {
  justify-self: start;
  padding-left: 0;
}

.earth {
  color: var(--green);
  white-space: nowrap;
}
</style>
