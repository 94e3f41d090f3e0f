<script setup lang="ts">
import { exposures } from '@unhurried/core/document'
import { thresholdOf } from '@unhurried/core/measure'
import { computed } from 'vue'
import { useDesk } from '../../../stores/desk.ts'
import { useMeasure } from '../../../stores/measure.ts'
import { useShot } from '../../../stores/shot.ts'

const shot = useShot()
const desk = useDesk()
const measure = useMeasure()
const [WIDTH, HEIGHT] = [192, 36]
/** The strip shows twice the tolerance either way; what lies beyond sits at its edge. */
const reach = computed(() => (shot.document ? thresholdOf(shot.document, 'volume') : 1) * 2)

const dots = computed(() => {
  if (!shot.take) return []
  // Each drawing once, where it is first shown: a cycle would only repeat itself.
  const first = new Map(
    exposures(shot.take, desk.layerId)
      .map(run => [run.drawing, run] as const)
      .reverse(),
  )
  const runs = [...first.values()].sort((a, b) => a.start - b.start)
  return runs.flatMap((run, i) => {
    const drawing = shot.drawing(run.drawing)
    const volume = drawing && measure.volumeOf(drawing)
    if (!drawing || !volume) return []
    const off = Math.max(-reach.value, Math.min(reach.value, volume.share - 1))
    return [
      {
        key: run.start,
        x: 8 + (i * (WIDTH - 16)) / Math.max(1, runs.length - 1),
        y: HEIGHT / 2 - (off / reach.value) * (HEIGHT / 2 - 5),
        kept: volume.verdict === 'kept',
        here: drawing.id === desk.drawing?.id,
        says: `${drawing.number}: ${Math.round(volume.share * 100)} %`,
        frame: run.start,
      },
    ]
  })
})
</script>

<template>
  <svg
    v-if="dots.length > 1"
    class="strip"
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    role="img"
    :aria-label="`${desk.layer?.volume === 'round' ? 'Volume' : 'Area'} of every drawing against the first key`"
  >
    <rect x="0" :y="HEIGHT / 4 + 1.2" :width="WIDTH" :height="HEIGHT / 2 - 2.4" class="band" />
    <line x1="0" :x2="WIDTH" :y1="HEIGHT / 2" :y2="HEIGHT / 2" class="even" />
    <circle
      v-for="dot in dots"
      :key="dot.key"
      :cx="dot.x"
      :cy="dot.y"
      :r="dot.here ? 4.5 : 2.6"
      :class="{ kept: dot.kept, here: dot.here }"
      @click="desk.goTo(dot.frame)"
    >
      <title>{{ dot.says }}</title>
    </circle>
  </svg>
</template>

<style scoped>
.strip {
  display: block;
  width: 100%;
  margin-top: 8px;
}

.band {
  fill: var(--green-wash);
}

.even {
  stroke: var(--green);
  stroke-dasharray: 1.5 3;
}

circle {
  fill: var(--rust);
  cursor: pointer;
}

circle.kept {
  fill: var(--ink);
}

circle.kept.here {
  fill: var(--green);
}
</style>
