<script setup lang="ts">
import {
  copyTake,
  removeTake,
  renameTake,
  shareDrawing,
  takesInOrder,
  unexposedDrawings,
  useTake,
  type Drawing,
  type Take,
} from '@unhurried/core/document'
import { secondsLabel } from '@unhurried/core/time'
import { CopyPlus, Pencil, Trash2 } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { useAsking } from '../stores/asking.ts'
import { useDesk } from '../stores/desk.ts'
import { newId } from '../local/ids.ts'
import { useShot } from '../stores/shot.ts'
import TextField from './TextField.vue'

/** The takes of the shot: one of them is worked on; another is made by copying it. */
const shot = useShot()
const desk = useDesk()
const asking = useAsking()
const takes = computed(() => (shot.document ? takesInOrder(shot.document) : []))
const fps = computed(() => shot.document?.format.fps ?? 24)
const renaming = ref<string | null>(null)

function use(take: Take): void {
  if (take.id !== shot.take?.id) shot.commit(`work on ${take.name}`, useTake(take.id))
}

function copy(take: Take): void {
  if (!shot.document) return
  const id = newId()
  const name = `${take.name}, again`.slice(0, 80)
  const refused = shot.commit(`copy of ${take.name}`, [
    ...copyTake(shot.document, take.id, id, name, newId),
    ...useTake(id),
  ])
  if (!refused) renaming.value = id
}

function rename(take: Take, name: string): void {
  renaming.value = null
  shot.commit(`name ${name}`, renameTake(take, name))
}

function remove(take: Take): void {
  if (shot.document) shot.commit(`remove ${take.name}`, removeTake(shot.document, take.id))
}
/** Drawings that no take shows are kept, and can be shown again. */
const unshown = computed(() =>
  shot.document ? unexposedDrawings(shot.document).flatMap(id => shot.drawing(id) ?? []) : [],
)
function show(drawing: Drawing): void {
  const { document, take } = shot
  if (!document || !take) return
  asking.act({
    label: `show ${drawing.number} again`,
    attempt: manner => shareDrawing(document, take, drawing, desk.frame, desk.exposure, { manner }),
    done: () => (desk.layerId = drawing.layer),
  })
}
</script>

<template>
  <section class="takes" aria-label="Takes">
    <h3>takes</h3>
    <ul>
      <li v-for="take in takes" :key="take.id" :class="{ on: take.id === shot.take?.id }">
        <TextField
          v-if="renaming === take.id"
          :text="take.name"
          :most="80"
          label="Name of the take"
          begins
          @done="name => rename(take, name)"
        />
        <button
          v-else
          class="plain name"
          :aria-pressed="take.id === shot.take?.id"
          :disabled="!shot.mayDraw && take.id !== shot.take?.id"
          :title="take.id === shot.take?.id ? 'This take is worked on and sent off' : 'Work on this take'"
          @click="use(take)"
          @dblclick="shot.mayDraw && (renaming = take.id)"
        >
          {{ take.name }}
        </button>
        <span class="soft">{{ take.length }} · {{ secondsLabel(take.length, fps) }}</span>
        <template v-if="shot.mayDraw">
          <button class="plain icon" :aria-label="`Another name for ${take.name}`" @click="renaming = take.id">
            <Pencil :size="14" />
          </button>
          <button
            class="plain icon"
            :aria-label="`Copy ${take.name}`"
            title="Copy: the same drawings under a timing of their own"
            @click="copy(take)"
          >
            <CopyPlus :size="14" />
          </button>
          <button
            class="plain icon"
            :disabled="take.id === shot.take?.id"
            :aria-label="`Remove ${take.name}`"
            title="Remove: the timing goes, its drawings stay in the shot"
            @click="remove(take)"
          >
            <Trash2 :size="14" />
          </button>
        </template>
      </li>
    </ul>
    <p v-if="unshown.length" class="unshown">
      not shown in any take:
      <button
        v-for="drawing in unshown"
        :key="drawing.id"
        class="plain"
        :disabled="!shot.mayDraw"
        :title="`Show ${drawing.number} on frame ${desk.frame + 1} of this take`"
        @click="show(drawing)"
      >
        {{ drawing.number }}
      </button>
    </p>
  </section>
</template>

<style scoped>
.takes {
  border-bottom: 1px solid var(--rule);
  padding-bottom: 10px;
}

h3 {
  font: 500 14px var(--serif);
  color: var(--soft);
  margin-bottom: 3px;
}

ul {
  list-style: none;
}

li {
  display: flex;
  align-items: center;
  gap: 2px;
  font-size: 13px;
  padding: 2px 0;
}

.name {
  min-width: 0;
  margin-left: -4px;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.on .name {
  font-weight: 700;
  box-shadow: inset 0 -2px var(--green);
  border-radius: 0;
}

.soft {
  flex: none;
  margin-right: auto;
  font-size: 12px;
}

.icon {
  flex: none;
  padding: 4px;
  line-height: 0;
  color: var(--green);
}

.unshown {
  margin-top: 4px;
  font-size: 12.5px;
  color: var(--soft);
}

.unshown .plain {
  color: var(--green);
}
</style>
