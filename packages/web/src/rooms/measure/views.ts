import type { Check } from '@unhurried/core/measure'
import type { Component } from 'vue'
import MeasureOnsets from './MeasureOnsets.vue'
import MeasureParts from './MeasureParts.vue'
import MeasureRanked from './MeasureRanked.vue'

/** What is seen of a check that is no plot. */
export const VIEWS: Readonly<Record<NonNullable<Check['view']>, Component>> = {
  onsets: MeasureOnsets,
  parts: MeasureParts,
  ranked: MeasureRanked,
}
