<script setup lang="ts">
import { computed } from 'vue'
import type { Commands } from '../commands.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useSight } from '../../../stores/sight.ts'
import { useShot } from '../../../stores/shot.ts'

/** What is said over the paper: what to do on an empty frame, a measure beside the hand, that a drawing is shared. */
const props = defineProps<{
  commands: Commands
  playing: boolean
  /** the hand is drawing */
  busy: boolean
  said: { readonly x: number; readonly y: number; readonly words: string } | null
}>()
const shot = useShot()
const desk = useDesk()
const kit = useKit()
const sight = useSight()
const instead = computed(() => shot.drawing(sight.flippedTo))
const isQuiet = computed(() => desk.mayEdit && !props.playing && !instead.value && !props.busy)
const isEmpty = computed(() => isQuiet.value && !desk.drawing && kit.tool !== 'trace')
</script>

<template>
  <p v-if="isEmpty" class="empty">
    <template v-if="desk.over">Draw, and paint under {{ desk.over.number }} begins here.</template>
    <template v-else>Nothing is exposed on frame {{ desk.frame + 1 }}. Draw, and a new drawing begins here.</template>
    <template v-if="desk.source && desk.timedLayer === desk.layerId">
      <br /><kbd>{{ commands.keysOf('copy') }}</kbd> starts from a copy of {{ desk.source.number }},
      <kbd>{{ commands.keysOf('share') }}</kbd> shows it again.
    </template>
  </p>
  <output v-if="said" class="measure" :style="{ left: `${said.x + 18}px`, top: `${said.y - 30}px` }">{{
    said.words
  }}</output>
  <p v-if="isQuiet && desk.places > 1" class="shared">
    {{ desk.drawing?.number }} is shown in {{ desk.places }} places: what is changed here changes in all of them.
    <button
      class="plain"
      :title="commands.tip('own', 'Other places keep the drawing as it is')"
      @click="commands.get('own').run()"
    >
      its own copy here
    </button>
  </p>
  <p v-if="instead" class="flipped">{{ instead.number }}</p>
</template>

<style scoped>
.empty {
  position: absolute;
  left: 50%;
  bottom: 22px;
  transform: translateX(-50%);
  width: max-content;
  max-width: 90%;
  padding: 8px 16px;
  border-radius: 8px;
  background: var(--green-wash);
  text-align: center;
  pointer-events: none;
}

.shared {
  position: absolute;
  left: 50%;
  bottom: 8px;
  transform: translateX(-50%);
  width: max-content;
  max-width: 94%;
  padding: 3px 12px;
  border-radius: 8px;
  background: var(--rust-wash);
  font-size: 13px;
  pointer-events: none;
}

.shared button {
  pointer-events: auto;
  color: var(--rust);
  font-weight: 700;
}

.measure {
  position: absolute;
  padding: 1px 8px;
  border-radius: 6px;
  background: var(--green-wash);
  color: var(--green-deep);
  font-weight: 700;
  font-size: 13px;
  white-space: nowrap;
  pointer-events: none;
}

.flipped {
  position: absolute;
  left: 22px;
  top: 14px;
  font: 22px var(--serif);
  color: var(--soft);
  pointer-events: none;
}
</style>
