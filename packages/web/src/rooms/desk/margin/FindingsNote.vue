<script setup lang="ts">
import { setCeiling } from '@unhurried/core/document'
import { CHECK_NAMES, CHECKS, nameOf, type Found } from '@unhurried/core/measure'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { useDesk } from '../../../stores/desk.ts'
import { useMeasure } from '../../../stores/measure.ts'
import { useShot } from '../../../stores/shot.ts'
import { useSight } from '../../../stores/sight.ts'
import { SEVERITY_SIGNS } from '../../../shared/severities.ts'
import NumberField from '../../../shared/NumberField.vue'

/** What the checks find in the take: each leads to its frame and its layer. */
const desk = useDesk()
const shot = useShot()
const measure = useMeasure()
const sight = useSight()
const FEW = 6
const all = ref(false)
/** Those on the drawing in the hand come first, as they are numbered on the paper. */
const sorted = computed(() => [...measure.here, ...measure.open.filter(found => !measure.here.includes(found))])
const shown = computed(() => (all.value ? sorted.value : sorted.value.slice(0, Math.max(FEW, measure.here.length))))
const hasPlace = computed(() => measure.here.some(found => found.at !== null))
const asked = computed(() =>
  CHECK_NAMES.filter(name => measure.about && (CHECKS[name].isAsked?.(measure.about) ?? true)).map(
    name => CHECKS[name].words,
  ),
)
function takeCeiling(px: number | null): void {
  if (px === null || px > 0) shot.commit(px === null ? 'no ceiling of steps' : 'ceiling of steps', setCeiling(px))
}
const isHere = (found: Found) => measure.here.includes(found)
const layerOf = ({ layer }: Found) =>
  layer === null || layer === desk.layerId ? '' : `${shot.document?.layers[layer]?.name}: `

function show(found: Found): void {
  if (found.layer !== null) desk.layerId = found.layer
  desk.goTo(found.from)
}
</script>

<template>
  <div>
    <p v-if="measure.here.length" class="count">
      <b>{{ measure.here.length }}</b> on this drawing
      <button v-if="hasPlace" class="plain more" :aria-pressed="sight.ringed" @click="sight.ringed = !sight.ringed">
        {{ sight.ringed ? 'off the paper' : 'on the paper' }}
      </button>
    </p>
    <ol v-if="shown.length">
      <li v-for="(found, i) in shown" :key="nameOf(found)">
        <button
          class="plain"
          :class="{ here: isHere(found) }"
          :title="`${CHECKS[found.check].words}, ${SEVERITY_SIGNS[found.severity].words}: go to frame ${found.from + 1}`"
          @click="show(found)"
        >
          <component :is="SEVERITY_SIGNS[found.severity].icon" :size="13" aria-hidden="true" />
          <span>{{ isHere(found) && sight.ringed ? `${i + 1} · ` : '' }}{{ layerOf(found) }}{{ found.words }}</span>
        </button>
      </li>
    </ol>
    <button
      v-if="measure.open.length > shown.length || all"
      class="plain more"
      :aria-expanded="all"
      @click="all = !all"
    >
      {{ all ? 'fewer' : `${measure.open.length - shown.length} more` }}
    </button>
    <RouterLink
      v-if="shown.length"
      class="more"
      :to="{ name: 'measure', params: { shot: shot.id }, query: { frame: desk.frame + 1 } }"
    >
      look into them
    </RouterLink>
    <p v-if="!shown.length" class="soft">Nothing found. Asked: {{ asked.join(', ') }}.</p>
    <label
      class="soft ceiling"
      title="Whatever goes farther is told here; a followed point can say how far a movement you study usually goes"
    >
      farther than
      <NumberField
        :value="shot.document?.ceiling ?? null"
        :take="takeCeiling"
        :least="0.1"
        :step="1"
        open="–"
        :disabled="!shot.mayDraw"
        label="Ceiling of steps, px a frame"
      />
      px a frame
    </label>
  </div>
</template>

<style scoped>
.count {
  display: flex;
  align-items: center;
  gap: 6px;
}

.count .more {
  margin-left: auto;
}

.ceiling {
  display: flex;
  align-items: center;
  gap: 5px;
  font-size: 12.5px;
}

ol {
  margin: 2px 0;
  padding: 0;
  list-style: none;
}

li .plain {
  display: flex;
  gap: 6px;
  width: 100%;
  min-height: 24px;
  margin-left: -4px;
  padding: 3px 4px;
  text-align: left;
  font-size: 12.5px;
  line-height: 1.3;
  color: var(--rust);
}

li svg {
  flex: none;
  margin-top: 2px;
}

li .here {
  font-weight: 700;
}

.more {
  min-height: 24px;
  margin-left: -4px;
  font-size: 12.5px;
  color: var(--green);
}

p {
  font-size: 12.5px;
}
</style>
