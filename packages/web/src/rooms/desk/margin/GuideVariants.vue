<script setup lang="ts">
import { recipeShot, type Guide } from '@unhurried/core/document'
import { computed } from 'vue'
import { variantsOf } from '../../../recipes/variants.ts'
import { useShot } from '../../../stores/shot.ts'
import { useGuideActs } from '../acts/guideActs.ts'
import RecipePicture from './RecipePicture.vue'

/** A guide moving as it is, beside the same with less, with more, and on another exposure; a press takes one. */
const props = defineProps<{ guide: Guide; disabled: boolean }>()
const shot = useShot()
const acts = useGuideActs()
const paper = computed(() => shot.document && recipeShot(shot.document))
const variants = computed(() => (shot.document ? variantsOf(shot.document, props.guide) : []))
const SIZE = { width: 46, height: 46 }
</script>

<template>
  <ul v-if="paper" class="variants" aria-label="Side by side">
    <li class="now">
      <RecipePicture :recipe="guide.recipe" :numbers="guide.numbers" :shot="paper" v-bind="SIZE" />
      <span>as it is</span>
    </li>
    <li v-for="variant in variants" :key="variant.words">
      <button
        class="plain"
        :disabled="disabled"
        :title="`Take it: ${variant.words}`"
        @click="acts.change(guide, variant.numbers)"
      >
        <RecipePicture :recipe="guide.recipe" :numbers="variant.numbers" :shot="paper" v-bind="SIZE" />
        <span>{{ variant.words }}</span>
      </button>
    </li>
  </ul>
</template>

<style scoped>
.variants {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 4px;
  margin: 4px 0;
  padding: 0;
  list-style: none;
  font-size: 11.5px;
  line-height: 1.15;
  text-align: center;
}

.now,
button {
  display: grid;
  justify-items: center;
  width: 100%;
  height: 100%;
  padding: 2px 0;
  border: 1px solid var(--rule);
  border-radius: 6px;
}

.now {
  border-color: transparent;
  color: var(--soft);
}
</style>
