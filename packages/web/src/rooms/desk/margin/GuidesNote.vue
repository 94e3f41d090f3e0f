<script setup lang="ts">
import {
  guidePlan,
  laidAlready,
  movesAsPlanned,
  needsSheets,
  type Guide,
  type LaidAlready,
} from '@unhurried/core/document'
import { RECIPES, type RecipeName } from '@unhurried/core/motion'
import { counted } from '@unhurried/core/time'
import { computed, nextTick, ref } from 'vue'
import { deskOf, SHOWN_RECIPES } from '../../../recipes/table.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useGuides } from '../../../stores/guides.ts'
import { useShot } from '../../../stores/shot.ts'
import { useGuideActs } from '../acts/guideActs.ts'
import GuideFields from './GuideFields.vue'
import GuideReading from './GuideReading.vue'
import GuideVariants from './GuideVariants.vue'
import RecipePicture from './RecipePicture.vue'

/** Recipes to choose from, and the guides of the take: motion worked out, to be drawn over. */
const shot = useShot()
const desk = useDesk()
const guides = useGuides()
const acts = useGuideActs()

/** the paper that movements to choose from are worked out on */
const SAMPLE = { width: 640, height: 360, fps: 24, exposure: 2 }
const choosing = ref(false)
const choices = ref<HTMLElement | null>(null)
/** The movements to choose from are brought into sight. */
async function toggleChoosing(): Promise<void> {
  choosing.value = !choosing.value
  await nextTick()
  choices.value?.scrollIntoView({ block: 'nearest' })
}
function choose(recipe: RecipeName): void {
  choosing.value = false
  acts.add(recipe)
}

const shown = computed(() => {
  const { document } = shot
  if (!document) return []
  return guides.all.map(guide => {
    const plan = guidePlan(document, guide)
    const laid = laidAlready(document, guide)
    const layer = document.layers[guide.layer]?.name ?? ''
    return { guide, plan, laid, words: deskOf(guide).words, layer, layWords: wordsToLay(guide, laid) }
  })
})
/** What one press would lay; nothing where the layer only has to move, and does. */
function wordsToLay(guide: Guide, laid: LaidAlready): string {
  const { document, take } = shot
  if (!document || !take) return ''
  if (!needsSheets(document, take, guide)) return movesAsPlanned(document, take, guide) ? '' : 'let the layer move so'
  const { drawings } = guidePlan(document, guide)
  return laid.drawings.length ? 'bring the sheet along' : `lay ${counted(drawings.length, 'drawing')} on the sheet`
}
/** What was nudged so that drawings fall on exposures, when it is more than nothing. */
const snappedWords = (plan: { snapped: readonly { what: string; by: number }[] }) =>
  plan.snapped
    .filter(({ by }) => Math.abs(by) >= 0.005)
    .map(({ what, by }) => `${what} ${by > 0 ? '+' : '−'}${Math.abs(Math.round(100 * by))} %`)
    .join(' · ')
/** What laying it again would do. */
function laidWords({ blank, drawn }: LaidAlready): string {
  const goes =
    blank > 0 ? `${counted(blank, 'sheet')} not drawn yet ${blank === 1 ? 'goes' : 'go'} along` : 'every sheet is drawn'
  return drawn > 0 && blank > 0
    ? `${goes}; ${counted(drawn, 'drawn one')} ${drawn === 1 ? 'stays' : 'stay'} as ${drawn === 1 ? 'it is' : 'they are'}`
    : goes
}
/** How a guide is shown and kept, and back. */
const LOOKS = { shown: ['hide', 'show'], dimmed: ['dim', 'full strength'], locked: ['lock', 'unlock'] } as const
function toggle(guide: Guide, name: keyof typeof LOOKS): void {
  if (name === 'locked') acts.lock(guide, !guide.locked)
  else acts.move(guide, { [name]: !guide[name] })
}
const goTo = (guide: Guide) => {
  desk.layerId = guide.layer
  desk.goTo(guide.from)
}
</script>

<template>
  <div>
    <p v-if="shown.length" class="acts">
      <button class="plain word" :aria-expanded="choosing" :disabled="!desk.mayEdit" @click="toggleChoosing">
        {{ choosing ? 'no other movement' : 'another movement' }}
      </button>
      <button
        class="plain word"
        :aria-pressed="guides.named"
        title="The parts of constructions, by name, on the paper"
        @click="guides.named = !guides.named"
      >
        {{ guides.named ? 'no part names' : 'part names' }}
      </button>
    </p>
    <ul v-if="choosing || !shown.length" ref="choices" class="recipes" aria-label="Recipes">
      <li v-for="recipe in SHOWN_RECIPES" :key="recipe">
        <button
          class="plain recipe"
          :disabled="!desk.mayEdit"
          :title="`Lay it on the paper from frame ${desk.frame + 1}: ${deskOf({ recipe }).says}`"
          @click="choose(recipe)"
        >
          <RecipePicture
            :recipe="recipe"
            :numbers="RECIPES[recipe].defaults(SAMPLE)"
            :shot="SAMPLE"
            :width="58"
            :height="42"
          />
          <span>{{ deskOf({ recipe }).words }}</span>
        </button>
      </li>
    </ul>
    <section
      v-for="{ guide, plan, laid, words, layer, layWords } in shown"
      :key="guide.id"
      :aria-label="`Guide: ${words}`"
    >
      <p class="head">
        <button class="plain name" @click="goTo(guide)">{{ words }}</button>
        <span class="soft">{{ layer }}, {{ guide.from + 1 }}–{{ guide.from + plan.frames }}</span>
      </p>
      <GuideVariants :guide="guide" :disabled="!acts.mayChange(guide)" />
      <GuideFields :guide="guide" :disabled="!acts.mayChange(guide)" />
      <GuideReading :guide="guide" />
      <p v-if="snappedWords(plan)" class="soft told">{{ snappedWords(plan) }}, so that drawings fall on exposures</p>
      <p v-for="sentence in plan.told" :key="sentence" class="soft told">{{ sentence }}</p>
      <p v-if="laid.drawings.length" class="soft told">{{ laidWords(laid) }}</p>
      <p class="acts">
        <button v-if="layWords" class="plain word" :disabled="!acts.mayTouch(guide)" @click="acts.lay(guide)">
          {{ layWords }}
        </button>
        <button
          v-if="laid.drawn > 0"
          class="plain word"
          :disabled="!acts.mayTouch(guide)"
          @click="acts.lay(guide, 'all')"
        >
          all of it, also what is drawn
        </button>
        <button
          v-if="guide.from !== desk.frame"
          class="plain word"
          :disabled="!acts.mayChange(guide)"
          @click="acts.move(guide, { from: desk.frame })"
        >
          begin here
        </button>
        <button class="plain word" :disabled="!acts.mayTouch(guide)" @click="acts.copyHere(guide)">copy here</button>
        <button
          v-if="guides.isLaid(guide)"
          class="plain word"
          :disabled="!acts.mayChange(guide)"
          :aria-pressed="guides.hasHandles(guide)"
          title="Handles to drag its places by; while they are there, strokes do not begin on them"
          @click="guides.place(guide.id, !guides.hasHandles(guide))"
        >
          {{ guides.hasHandles(guide) ? 'no handles' : 'handles' }}
        </button>
      </p>
      <p class="acts">
        <button
          v-for="(way, name) in LOOKS"
          :key="name"
          class="plain word"
          :disabled="!acts.mayTouch(guide)"
          :aria-pressed="name === 'shown' ? !guide.shown : guide[name]"
          @click="toggle(guide, name)"
        >
          {{ (name === 'shown' ? guide.shown : !guide[name]) ? way[0] : way[1] }}
        </button>
        <button
          class="plain word"
          :disabled="!desk.mayEdit"
          title="Its construction as pen lines on a guide layer, which is never sent off"
          @click="acts.asLines(guide)"
        >
          as lines
        </button>
        <button class="plain word" :disabled="!acts.mayChange(guide)" @click="acts.remove(guide)">remove</button>
      </p>
    </section>
    <p v-if="!shown.length" class="soft">Choose a movement: it is worked out on the paper, and you draw over it.</p>
  </div>
</template>

<style scoped src="./fields.css"></style>
<style scoped>
.recipes {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 5px;
  margin: 2px 0 6px;
  padding: 0;
  list-style: none;
}

.recipe {
  display: grid;
  justify-items: center;
  align-content: start;
  width: 100%;
  height: 100%;
  padding: 3px 1px;
  border: 1px solid var(--rule);
  border-radius: 8px;
  font-size: 12px;
  line-height: 1.15;
}

section {
  margin-top: 8px;
  padding-top: 6px;
  border-top: 1px solid var(--rule);
}

.head {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
}

.name {
  padding-left: 0;
  font: 500 14px var(--serif);
}
</style>
