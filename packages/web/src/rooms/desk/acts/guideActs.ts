import {
  changeGuide,
  freshGuide,
  layGuide,
  moveGuide,
  removeGuide,
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
import { LOCKED } from '../../../words/refusals.ts'

/** What is done with guides: laid on the paper, changed, laid on the sheet, taken away. */
export function useGuideActs() {
  const shot = useShot()
  const desk = useDesk()
  const asking = useAsking()
  const guides = useGuides()

  /** Whether a guide may be changed: its layer may, whatever layer one stands on. */
  const mayChange = ({ layer }: Pick<Guide, 'layer'>): boolean =>
    shot.mayDraw && shot.document?.layers[layer]?.locked === false

  /** Commits what is done to a guide, or says that its layer is locked. */
  function commit(label: string, guide: Pick<Guide, 'layer'>, ops: readonly Operation[], joins = false): void {
    if (mayChange(guide)) shot.commit(label, ops, { joins })
    else shot.notice = LOCKED
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

  function lay(guide: Guide): void {
    if (!mayChange(guide)) return void (shot.notice = LOCKED)
    const { words } = deskOf(guide)
    asking.act({
      label: `${words} on the sheet`,
      attempt: manner => {
        if (!shot.document || !shot.take) return { ok: true, ops: [] }
        return layGuide(shot.document, shot.take, guide, newId, manner)
      },
    })
  }

  return {
    mayChange,
    add,
    change,
    draft,
    commitDraft,
    lay,
    move: (guide: Guide, patch: Partial<Pick<Guide, 'from' | 'shown'>>) =>
      commit(`guide: ${deskOf(guide).words}`, guide, moveGuide(guide.id, patch)),
    remove: (guide: Guide) => commit(`remove the guide: ${deskOf(guide).words}`, guide, removeGuide(guide.id)),
    /** A hand that is lost leaves nothing half done. */
    dropDraft: () => (guides.draft = null),
  }
}
