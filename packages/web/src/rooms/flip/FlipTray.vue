<script setup lang="ts">
import { ElSlider } from 'element-plus'
import { computed } from 'vue'
import type { FlipCommands } from './commands.ts'
import { SPEED_WORDS, SPEEDS, useFlip } from '../../stores/flip.ts'
import { useSound } from '../../stores/sound.ts'
import PlayButton from '../../shared/PlayButton.vue'
import WaveCanvas from '../../shared/WaveCanvas.vue'

/** How the flip room plays and what it shows; every switch has a key. */
const props = defineProps<{
  commands: FlipCommands
  playing: boolean
  dropped: number
  shown: number
  clock: string
  layer: string
  step: number
  turn: number
  /** the frame that the first step is */
  from: number
}>()
const emit = defineEmits<{ step: [step: number] }>()
const flip = useFlip()
const sound = useSound()
const SEEN = ['back', 'keys', 'breakdowns', 'layer', 'silhouettes', 'phone', 'full', 'bare'] as const
const HEARD = ['sound', 'pitch'] as const
type Switch = (typeof SEEN)[number] | (typeof HEARD)[number]
const hasSound = computed(() => sound.sounds.length > 0)
const switches = computed<readonly Switch[]>(() =>
  hasSound.value ? [...SEEN, ...HEARD.filter(id => id === 'sound' || flip.speed !== 1)] : SEEN,
)
const isOn = computed<Record<Switch, boolean>>(() => ({
  sound: sound.on,
  pitch: sound.keepPitch,
  back: flip.thereAndBack,
  keys: flip.only === 'keys',
  breakdowns: flip.only === 'breakdowns',
  layer: flip.oneLayer,
  silhouettes: flip.silhouettes,
  phone: flip.size === 'phone',
  full: flip.size === 'full',
  bare: flip.bare,
}))
const words = computed<Record<Switch, string>>(() => ({
  sound: 'sound',
  pitch: 'keep its pitch',
  back: 'there and back',
  keys: 'keys only',
  breakdowns: 'with breakdowns',
  layer: `only ${props.layer}`,
  silhouettes: 'silhouettes',
  phone: 'on a phone',
  full: '100 %',
  bare: 'bare',
}))
</script>

<template>
  <section class="tray" aria-label="Playing">
    <PlayButton
      :playing="playing"
      :tip="commands.tip('play')"
      :shown="shown"
      :dropped="dropped"
      :clock="clock"
      @press="commands.get('play').run()"
    />
    <div class="middle">
      <ElSlider
        :model-value="step + 1"
        :min="1"
        :max="Math.max(2, turn)"
        size="small"
        :show-tooltip="false"
        aria-label="Frame"
        @input="(v: number | number[]) => emit('step', (v as number) - 1)"
      />
      <WaveCanvas v-if="hasSound" class="heard" :sounds="sound.sounds" :from="from" :to="from + turn" />
      <div class="rows">
        <div class="speeds" role="radiogroup" aria-label="Viewing speed">
          <button
            v-for="(speed, i) in SPEEDS"
            :key="speed"
            class="plain"
            role="radio"
            :aria-checked="flip.speed === speed"
            :class="{ on: flip.speed === speed }"
            :title="`${commands.tip(`speed-${i}`)}. For looking only: the delivery rate stays.`"
            @click="commands.get(`speed-${i}`).run()"
          >
            {{ SPEED_WORDS[speed]?.split(' ')[0] }}
          </button>
        </div>
        <div class="switches">
          <button
            v-for="id in switches"
            :key="id"
            class="plain"
            role="switch"
            :aria-checked="isOn[id]"
            :class="{ on: isOn[id] }"
            :title="commands.tip(id)"
            @click="commands.get(id).run()"
          >
            {{ words[id] }}
          </button>
        </div>
        <button class="plain soft" @click="commands.get('help').run()">keys <kbd>?</kbd></button>
      </div>
    </div>
  </section>
</template>

<style scoped>
.tray {
  grid-area: tray;
  display: flex;
  align-items: center;
  gap: 22px;
  padding: 6px 22px 6px 16px;
  background: var(--edge);
  border-top: 1px solid var(--rule);
  min-width: 0;
}

.middle {
  flex: 1;
  min-width: 0;
}

.heard {
  height: 18px;
  margin: -4px 0 2px;
}

.rows {
  display: flex;
  align-items: center;
  gap: 16px;
  font-size: 13px;
  white-space: nowrap;
}

.speeds,
.switches {
  display: flex;
  gap: 4px;
}

.speeds {
  border-right: 1px solid var(--rule);
  padding-right: 12px;
}

.switches {
  flex: 1;
  min-width: 0;
  flex-wrap: wrap;
}

.rows .plain {
  color: var(--soft);
  border-radius: 0;
  padding: 2px 4px;
}

@media (width <= 900px) {
  .rows {
    flex-wrap: wrap;
    gap: 2px 16px;
  }

  .switches {
    flex-basis: 100%;
    order: 3;
  }

  .speeds {
    border-right: 0;
  }
}

.rows .on {
  color: var(--ink);
  font-weight: 700;
  box-shadow: inset 0 -2px var(--green);
}
</style>
