<script setup lang="ts">
import { counted } from '@unhurried/core/time'
import { useElementSize } from '@vueuse/core'
import { computed, onUnmounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { useKeys } from '../../keys/listen.ts'
import KeySheet from '../../shared/KeySheet.vue'
import { useDesk } from '../../stores/desk.ts'
import { useReview } from '../../stores/review.ts'
import { useShot } from '../../stores/shot.ts'
import { useReviewCommands } from './commands.ts'
import ReviewSide from './ReviewSide.vue'
import ReviewStage from './ReviewStage.vue'
import ReviewStops from './ReviewStops.vue'
import { NEAREST, useLooking } from './useLooking.ts'
import { useRemarking } from './useRemarking.ts'

/** Every drawing that has changed since one looked, one after the other, at 100 % or nearer: nothing is left out. */
const shot = useShot()
const desk = useDesk()
const review = useReview()
const router = useRouter()
onUnmounted(review.want())
const stage = ref<HTMLElement | null>(null)
const { width, height } = useElementSize(stage)
const looking = useLooking({ width, height })
const remarking = useRemarking(looking)
const side = ref<InstanceType<typeof ReviewSide> | null>(null)
const keysShown = ref(false)
const { commands, keysOf, get } = useReviewCommands({
  looking,
  remark: remarking.start,
  answer: () => side.value?.answer(),
  close() {
    const first = review.here.find(({ remark }) => !remark.closed)
    if (first) review.close(first.remark)
  },
  again: () => looking.stop.value && review.again(looking.stop.value.drawings),
  openDesk: () => void router.push({ name: 'desk', params: { shot: shot.id }, query: { frame: desk.frame + 1 } }),
  showKeys: () => (keysShown.value = true),
})
useKeys(commands)
const isDone = computed(() => review.stops.length > 0 && review.left.length === 0)
const partWords = computed(() => {
  const { parts, part } = looking
  return parts.value.length > 1 ? `part ${part.value + 1} of ${parts.value.length}` : 'all of it'
})
</script>

<template>
  <div class="review">
    <ReviewStops :looking="looking" />
    <main class="middle" aria-label="Review">
      <div ref="stage" class="stage">
        <ReviewStage :looking="looking" :remarking="remarking" :width="width" :height="height" />
        <p v-if="!review.stops.length" class="empty serif">
          Nothing is drawn that goes out. What is drawn and exposed is looked through here, drawing by drawing.
        </p>
      </div>
      <footer>
        <p class="told" role="status">
          <template v-if="isDone">
            <b>Everything has been looked at.</b>
            <RouterLink :to="{ name: 'send-off', params: { shot: shot.id }, query: { frame: desk.frame + 1 } }"
              >to the send-off</RouterLink
            >
          </template>
          <template v-else-if="looking.hurried.value">That was too quick to count as seen.</template>
          <template v-else>{{ counted(review.left.length, 'frame') }} left · {{ partWords }}</template>
        </p>
        <span class="zoom">
          <button class="plain" aria-label="Farther" :disabled="looking.zoom.value <= 1" @click="get('farther').run()">
            −
          </button>
          <b>{{ looking.zoom.value * 100 }} %</b>
          <button
            class="plain"
            aria-label="Nearer"
            :disabled="looking.zoom.value >= NEAREST"
            @click="get('nearer').run()"
          >
            +
          </button>
        </span>
        <button class="plain word" @click="get('back').run()">
          back <kbd>{{ keysOf('back') }}</kbd>
        </button>
        <button class="strong" :disabled="!review.me || !looking.stop.value" @click="get('on').run()">
          seen, on <kbd>{{ keysOf('on') }}</kbd>
        </button>
      </footer>
    </main>
    <ReviewSide ref="side" :looking="looking" :remarking="remarking" :keys-of="keysOf" />
    <KeySheet v-model="keysShown" :commands="commands" />
  </div>
</template>

<style scoped>
.review {
  display: grid;
  grid-template-columns: 204px minmax(0, 1fr) 280px;
  min-height: 0;
}

@media (width < 900px) {
  .review {
    grid-template-columns: 150px minmax(0, 1fr) 220px;
  }
}

.middle {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  min-width: 0;
  min-height: 0;
}

.stage {
  position: relative;
  min-width: 0;
  min-height: 0;
}

.empty {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  padding: 0 15%;
  text-align: center;
  font-size: 18px;
}

footer {
  display: flex;
  align-items: center;
  gap: 18px;
  min-height: 52px;
  padding: 6px 18px;
  border-top: 1px solid var(--rule);
  background: var(--edge);
}

.told {
  flex: 1;
  font-size: 13.5px;
}

.told a {
  margin-left: 8px;
}

.zoom {
  display: flex;
  align-items: center;
  gap: 6px;
  font-variant-numeric: tabular-nums;
}

.zoom .plain {
  width: 28px;
  min-height: 28px;
  font-size: 16px;
}

.zoom b {
  min-width: 52px;
  text-align: center;
}

.word {
  color: var(--green);
}
</style>
