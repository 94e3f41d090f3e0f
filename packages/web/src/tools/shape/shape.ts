import { Spline } from 'lucide-vue-next'
import { defineAsyncComponent } from 'vue'
import { drawingHand } from '../strokes.ts'
import { tool } from '../tool.ts'
import { Edge } from './settings.ts'

export const shape = tool({
  words: 'shape',
  says: 'painted shape',
  icon: Spline,
  key: '2',
  settings: Edge,
  tip: null,
  beside: () => 'edge',
  panel: defineAsyncComponent(() => import('./ShapePanel.vue')),
  hand: (paper, { smoothing }) => drawingHand(paper, 'shape', smoothing),
})
