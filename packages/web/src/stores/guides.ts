import {
  guidePath,
  guidePlan,
  guidesOf,
  movesAsPlanned,
  needsSheets,
  recipeShot,
  type Guide,
  type GuideNumber,
} from '@unhurried/core/document'
import { EMPTY_BOX, type Matrix } from '@unhurried/core/geometry'
import { refuseNumbers } from '@unhurried/core/motion'
import { layingsOn } from '@unhurried/core/path'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { planBox } from '../paint/planBox.ts'
import { refusedNumber } from '../recipes/recipe.ts'
import { deskOf } from '../recipes/table.ts'
import { useCarried } from './carried.ts'
import { useDesk } from './desk.ts'
import { useShot } from './shot.ts'

/** A guide as it is seen on a frame of its plan. */
interface SeenGuide {
  readonly guide: Guide
  readonly plan: ReturnType<typeof guidePlan>
  readonly frame: number
  /** the maps by which its layer is laid down on a frame of the plan; null where it lies as it was drawn */
  readonly carried: ((frame: number) => readonly Matrix[]) | null
}

/** The guides of the take, as they are and as they would be while the hand has one. */
export const useGuides = defineStore('guides', () => {
  const shot = useShot()
  const desk = useDesk()
  const carried = useCarried()
  /** a guide with numbers that are not committed yet: the hand still has them */
  const draft = shallowRef<Guide | null>(null)

  /** whether parts of constructions have their names written on them */
  const named = ref(false)
  /** guides that were laid, and whose handles are asked for all the same */
  const placing = shallowRef<ReadonlySet<string>>(new Set())
  /** Once it is laid its places are drawn on, and a handle would take the stroke: then they are there only when asked for. */
  const hasHandles = (guide: Guide): boolean => !isLaid(guide) || placing.value.has(guide.id)
  /** Whether it was laid on the sheet, or its layer moves as it says. */
  const isLaid = (guide: Guide): boolean =>
    guide.laid.drawings.length > 0 ||
    Boolean(shot.document && shot.take && movesAsPlanned(shot.document, shot.take, guide))
  function place(id: string, on: boolean): void {
    const others = [...placing.value].filter(other => other !== id)
    placing.value = new Set(on ? [...others, id] : others)
  }

  const all = computed<Guide[]>(() => {
    const { document, take } = shot
    if (!document || !take) return []
    return guidesOf(document, take.id).map(guide => (draft.value?.id === guide.id ? draft.value : guide))
  })

  /** Guides to be seen on a frame, each with the frame of its plan that is. */
  function seenOn(on: number): SeenGuide[] {
    const { document } = shot
    const { take } = carried
    if (!document || !take) return []
    return all.value.flatMap(guide => {
      const plan = guidePlan(document, guide)
      const since = on - guide.from
      // What loops goes on for ever.
      const frame = plan.loops && since >= 0 ? since % plan.frames : since
      // Nothing is drawn over one that only lets its layer go: it does, and is seen where one stands.
      if (guide.layer !== desk.timedLayer && !needsSheets(document, take, guide) && isLaid(guide)) return []
      const path = carried.atRest ? null : guidePath(document, take, guide)
      const { left, right } = path?.closes ? planBox(guide.recipe, plan) : EMPTY_BOX
      const lies = path && ((at: number) => layingsOn(path, guide.from + at, document.format.width, left, right))
      return guide.shown && frame >= 0 && frame < plan.frames ? [{ guide, plan, frame, carried: lies }] : []
    })
  }
  const here = computed(() => seenOn(desk.frame))

  /** Why numbers cannot be taken, in words; null when they can. */
  function refused(guide: Guide, numbers: Readonly<Record<string, GuideNumber>>): string | null {
    const { document } = shot
    if (!document) return null
    const no = refuseNumbers(guide.recipe, { ...guide.numbers, ...numbers }, recipeShot(document))
    return no && refusedNumber(deskOf(guide), no)
  }

  return {
    draft,
    all,
    here,
    seenOn,
    refused,
    named,
    hasHandles,
    isLaid,
    place,
    /** Starts afresh on another shot. */
    reset() {
      draft.value = null
      named.value = false
      placing.value = new Set()
    },
  }
})
