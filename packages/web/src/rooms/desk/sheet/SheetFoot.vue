<script setup lang="ts">
import { counted, secondsLabel } from '@unhurried/core/time'
import { countDrawings, usualExposure } from '@unhurried/core/work'
import { computed } from 'vue'
import { EXPOSURES } from '../../../words/exposures.ts'
import type { Commands } from '../commands.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useSight } from '../../../stores/sight.ts'
import { useShot } from '../../../stores/shot.ts'

const props = defineProps<{ commands: Commands }>()
const shot = useShot()
const desk = useDesk()
const sight = useSight()
const length = computed(() => shot.take?.length ?? 0)
const fps = computed(() => shot.document?.format.fps ?? 24)
const button = (id: string) => props.commands.get(id)
const framesMarked = computed(() => {
  const m = props.commands.marked.value
  return m ? m.to - m.from : 0
})
const summary = computed(() => {
  if (!shot.document || !shot.take) return null
  const usual = usualExposure(shot.take, desk.layerId)
  const on = usual === null ? '' : EXPOSURES[usual - 1] ? `on ${EXPOSURES[usual - 1]}` : `${usual} frames each`
  return { ...countDrawings(shot.document, shot.take), on }
})
const takes = computed(() => Object.keys(shot.document?.takes ?? {}).length)
</script>

<template>
  <div>
    <div v-if="shot.mayDraw" class="ops" role="group" aria-label="Exposure">
      <div class="ones">
        <button
          v-for="(words, i) in EXPOSURES.slice(0, 3)"
          :key="words"
          class="plain"
          :title="commands.tip(`on-${i + 1}`, `Put ${framesMarked} marked frames on ${words}`)"
          @click="commands.sheet.exposeOn(i + 1)"
        >
          {{ words }}
        </button>
      </div>
      <div class="ones">
        <button
          class="plain"
          :title="commands.tip('insert', 'Insert a frame behind this one, or as many as are marked')"
          @click="button('insert').run()"
        >
          insert
        </button>
        <button
          class="plain"
          :title="commands.tip('take-out', 'Take this frame out, or those marked')"
          @click="button('take-out').run()"
        >
          take out
        </button>
        <button
          class="plain"
          :title="commands.tip('acts', 'Repeat, reverse, stretch, link, copy … everything for marked frames')"
          @click="button('acts').run()"
        >
          more …
        </button>
      </div>
      <div class="ones">
        <button
          class="plain"
          :title="commands.tip('loop-marked', 'The marked frames go round; the loop follows when they are retimed')"
          @click="button('loop-marked').run()"
        >
          {{ desk.selection ? 'loop these' : 'loop this' }}
        </button>
        <button
          class="plain"
          :disabled="!shot.take?.loop"
          title="Without a loop of its own the whole take goes round"
          @click="commands.sheet.loopAll()"
        >
          {{ shot.take?.loop ? `loop ${shot.take.loop.from + 1}–${shot.take.loop.to}: all` : 'all goes round' }}
        </button>
      </div>
      <div class="ones">
        <button
          class="plain"
          role="switch"
          :aria-checked="desk.following === 'ripple'"
          :title="
            commands.tip(
              'following',
              'Whether later drawings move into free frames after a change, or stay on their frames; either way the shot keeps its length',
            )
          "
          @click="button('following').run()"
        >
          later drawings <b>{{ desk.following === 'ripple' ? 'move' : 'stay' }}</b><span class="soft kept"
            >, {{ shot.take?.open ? 'as it comes' : `${length} kept` }}</span
          >
        </button>
      </div>
      <div class="ones">
        <button
          class="plain"
          :title="`Frames that each new drawing gets in this shot: ${desk.exposure}. Press for one more, up to four.`"
          @click="commands.sheet.newDrawingsOn((desk.exposure % 4) + 1)"
        >
          new
          <b>{{ EXPOSURES[desk.exposure - 1] ? `on ${EXPOSURES[desk.exposure - 1]}` : `${desk.exposure} frames` }}</b>
        </button>
        <button
          class="plain"
          role="switch"
          :aria-checked="shot.take?.open ?? false"
          :title="
            shot.take?.open
              ? 'The take ends with its last drawing and grows while you draw. Press to fix its length.'
              : 'The length is fixed. Press to let the take end with its last drawing, and grow while you draw.'
          "
          @click="commands.sheet.setOpen(!shot.take?.open)"
        >
          length <b>{{ shot.take?.open ? 'as it comes' : 'fixed' }}</b>
        </button>
      </div>
      <div class="ones">
        <button
          class="plain"
          :title="commands.tip('shape', 'The sheet fills the room')"
          @click="sight.sheetShape = 'room'"
        >
          the whole sheet
        </button>
        <button
          class="plain"
          :title="commands.tip('shape', 'The sheet folds to a strip; twice')"
          @click="sight.sheetShape = 'strip'"
        >
          fold
        </button>
      </div>
    </div>
    <p v-if="summary" class="foot">
      <template v-if="takes > 1"
        ><i class="serif">{{ shot.take?.name }}</i> ·
      </template>
      <b>{{ counted(length, 'frame') }}</b> · <b>{{ secondsLabel(length, fps) }}</b> at {{ fps
      }}<template v-if="summary.on">, {{ summary.on }}</template> ·
      <b>{{ counted(summary.drawings, 'drawing') }}</b><template v-if="summary.left"
        >, <b>{{ summary.left }}</b> to go</template
      >
    </p>
  </div>
</template>

<style scoped>
.ops {
  border-top: 1px solid var(--rule);
  padding: 5px 8px;
  font-size: 12px;
  white-space: nowrap;
}

@media (width < 1100px) {
  .kept {
    display: none;
  }
}

.ones {
  display: flex;
  justify-content: space-between;
}

.ones .plain {
  padding: 2px 3px;
}

.foot {
  padding: 8px 12px 10px;
  border-top: 1px solid var(--rule);
  font-size: 12px;
  color: var(--soft);
}

.foot b {
  color: var(--ink);
}
</style>
