import { get, has, kindOf, swatchOf, type Element, type Operation, type Swatch } from '@unhurried/core/document'
import { shallowRef } from 'vue'
import { addedCopies } from '../../../strokes/gathered.ts'
import { useShot } from '../../../stores/shot.ts'
import { useKit } from '../../../stores/kit.ts'
import type { Gathering } from './gathering.ts'

/** Strokes taken along, with all that makes them whole in another shot. */
interface StrokeClip {
  readonly shot: string
  readonly elements: readonly Element[]
  readonly swatches: readonly Swatch[]
  readonly samples: ReadonlyMap<string, Uint8Array>
}

/** What was copied last; null when it was frames of the sheet. */
const clip = shallowRef<StrokeClip | null>(null)

export const forgetStrokes = () => (clip.value = null)

/** Gathered strokes are copied and pasted. */
export function strokeClip({ gathered }: Gathering) {
  const shot = useShot()
  const kit = useKit()

  function copy(): boolean {
    const { document } = shot
    const here = gathered()[0]
    if (!document || !here?.elements.length) return false
    const swatches = [...new Set(here.elements.flatMap(e => swatchOf(e) ?? []))].map(id => get(document.swatches, id))
    const samples = new Map(
      here.elements.flatMap(e => {
        const { id } = kindOf(e).asset(e)
        const bytes = shot.strokeBytes(id)
        return bytes ? [[id, bytes] as const] : []
      }),
    )
    clip.value = { shot: shot.id, elements: here.elements, swatches, samples }
    return true
  }

  /** Pastes in place, on the present drawing or on all that changes go through. */
  function paste(): void {
    const { document } = shot
    const held = clip.value
    if (!document || !held || kit.changed.length === 0) return
    const missing = held.swatches.filter(swatch => !has(document.swatches, swatch.id))
    const added = kit.changed.map(drawing => addedCopies(drawing, held.elements, null))
    const ops: Operation[] = [
      ...missing.map((swatch): Operation => ({ kind: 'swatch.add', swatch })),
      ...added.flatMap(one => one.ops),
    ]
    const samples = held.shot === shot.id ? {} : { samples: held.samples }
    if (shot.commit(`paste strokes ${kit.changedWords}`, ops, samples)) return
    kit.tool = 'gather'
    kit.gather(added.flatMap(one => one.ids))
  }

  return { copy, paste, canPaste: () => clip.value !== null }
}
