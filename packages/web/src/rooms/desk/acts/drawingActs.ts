import {
  clearDrawing,
  ownCopy,
  putNewDrawing,
  removeExposure,
  ROLES,
  roomOf,
  shareDrawing,
  type Manner,
  type Operation,
  type Role,
} from '@unhurried/core/document'
import { newId } from '../../../local/ids.ts'
import { NO_LINE, TIMED_ELSEWHERE } from '../../../words/refusals.ts'
import { useShot } from '../../../stores/shot.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useAsking } from '../../../stores/asking.ts'

/** Drawings are made, shared, given copies of their own, cleared and removed; their roles. */
export function drawingActs() {
  const shot = useShot()
  const desk = useDesk()
  const asking = useAsking()

  const word = (role: string) => `${role} ${desk.drawing?.number ?? ''}`.trim()

  function newDrawing(how: 'empty' | 'copy', blank = false): void {
    const { document, take } = shot
    if (!document || !take) return
    const source = how === 'copy' ? desk.source : null
    const role = desk.roleOfNew(source)
    const { layerId, frame, holdHere } = desk
    const put = (manner: Manner) =>
      putNewDrawing(document, take, layerId, frame, holdHere, source, role, newId, { manner, blank })
    if (put('ripple') === null) return void (shot.notice = desk.drawing ? TIMED_ELSEWHERE : NO_LINE)
    asking.act({
      label: how === 'copy' ? `copy of ${source?.number}` : 'new drawing',
      attempt: manner => put({ following: 'ripple', room: roomOf(manner) }) ?? { ok: false, code: 'not-a-key' },
    })
  }

  function share(): void {
    if (!shot.document || !shot.take || !desk.source) return
    if (desk.timedLayer !== desk.layerId) return void (shot.notice = TIMED_ELSEWHERE)
    const { document, take } = shot
    const { source, frame, holdHere } = desk
    asking.act({
      label: `share ${source.number}`,
      attempt: manner =>
        shareDrawing(document, take, source, frame, holdHere, {
          manner: { following: 'ripple', room: roomOf(manner) },
        }),
    })
  }

  /** The exposure here gets a copy for its own. */
  function own(): void {
    const { document, take } = shot
    const { drawing } = desk
    if (!document || !take || !drawing) return
    const step = ownCopy(document, take, desk.layerId, desk.frame, newId)
    if (step) asking.act({ label: `own copy of ${drawing.number}`, attempt: () => step })
  }

  function remove(): void {
    const { document, take } = shot
    if (!document || !take) return
    const step = removeExposure(document, take, desk.layerId, desk.frame)
    asking.act({
      label: word('remove'),
      attempt: () => step,
    })
  }

  /** The role of the present drawing, or of all that are marked on its layer. */
  function setRole(role: Role): void {
    const sheets = desk.markedDrawings.length ? desk.markedDrawings : desk.drawing ? [desk.drawing] : []
    const others = sheets.filter(sheet => sheet.role !== role)
    const who = sheets.length === 1 ? `${sheets[0]?.number} becomes` : `${sheets.length} drawings become`
    if (others.length === 0) return void asking.tell(`${who} ${role}: nothing changed, so it is already`)
    const ops = others.map((sheet): Operation => ({ kind: 'drawing.set', id: sheet.id, patch: { role } }))
    if (!shot.commit(`${who} ${role}`, ops)) asking.tell(`${who} ${role}`)
  }

  const nextRole = () => setRole(ROLES[(ROLES.indexOf(desk.drawing?.role ?? 'inbetween') + 1) % ROLES.length] as Role)

  function clear(): void {
    if (desk.drawing) shot.commit(word('clear'), clearDrawing(desk.drawing))
  }

  return { newDrawing, share, own, clear, remove, setRole, nextRole }
}
