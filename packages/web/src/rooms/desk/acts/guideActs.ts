import {
  changeGuide,
  copyGuide,
  freshGuide,
  guideLines,
  layGuide,
  moveGuide,
  needsSheets,
  removeGuide,
  type Along,
  type Guide,
  type GuideNumber,
  type Operation,
} from '@unhurried/core/document'
import type { RecipeName } from '@unhurried/core/motion'
import { newId } from '../../../local/ids.ts'
import { deskOf } from '../../../recipes/table.ts'
import { useAsking } from '../../../stores/asking.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useGuides } from '../../../stores/guides.ts'
import { useShot } from '../../../stores/shot.ts'
import { LOCKED, LOCKED_GUIDE } from '../../../words/refusals.ts'

/** What is done with guides: laid on the paper, changed, laid on the sheet, taken away. */
export function useGuideActs() {
  const shot = useShot()
  const desk = useDesk()
  const asking = useAsking()
  const guides = useGuides()

  type Whose = Pick<Guide, 'layer'> & { readonly locked?: boolean }

  /** Whether anything may be done with a guide: its layer may be worked on, whatever layer one stands on. */
  const mayTouch = ({ layer }: Whose): boolean => shot.mayDraw && shot.document?.layers[layer]?.locked === false
  /** Whether it may be changed: it is not locked itself either. */
  const mayChange = (guide: Whose): boolean => mayTouch(guide) && !guide.locked

  /** Commits what is done to a guide, or says that it or its layer is locked. */
  function commit(label: string, guide: Whose, ops: readonly Operation[], joins = false): void {
    if (mayChange(guide)) shot.commit(label, ops, { joins })
    else shot.notice = mayTouch(guide) ? LOCKED_GUIDE : LOCKED
  }

  /** A recipe laid on the paper, for the layer one stands on, from the frame one stands on. */
  function add(recipe: RecipeName): void {
    const { document, take } = shot
    if (!document || !take) return
    const where = { take: take.id, layer: desk.timedLayer, from: desk.frame }
    commit(`guide: ${deskOf({ recipe }).words}`, where, freshGuide(document, recipe, where, newId()))
  }

  /** Changes numbers of a guide; the hand that drags one makes one step. Answers why not, or null. */
  function change(guide: Guide, numbers: Readonly<Record<string, GuideNumber>>): string | null {
    const why = guides.refused(guide, numbers)
    if (why) return why
    guides.draft = null
    const now = shot.document?.guides[guide.id]
    if (now) commit(`guide: ${deskOf(guide).words}`, now, changeGuide(now, numbers))
    return null
  }

  /** Shows a guide with numbers that are still in the hand, where they can be taken. */
  function draft(guide: Guide, numbers: Readonly<Record<string, GuideNumber>>): void {
    if (!guides.refused(guide, numbers)) guides.draft = { ...guide, numbers: { ...guide.numbers, ...numbers } }
  }

  /** Takes what the hand had of a guide in; several in a row are one step. */
  function commitDraft(): void {
    const { draft: held } = guides
    const now = held && shot.document?.guides[held.id]
    guides.draft = null
    if (held && now) commit(`guide: ${deskOf(held).words}`, now, changeGuide(now, held.numbers), true)
  }

  /** Lays it on the sheet; again, what nobody has drawn yet goes along, or all of it. */
  function lay(guide: Guide, along: Along = 'blank'): void {
    if (!mayTouch(guide)) return void (shot.notice = LOCKED)
    const { words } = deskOf(guide)
    const { document, take } = shot
    const layer = document?.layers[guide.layer]?.name ?? ''
    asking.act({
      label: document && take && !needsSheets(document, take, guide) ? `${layer} moves` : `${words} on the sheet`,
      attempt: manner => {
        if (!shot.document || !shot.take) return { ok: true, ops: [] }
        return layGuide(shot.document, shot.take, guide, newId, manner, along)
      },
    })
  }

  return {
    mayTouch,
    mayChange,
    add,
    change,
    draft,
    commitDraft,
    lay,
    move: (guide: Guide, patch: Partial<Pick<Guide, 'from' | 'shown' | 'dimmed'>>) =>
      commit(
        `guide: ${deskOf(guide).words}`,
        { ...guide, locked: patch.from !== undefined && guide.locked },
        moveGuide(guide.id, patch),
      ),
    /** Locked, its numbers and its place are left alone. */
    lock: (guide: Guide, locked: boolean) =>
      commit(
        `${locked ? 'lock' : 'unlock'} the guide: ${deskOf(guide).words}`,
        { layer: guide.layer },
        moveGuide(guide.id, { locked }),
      ),
    /** Its construction as pen lines on a guide layer of their own. */
    asLines(guide: Guide) {
      const { document, take } = shot
      const { words } = deskOf(guide)
      if (!document || !take || !shot.mayDraw) return
      const { ops, samples } = guideLines(document, take, guide, `${words} lines`, newId)
      asking.act({ label: `${words} as lines`, attempt: () => ({ ok: true, ops }), more: { samples } })
    },
    copyHere: (guide: Guide) =>
      commit(`copy the guide: ${deskOf(guide).words}`, { layer: guide.layer }, copyGuide(guide, newId(), desk.frame)),
    remove: (guide: Guide) => commit(`remove the guide: ${deskOf(guide).words}`, guide, removeGuide(guide.id)),
    /** A hand that is lost leaves nothing half done. */
    dropDraft: () => (guides.draft = null),
  }
}
