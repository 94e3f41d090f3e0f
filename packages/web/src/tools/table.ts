import { computed } from 'vue'
import { useKit } from '../stores/kit.ts'
import { box } from './box/box.ts'
import { fill } from './fill/fill.ts'
import { gather } from './gather/gather.ts'
import { letters } from './letters/letters.ts'
import { line } from './line.ts'
import { mark } from './mark.ts'
import { push } from './push/push.ts'
import { round } from './round/round.ts'
import { rubOut } from './rubOut.ts'
import { shape } from './shape/shape.ts'
import { straight } from './straight.ts'
import { settingsOf, type Tool } from './tool.ts'
import { trace } from './trace.ts'
import { trim } from './trim.ts'

/** The tools in the order of the tray: what draws, what takes off, what moves, what measures. */
const TABLE = {
  line,
  shape,
  straight,
  round,
  box,
  fill,
  'rub-out': rubOut,
  trim,
  gather,
  push,
  mark,
  trace,
  letters,
} as const

export type ToolName = keyof typeof TABLE
export const TOOLS: Readonly<Record<ToolName, Tool>> = TABLE
export const TOOL_NAMES = Object.keys(TABLE) as ToolName[]

/** The name of a tool, or of the pen's line where there is no tool of that name (any more). */
export const toolNamed = (name: string): ToolName => TOOL_NAMES.find(known => known === name) ?? 'line'

/** What a tool is set to now. */
export const settingsNow = (name: ToolName): object => settingsOf(name, TOOLS[name].settings).value

/** The tool in the hand. */
export function useToolInHand() {
  const kit = useKit()
  const name = computed({ get: () => toolNamed(kit.tool), set: next => (kit.tool = next) })
  const tool = computed(() => TOOLS[name.value])
  const settings = computed(() => settingsNow(name.value))
  /** Width under the hand in paper pixels; null when it has none. */
  const width = computed<number | null>({
    get() {
      if (tool.value.tip === 'pen') return kit.pens[kit.pen].width
      return tool.value.tip === 'own' ? (settings.value as { width: number }).width : null
    },
    set(px) {
      if (px === null) return
      if (tool.value.tip === 'pen') kit.setPen({ width: px })
      else if (tool.value.tip === 'own')
        settingsOf(name.value, tool.value.settings).value = { ...settings.value, width: px }
    },
  })
  return { name, tool, settings, width }
}
