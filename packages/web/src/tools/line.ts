import { PenLine } from 'lucide-vue-next'
import { PEN } from './pen/pen.ts'
import { drawingHand } from './strokes.ts'
import { AS_IT_IS, tool } from './tool.ts'

export const line = tool({
  ...PEN,
  words: 'line',
  says: 'line',
  icon: PenLine,
  key: '1',
  settings: AS_IT_IS,
  hand: paper => drawingHand(paper, 'line', paper.kit.pens[paper.kit.pen].smoothing),
})
