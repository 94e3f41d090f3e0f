<script setup lang="ts">
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import RemarkList from '../../../shared/RemarkList.vue'
import { useDesk } from '../../../stores/desk.ts'
import { useReview } from '../../../stores/review.ts'
import { useShot } from '../../../stores/shot.ts'

/** What was remarked on the shot: on what is seen, or everything that is open. */
const desk = useDesk()
const shot = useShot()
const review = useReview()
const everywhere = ref(false)
const shown = computed(() => (everywhere.value ? review.open : review.here))
</script>

<template>
  <div>
    <RemarkList :remarks="shown" :with-frames="everywhere" @go-to="desk.goTo" />
    <p v-if="!shown.length" class="soft">
      {{ review.remarks.length ? 'Nothing is remarked here.' : 'Nobody has remarked anything.' }}
    </p>
    <p class="more">
      <button v-if="review.open.length" class="plain" :aria-pressed="everywhere" @click="everywhere = !everywhere">
        {{ everywhere ? 'those here' : `all open ones: ${review.open.length}` }}
      </button>
      <RouterLink :to="{ name: 'review', params: { shot: shot.id }, query: { frame: desk.frame + 1 } }"
        >look it through</RouterLink
      >
    </p>
  </div>
</template>

<style scoped>
.more {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}

.more .plain {
  min-height: 24px;
  margin-left: -4px;
  font-size: 12.5px;
  color: var(--green);
}

.more a,
p {
  font-size: 12.5px;
}
</style>
