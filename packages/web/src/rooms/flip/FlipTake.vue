<script setup lang="ts">
import { differencesInWords, type Layer, type Take } from '@unhurried/core/document'
import { secondsLabel } from '@unhurried/core/time'
import { computed, ref } from 'vue'
import type { BitmapShelf } from '../../paint/bitmaps.ts'
import type { Looks } from '../../paint/looks.ts'
import { frameOfStep, type Seeing } from '../../shared/frames.ts'
import { useFlip } from '../../stores/flip.ts'
import { useShot } from '../../stores/shot.ts'
import FramePicture from '../../shared/FramePicture.vue'

/** One take in the flip room, with what makes it different from the current one. */
const props = defineProps<{
  take: Take
  /** a pass that was left, seen in place of the present one */
  pass: Layer | null
  step: number
  width: number
  bitmaps: BitmapShelf
  seeing: Seeing
  looks: Looks
  bare: boolean
}>()
const shot = useShot()
const picture = ref<InstanceType<typeof FramePicture> | null>(null)
const isCurrent = computed(() => props.take.id === shot.take?.id)
const flip = useFlip()
const seen = computed<Seeing>(() => ({ ...props.seeing, pass: props.pass?.id ?? null }))
const frame = computed(() => frameOfStep(props.take, props.step, flip.each))
const differences = computed(() =>
  shot.document && shot.take && !isCurrent.value ? differencesInWords(shot.document, shot.take, props.take, 3) : [],
)
defineExpose({ paintStep: (step: number) => picture.value?.paint(frameOfStep(props.take, step, flip.each)) })
</script>

<template>
  <figure class="take" :style="{ width: `${width}px` }">
    <FramePicture
      ref="picture"
      :take="take"
      :frame="frame"
      :width="width"
      :bitmaps="bitmaps"
      :seeing="seen"
      :looks="looks"
    />
    <figcaption v-if="!bare">
      <b class="serif">{{ pass ? pass.name : take.name }}</b>
      <span class="soft">{{ take.length }} · {{ secondsLabel(take.length, shot.document?.format.fps ?? 24) }}</span>
      <span v-if="pass" class="words">left: {{ pass.left?.why || 'no reason given' }}</span>
      <span v-else-if="isCurrent" class="current">worked on</span>
      <span v-else class="words">{{ differences.join('; ') }}</span>
    </figcaption>
  </figure>
</template>

<style scoped>
.take {
  margin: 0;
  flex: none;
}

figcaption {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 10px;
  min-height: 44px;
  padding-top: 7px;
  font-size: 13px;
}

b {
  font-weight: 500;
  font-size: 15px;
}

.current {
  color: var(--green);
}

.words {
  flex-basis: 100%;
  font-style: italic;
}
</style>
