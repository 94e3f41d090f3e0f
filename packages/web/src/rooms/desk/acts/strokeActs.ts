import { useKit } from '../../../stores/kit.ts'
import { useGathering } from './gathering.ts'
import { strokeBehind } from './strokeBehind.ts'
import { strokeClip } from './strokeClip.ts'
import { strokeLayers } from './strokeLayers.ts'
import { strokeLooks } from './strokeLooks.ts'
import { strokeMoves } from './strokeMoves.ts'

/** the tool in the hand before all was gathered at once */
let toolBefore: string | null = null

/** What can be done with gathered strokes, in every drawing that changes go through. */
export function useStrokeActs() {
  const kit = useKit()
  const gathering = useGathering()

  /** What was gathered at once with a key is let go of: the tool from before is in the hand again. */
  function backToTool(): void {
    if (toolBefore && kit.tool === 'gather') kit.tool = toolBefore
    toolBefore = null
  }
  function gatherAll(): void {
    if (kit.tool !== 'gather') toolBefore = kit.tool
    kit.tool = 'gather'
    kit.gather(kit.changed.flatMap(drawing => Object.keys(drawing.elements)))
  }

  return {
    ...gathering,
    ...strokeMoves(gathering),
    ...strokeLooks(gathering),
    ...strokeLayers(gathering, backToTool),
    ...strokeBehind(gathering),
    ...strokeClip(gathering),
    backToTool,
    gatherAll,
  }
}

export type StrokeActs = ReturnType<typeof useStrokeActs>
