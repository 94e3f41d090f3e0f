<script setup lang="ts">
import { differencesInWords, type Take } from '@unhurried/core/document'
import { secondsLabel } from '@unhurried/core/time'
import { computed, ref } from 'vue'
import type { BitmapShelf } from '../desk/bitmaps.ts'
import type { Looks } from '../desk/looks.ts'
import { frameOfStep, type Seeing } from '../flip/frames.ts'
import { useShot } from '../stores/shot.ts'
import FramePicture from './FramePicture.vue'

/** One take in the flip room, with what makes it different from the current one. */
const props = defineProps<{
  take: Take
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
const differences = computed(() =>
  shot.document && shot.take && !isCurrent.value ? differencesInWords(shot.document, shot.take, props.take, 3) : [],
)
defineExpose({ paintStep: (step: number) => picture.value?.paint(frameOfStep(props.take, step)) })
</script>

<template>
  <figure class="take" :style="{ width: `${width}px` }">
    <FramePicture
      ref="picture"
      :take="take"
      :frame="frameOfStep(take, step)"
      :width="width"
      :bitmaps="bitmaps"
      :seeing="seeing"
      :looks="looks"
    />
    <figcaption v-if="!bare">
      <b class="serif">{{ take.name }}</b>
      <span class="soft">{{ take.length }} · {{ secondsLabel(take.length, shot.document?.format.fps ?? 24) }}</span>
      <span v-if="isCurrent" class="current">worked on</span>
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
