import { defineAsyncComponent } from 'vue'

/** What all tools have alike that draw with the pen in the hand. */
export const PEN = {
  tip: 'pen',
  panel: defineAsyncComponent(() => import('./PenPanel.vue')),
  panelWidth: 550,
  choices: defineAsyncComponent(() => import('./LabelsBeside.vue')),
} as const
