<script setup lang="ts">
import { flightAt } from '@unhurried/core/motion'
import { paceOfDrawing, steppedShare } from '@unhurried/core/work'
import { ElOption, ElSelect } from 'element-plus'
import { Pause, Play } from 'lucide-vue-next'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue'
import { useShot } from '../../stores/shot.ts'
import { EXPOSURES } from '../../words/exposures.ts'

/** One movement at several rates and exposures, side by side: the same second, the same path. */
const shot = useShot()
const RATES = [6, 8, 10, 12, 15, 24, 25, 30]
const fps = computed(() => shot.document?.format.fps ?? 24)
const seconds = computed(() => (shot.take?.length ?? 24) / fps.value)
const samples = ref([
  { fps: fps.value, exposure: 1 },
  { fps: fps.value, exposure: 2 },
  { fps: fps.value, exposure: 3 },
  { fps: 15, exposure: 1 },
  { fps: 12, exposure: 1 },
  { fps: 8, exposure: 1 },
])
const TURN_MS = 1000
/** A rest between two goes, so that the eye can begin anew. */
const REST_MS = 350
const [WIDTH, HEIGHT] = [150, 92]

const still = matchMedia('(prefers-reduced-motion: reduce)').matches
const playing = ref(!still)
const elapsed = shallowRef(0)
let began = 0
let handle = 0
function tick(): void {
  elapsed.value = (performance.now() - began) % (TURN_MS + REST_MS)
  handle = requestAnimationFrame(tick)
}
function start(): void {
  cancelAnimationFrame(handle)
  began = performance.now()
  tick()
}
function toggle(): void {
  playing.value = !playing.value
  if (playing.value) start()
  else cancelAnimationFrame(handle)
}
onMounted(() => playing.value && start())
onBeforeUnmount(() => cancelAnimationFrame(handle))

const [FROM, TO] = [
  { x: 18, y: 74 },
  { x: 132, y: 74 },
]
/** A pebble tossed over and squashed where it lands. */
const seen = computed(() =>
  samples.value.map(sample => {
    const u = steppedShare(Math.min(elapsed.value, TURN_MS), TURN_MS, sample.fps, sample.exposure)
    const at = flightAt(FROM, TO, 56, u)
    const squash = u < 0.04 || u > 0.96 ? 1.25 : 1 - 0.16 * Math.abs(Math.cos(Math.PI * u))
    const pace = paceOfDrawing(sample.fps, sample.exposure, seconds.value)
    const trail = Array.from({ length: Math.round(sample.fps / sample.exposure) + 1 }, (_, i) =>
      flightAt(FROM, TO, 56, Math.min(1, (i * sample.exposure) / sample.fps)),
    )
    return { ...sample, at, squash, pace, trail }
  }),
)
const isDelivery = (sample: { fps: number }) => sample.fps === fps.value
</script>

<template>
  <section aria-label="Rates and exposures side by side">
    <h2>
      The same second, the same path
      <button class="plain" :aria-label="playing ? 'Pause the samples' : 'Play the samples'" @click="toggle">
        <component :is="playing ? Pause : Play" :size="15" aria-hidden="true" />
      </button>
    </h2>
    <div class="row">
      <figure v-for="(s, i) in seen" :key="i" :class="{ delivery: isDelivery(s) }">
        <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" aria-hidden="true">
          <line x1="6" :x2="WIDTH - 6" y1="84" y2="84" class="ground" />
          <circle v-for="(p, k) in s.trail" :key="k" :cx="p.x" :cy="p.y" r="1.4" class="trail" />
          <ellipse :cx="s.at.x" :cy="s.at.y" :rx="10 * s.squash" :ry="10 / s.squash" />
        </svg>
        <figcaption>
          <span class="choice">
            <ElSelect v-model="samples[i]!.fps" size="small" :aria-label="`Rate of sample ${i + 1}`">
              <ElOption v-for="rate in new Set([...RATES, fps])" :key="rate" :value="rate" :label="`at ${rate}`" />
            </ElSelect>
            <ElSelect v-model="samples[i]!.exposure" size="small" :aria-label="`Exposure of sample ${i + 1}`">
              <ElOption v-for="(words, k) in EXPOSURES" :key="words" :value="k + 1" :label="words" />
            </ElSelect>
          </span>
          <span
            ><b>{{ s.pace.perSecond.toFixed(s.pace.perSecond % 1 ? 1 : 0) }}</b> drawings a second</span
          >
          <span class="soft"
            ><b>{{ s.pace.forShot }}</b> for {{ seconds.toFixed(2) }} s</span
          >
        </figcaption>
      </figure>
    </div>
    <p class="soft small">
      Fewer drawings are choppier, and less work. The delivery rate is {{ fps }}; looking at another rate here changes
      nothing.
    </p>
  </section>
</template>

<style scoped>
h2 {
  display: flex;
  align-items: center;
  gap: 8px;
}

h2 .plain {
  line-height: 0;
  color: var(--green);
}

.row {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(104px, 1fr));
  gap: 12px;
}

figure {
  margin: 0;
}

svg {
  display: block;
  width: 100%;
  background: var(--paper);
  border: 1px solid var(--rule);
  border-radius: 6px;
}

.delivery svg {
  border-color: var(--green);
}

.ground {
  stroke: var(--rule);
}

.trail {
  fill: var(--past);
  opacity: 0.6;
}

ellipse {
  fill: var(--ink);
}

figcaption {
  display: flex;
  flex-direction: column;
  margin-top: 6px;
  font-size: 12.5px;
  line-height: 1.45;
}

.choice :deep(.el-select__wrapper) {
  padding: 2px 6px;
}

.choice {
  display: grid;
  grid-template-columns: 1fr 1.15fr;
  gap: 4px;
  margin-bottom: 4px;
}

.small {
  margin-top: 8px;
}

@media (width < 1240px) {
  .choice {
    grid-template-columns: 1fr;
  }
}
</style>
