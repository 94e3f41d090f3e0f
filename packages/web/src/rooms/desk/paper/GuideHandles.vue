<script setup lang="ts">
import type { Matrix, Point } from '@unhurried/core/geometry'
import { computed } from 'vue'
import { deskOf } from '../../../recipes/table.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useDrawers } from '../../../stores/drawers.ts'
import { useGuides } from '../../../stores/guides.ts'
import { useGuideActs } from '../acts/guideActs.ts'
import PaperHandles, { type PaperHandle } from '../../../shared/PaperHandles.vue'

/**
 * The places of guides on the paper, for the layer one stands on, while the drawer of guides is open and they are not laid yet, or
 * their handles are asked for: else nothing stands in the way of drawing. What is dragged is committed when the hand lets go.
 */
defineProps<{ matrix: Matrix }>()
const desk = useDesk()
const guides = useGuides()
const acts = useGuideActs()
const drawers = useDrawers()

const handles = computed(() =>
  (drawers.isOpen('guides', false) ? guides.here : [])
    .filter(({ guide }) => guide.layer === desk.timedLayer && acts.mayChange(guide) && guides.hasHandles(guide))
    .flatMap(({ guide }) => {
      const recipe = deskOf(guide)
      const idle = recipe.idle?.(guide.numbers) ?? []
      const handles = Object.entries(recipe.handles).filter(([name]) => !idle.includes(name))
      return handles.map(([name, handle]): PaperHandle => ({
        id: `${guide.id} ${name}`,
        name: `${recipe.words}, ${handle.words}: drag it`,
        look: handle.goes === 'up and down' ? 'guide level' : 'guide',
        at: handle.at(guide.numbers),
        drag: (to: Point) => acts.draft(guide, handle.dragged(guide.numbers, to) as typeof guide.numbers),
        done: acts.commitDraft,
        lost: acts.dropDraft,
      }))
    }),
)
</script>

<template>
  <PaperHandles :matrix="matrix" :handles="handles" />
</template>
