import { copyClip, pasteClip, assetIds, takeOut } from '@unhurried/core/document'
import { keepClip, readClip } from '../../../local/database.ts'
import { newId } from '../../../local/ids.ts'
import { useShot } from '../../../stores/shot.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useAsking } from '../../../stores/asking.ts'
import { LOCKED } from '../../../words/refusals.ts'
import type { Marking } from './marking.ts'

/** Frames copied, cut and pasted. */
export function sheetClipActs({ marked, editable, act, edit }: Marking) {
  const shot = useShot()
  const desk = useDesk()
  const asking = useAsking()

  function takeOutMarked(): void {
    act('take out of the layer', (m, manner) => edit((doc, take) => takeOut(doc, take, m, manner)))
  }

  async function copy(): Promise<boolean> {
    const { document, take } = shot
    const m = marked()
    if (!document || !take || !m) return false
    const clip = copyClip(document, take, shot.id, m)
    const ids = assetIds(clip.drawings.map(drawing => ({ kind: 'drawing.add', drawing })))
    const samples = new Map(
      ids.flatMap(id => {
        const bytes = shot.strokeBytes(id)
        return bytes ? [[id, bytes] as const] : []
      }),
    )
    await keepClip({ clip, samples })
    return true
  }

  async function cut(): Promise<void> {
    if (editable() && (await copy())) takeOutMarked()
  }

  async function paste(how: 'share' | 'copy'): Promise<void> {
    const held = await readClip()
    const { document, take } = shot
    if (!document || !take) return
    if (!held) {
      shot.notice = 'Nothing has been copied yet: mark frames on the sheet and copy them first.'
      return
    }
    if (!desk.mayEdit) {
      shot.notice = LOCKED
      return
    }
    const at = desk.selection?.from ?? desk.frame
    const label = how === 'share' ? 'paste the same drawings' : 'paste copies'
    // Only samples this shot does not have yet are brought along.
    const samples = new Map([...held.samples].filter(([id]) => shot.strokeBytes(id) === undefined))
    const { layerId } = desk
    asking.act({
      label,
      attempt: manner => edit((doc, t) => pasteClip(doc, t, shot.id, held.clip, layerId, at, how, manner, newId)),
      done: () => desk.goTo(at),
      more: { samples },
    })
  }

  return { takeOutMarked, copy, cut, paste }
}
