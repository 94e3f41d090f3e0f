import { Layers2 } from 'lucide-vue-next'
import { AS_IT_IS, tool } from './tool.ts'

/** Shown-through drawings are laid elsewhere by a box of their own; the pen does nothing on the paper. */
export const trace = tool({
  words: 'trace',
  says: 'lay a shown-through drawing elsewhere to trace it',
  icon: Layers2,
  key: '7',
  settings: AS_IT_IS,
  tip: null,
})
