<script setup lang="ts">
import { SearchCheck } from 'lucide-vue-next'
import { counted, framesTold, type LoopRange } from '@unhurried/core/time'
import { computed, onUnmounted } from 'vue'
import { RouterLink } from 'vue-router'
import { SEVERITY_SIGNS } from '../../shared/severities.ts'
import { useDelivered } from '../../stores/delivered.ts'
import { useInForce } from '../../stores/inForce.ts'
import { useMeasure } from '../../stores/measure.ts'
import { useReview } from '../../stores/review.ts'
import { useShot } from '../../stores/shot.ts'

/** What is to be known before it goes out; nothing of it stands in the way. */
const props = defineProps<{ range: LoopRange }>()
const shot = useShot()
const measure = useMeasure()
const delivered = useDelivered()
const inForce = useInForce()
onUnmounted(delivered.want())
const review = useReview()
onUnmounted(review.want())
/** A loop that goes round in less is seen often enough while it is drawn. */
const SHORT_LOOP_S = 2
const isShortLoop = computed(() => {
  const { take, document } = shot
  return take?.loop && document ? (take.loop.to - take.loop.from) / document.format.fps < SHORT_LOOP_S : false
})
const unseen = computed(() => (isShortLoop.value ? 0 : (review.unseen?.length ?? 0)))
const toReview = computed(() => {
  const frame = review.left[0]?.frame ?? 0
  return { name: 'review', params: { shot: shot.id }, query: { frame: frame + 1 } }
})
const toRemark = computed(() => ({ ...toReview.value, query: { frame: (review.open[0]?.frame ?? 0) + 1 } }))

const here = computed(() => measure.open.filter(one => one.from < props.range.to && one.to > props.range.from))
const flashing = computed(() => here.value.filter(one => one.check === 'flashes'))
const others = computed(() => here.value.filter(one => one.check !== 'flashes' && one.severity !== 'note'))
const wrong = computed(() => others.value.filter(one => one.severity === 'wrong').length)
const toMeasure = (frame: number) => ({ name: 'measure', params: { shot: shot.id }, query: { frame: frame + 1 } })
/** What is left to be seen to, one after the other in a sentence. */
const toKnow = computed(() => [
  ...(others.value.length > 0
    ? [
        {
          to: toMeasure(others.value[0]?.from ?? 0),
          words: counted(others.value.length, 'finding'),
          more: wrong.value ? `, ${wrong.value} of them hardly meant` : ' worth a look',
        },
      ]
    : []),
  ...(unseen.value > 0
    ? [{ to: toReview.value, words: counted(unseen.value, 'drawing'), more: ' not looked at closely' }]
    : []),
  ...(review.open.length > 0
    ? [{ to: toRemark.value, words: counted(review.open.length, 'remark'), more: ' open' }]
    : []),
])
</script>

<template>
  <section class="before" aria-label="Before it goes out">
    <p v-for="one in flashing" :key="`${one.from} ${one.words}`" class="rust" role="alert">
      <component :is="SEVERITY_SIGNS[one.severity].icon" :size="14" aria-hidden="true" />
      <span
        ><RouterLink :to="toMeasure(one.from)">{{ framesTold(one.from, one.to) }}</RouterLink
        >: it {{ one.words }}</span
      >
    </p>
    <p v-if="others.length || unseen || review.open.length">
      <component
        :is="others.length ? SEVERITY_SIGNS[wrong ? 'wrong' : 'look'].icon : SearchCheck"
        :size="14"
        :class="others.length ? 'rust' : 'soft'"
        aria-hidden="true"
      />
      <span>
        <template v-for="(one, i) in toKnow" :key="one.words"
          >{{ i > 0 ? '; ' : '' }}<RouterLink :to="one.to">{{ one.words }}</RouterLink
          >{{ one.more }}</template
        >.
      </span>
    </p>
    <p v-if="inForce.list.length" class="soft">
      Only for looking, and not sent: {{ inForce.list.map(one => one.words).join('; ') }}.
    </p>
    <p v-if="delivered.progress" class="soft" role="status">
      Looking for flashes: {{ delivered.progress.done }} of {{ counted(delivered.progress.of, 'picture') }}.
    </p>
    <p v-else-if="delivered.seen && !flashing.length" class="soft">
      Nothing was found that flashes more than three times a second. An aid, no certified test; broadcasters have their
      own rules.
    </p>
    <p v-else-if="!flashing.length" class="soft">
      {{ delivered.broken }} Look at it once before sharing: pictures that flash more than three times a second can
      trigger seizures.
    </p>
  </section>
</template>

<style scoped>
.before {
  display: flex;
  flex-direction: column;
  gap: 6px;
  font-size: 12.5px;
}

p {
  display: flex;
  gap: 7px;
}

p svg {
  flex: none;
  margin-top: 3px;
}

a {
  color: inherit;
  font-weight: 700;
}
</style>
