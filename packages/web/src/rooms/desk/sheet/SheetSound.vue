<script setup lang="ts">
import { wordsInOrder } from '@unhurried/core/document'
import { computed } from 'vue'
import WaveCanvas from '../../../shared/WaveCanvas.vue'
import { useShot } from '../../../stores/shot.ts'
import { useSight } from '../../../stores/sight.ts'
import { useSound } from '../../../stores/sound.ts'

/** What is heard, running down beside the frames: the waveform of all tracks, and the words over it. */
const props = defineProps<{ rowPx: number; first: number; last: number }>()
const shot = useShot()
const sight = useSight()
const sound = useSound()
const words = computed(() =>
  shot.document ? wordsInOrder(shot.document).filter(word => word.from < props.last && word.to > props.first) : [],
)
const isWide = computed(() => sight.sheetShape === 'room')
</script>

<template>
  <div class="sound" :class="{ wide: isWide }" aria-hidden="true">
    <WaveCanvas
      class="fill"
      down
      :sounds="sound.sounds"
      :from="first"
      :to="last"
      :style="{ top: `${first * rowPx}px`, height: `${(last - first) * rowPx}px` }"
    />
    <span
      v-for="word in words"
      :key="word.id"
      class="said"
      :title="word.text"
      :style="{ top: `${word.from * rowPx}px`, height: `${(word.to - word.from) * rowPx}px` }"
      >{{ isWide ? word.text : '' }}</span
    >
  </div>
</template>

<style scoped>
.sound {
  position: relative;
  flex: none;
  width: 26px;
  border-right: 1px solid var(--rule-faint);
  contain: layout style;
}

.wide {
  width: 104px;
}

.sound .fill {
  position: absolute;
  left: 1px;
  width: 24px;
}

.said {
  position: absolute;
  left: 0;
  right: 0;
  overflow: hidden;
  border-top: 1px solid var(--past);
  font: italic 12.5px/1.5 var(--serif);
  color: var(--ink);
}

.wide .said {
  padding-left: 30px;
}
</style>
