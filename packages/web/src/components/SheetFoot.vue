<script setup lang="ts">
import { secondsLabel } from '@unhurried/core/time'
import { countDrawings, usualExposure } from '@unhurried/core/work'
import { computed } from 'vue'
import { EXPOSURES, type Commands } from '../keys/commands.ts'
import { useDesk } from '../stores/desk.ts'
import { useShot } from '../stores/shot.ts'

const props = defineProps<{ commands: Commands }>()
const shot = useShot()
const desk = useDesk()
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
  const on = usual === null ? '' : `on ${EXPOSURES[usual - 1] ?? `${usual}s`}`
  return { ...countDrawings(shot.document, shot.take), on }
})
</script>

<template>
  <div>
    <div v-if="shot.mayDraw" class="ops" role="group" aria-label="Exposure">
      <div class="ones">
        <button
          v-for="(words, i) in EXPOSURES"
          :key="words"
          class="plain"
          :title="`Put ${framesMarked} marked frames on ${words} (Alt ${i + 1})`"
          @click="commands.exposeOn(i + 1)"
        >
          {{ words }}
        </button>
      </div>
      <div class="ones">
        <button
          class="plain"
          :title="'Insert a frame behind this one, or as many as are marked (I)'"
          @click="button('insert').run()"
        >
          insert
        </button>
        <button
          class="plain"
          :title="'Take this frame out, or those marked (Shift I)'"
          @click="button('take-out').run()"
        >
          take out
        </button>
      </div>
      <div class="ones">
        <button class="plain" title="The loop starts on this frame ( , )" @click="button('loop-from').run()">
          loop from here
        </button>
        <button class="plain" title="The loop ends on this frame ( . )" @click="button('loop-to').run()">
          to here
        </button>
      </div>
    </div>
    <p v-if="summary" class="foot">
      <b>{{ length }}</b> frames · <b>{{ secondsLabel(length, fps) }}</b> at {{ fps
      }}<template v-if="summary.on">, {{ summary.on }}</template> · <b>{{ summary.drawings }}</b> drawings<template
        v-if="summary.left"
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

.ones {
  display: flex;
  justify-content: space-between;
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
