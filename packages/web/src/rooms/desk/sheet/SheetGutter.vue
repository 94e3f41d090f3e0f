<script setup lang="ts">
import { secondsLabel } from '@unhurried/core/time'
import { computed } from 'vue'
import { useSight } from '../../../stores/sight.ts'
import { useShot } from '../../../stores/shot.ts'

/** The numbers of the frames, with the loop and the beats beside them. */
const props = defineProps<{ first: number; last: number; rowPx: number; here: number }>()
const shot = useShot()
const sight = useSight()
const fps = computed(() => shot.document?.format.fps ?? 24)
const rows = computed(() => Array.from({ length: Math.max(0, props.last - props.first) }, (_, i) => props.first + i))
const loop = computed(() => shot.take?.loop ?? null)
const beats = computed(() =>
  Object.values(shot.document?.beats ?? {}).filter(beat => beat.frame >= props.first && beat.frame < props.last),
)
</script>

<template>
  <div class="nrs">
    <div
      v-if="loop"
      class="loop"
      :style="{ top: `${loop.from * rowPx + 3}px`, height: `${(loop.to - loop.from) * rowPx - 6}px` }"
      title="The loop"
    />
    <span
      v-for="(f, i) in rows"
      :key="i"
      class="nr"
      :class="{ odd: f % 2, second: f % fps === 0 && f > 0, here: f === here }"
      :style="{ top: `${f * rowPx}px` }"
      :title="sight.sheetShape === 'room' ? secondsLabel(f, fps) : undefined"
      >{{ f + 1 }}</span
    >
    <i
      v-for="beat in beats"
      :key="beat.id"
      class="beat"
      :style="{ top: `${beat.frame * rowPx + rowPx / 2}px` }"
      :title="`Beat: ${beat.name}`"
    />
  </div>
</template>

<style scoped>
.nrs {
  position: sticky;
  left: 0;
  z-index: 2;
  flex: none;
  width: 46px;
  background: var(--edge);
  contain: layout style;
}

.loop {
  position: absolute;
  left: 3px;
  width: 5px;
  border: 1.5px solid var(--green);
  border-right: 0;
  border-radius: 4px 0 0 4px;
}

.nr {
  position: absolute;
  left: 12px;
  right: 6px;
  height: var(--row);
  line-height: var(--row);
  text-align: center;
  font-size: 11.5px;
  color: var(--soft);
}

.odd {
  font-size: 10.5px;
}

.second {
  border-top: 1px solid var(--past);
}

.here {
  height: calc(var(--row) - 6px);
  margin-top: 3px;
  line-height: calc(var(--row) - 6px);
  background: var(--green);
  color: var(--on-green);
  border-radius: 4px;
}

.beat {
  position: absolute;
  right: -1px;
  width: 7px;
  height: 7px;
  margin-top: -3.5px;
  background: var(--rust);
  transform: rotate(45deg);
}
</style>
