<script setup lang="ts">
import type { PictureSize } from '@unhurried/core/assets'
import { layersInOrder } from '@unhurried/core/document'
import { MODEL_LIMITS } from '@unhurried/core/models'
import { computed, ref } from 'vue'
import { useClips } from '../../../stores/clips.ts'
import { useModels } from '../../../stores/models.ts'
import { useShot } from '../../../stores/shot.ts'
import { useStands } from '../../../stores/stands.ts'
import { MOST_STANDS, type StandKind } from '../../../paint/stand.ts'
import { oneLine } from '../../../words/oneLine.ts'
import ModelNote from './ModelNote.vue'

/** What can stand beside the paper in a small window of its own: model sheets of the film, layers that are looked at, clips. */
const shot = useShot()
const clips = useClips()
const models = useModels()
const stands = useStands()
const fresh = ref('')
const one = computed(() => models.all.find(card => card.id === models.chosen) ?? null)
/** What is drawn after is rarely the layer in the hand: references and backgrounds come first. */
const layers = computed(() =>
  (shot.document ? layersInOrder(shot.document) : [])
    .filter(layer => layer.follows === null && layer.left === null)
    .sort((a, b) => Number(a.kind === 'drawn') - Number(b.kind === 'drawn')),
)
const standOf = (of: StandKind, id: string) => stands.all.find(stand => stand.of === of && stand.id === id)
/** How large in its own pixels what is put up is. */
function sizeOf(of: StandKind, id: string): PictureSize {
  const view = of === 'model' ? models.all.find(card => card.id === id)?.model.views[0] : undefined
  const clip = of === 'clip' ? clips.all.find(one => one.id === id) : undefined
  const { width: widthPx, height: heightPx } = shot.document?.format ?? { width: 16, height: 9 }
  return view ?? clip ?? { widthPx, heightPx }
}
function toggle(of: StandKind, id: string): void {
  const there = standOf(of, id)
  if (there) stands.remove(there.key)
  else stands.put(of, id, sizeOf(of, id))
}
async function add(): Promise<void> {
  const card = await models.add(oneLine(fresh.value) || 'model sheet')
  if (!card) return
  fresh.value = ''
  models.chosen = card.id
}
</script>

<template>
  <div class="fields">
    <h4>model sheets of the film</h4>
    <p v-if="!models.isThere" class="soft told">
      They lie with the server, which does not answer: as they were last seen here, to be looked at.
    </p>
    <ul v-if="models.all.length">
      <li v-for="card in models.all" :key="card.id" :class="{ on: card.id === models.chosen }">
        <button
          class="plain name"
          :aria-pressed="card.id === models.chosen"
          :aria-expanded="card.id === models.chosen"
          title="Its sides, its heights, and what is done with it"
          @click="models.chosen = card.id === models.chosen ? null : card.id"
        >
          {{ card.model.name }}
        </button>
        <button
          class="plain word"
          :aria-pressed="Boolean(standOf('model', card.id))"
          :aria-label="`${card.model.name} beside the paper`"
          @click="toggle('model', card.id)"
        >
          {{ standOf('model', card.id) ? 'put away' : 'beside' }}
        </button>
      </li>
    </ul>
    <p v-else-if="models.isThere" class="soft told">
      What a figure looks like from all sides, for all shots of the film: pictures that are brought in, or drawings.
    </p>
    <ModelNote v-if="one" :card="one" />
    <form v-if="shot.mayDraw && models.isThere && models.all.length < MODEL_LIMITS.sheets" @submit.prevent="add">
      <input
        v-model="fresh"
        type="text"
        class="fresh"
        maxlength="80"
        placeholder="whose"
        aria-label="Name of a new model sheet"
      />
      <button class="plain word">new sheet</button>
    </form>
    <h4>of this shot</h4>
    <p class="acts chips">
      <button
        v-for="layer in layers"
        :key="layer.id"
        class="plain"
        :class="{ on: standOf('layer', layer.id) }"
        :aria-pressed="Boolean(standOf('layer', layer.id))"
        :aria-label="`The layer ${layer.name} beside the paper`"
        @click="toggle('layer', layer.id)"
      >
        {{ layer.name }}
      </button>
      <button
        v-for="clip in clips.all"
        :key="clip.id"
        class="plain"
        :class="{ on: standOf('clip', clip.id) }"
        :aria-pressed="Boolean(standOf('clip', clip.id))"
        :aria-label="`The clip ${clip.name} beside the paper`"
        @click="toggle('clip', clip.id)"
      >
        {{ clip.name }}
      </button>
    </p>
    <p class="soft told">Up to {{ MOST_STANDS }}; clips go along with the frame, also in Flip.</p>
  </div>
</template>

<style scoped src="./fields.css"></style>
<style scoped src="./named.css"></style>
<style scoped>
h4 {
  margin: 4px 0 0;
  font: 500 13.5px var(--serif);
}

input.fresh {
  flex: 1;
  width: 0;
  text-align: left;
}

.chips {
  gap: 0 2px;
  margin-left: -4px;
}

.chips .plain {
  padding: 1px 4px;
  color: var(--soft);
  border-bottom: 2px solid transparent;
  border-radius: 0;
}

.chips .on {
  border-color: var(--green);
  color: var(--ink);
  font-weight: 700;
}
</style>
