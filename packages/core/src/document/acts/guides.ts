import { RECIPES, type RecipeName } from '../../motion/table.ts'
import { guidePlan, guidesOf, recipeShot } from '../model/guides.ts'
import type { Guide, GuideNumber, ShotDocument } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'

/** What a guide is besides its recipe, its numbers and its place, before anything was done with it. */
export const AS_IT_COMES = {
  shown: true,
  dimmed: false,
  locked: false,
  laid: { drawings: [], beats: [] },
} as const

/** A guide as it comes, for a layer of a take, from a frame on. */
export function freshGuide(
  document: ShotDocument,
  recipe: RecipeName,
  where: Pick<Guide, 'take' | 'layer' | 'from'>,
  id: string,
): Operation[] {
  const walking = guidesOf(document, where.take).map(guide => guidePlan(document, guide).ground)
  const passing = walking.find(px => px !== 0) ?? 0
  const numbers = { ...RECIPES[recipe].defaults({ ...recipeShot(document), passing }) }
  return [{ kind: 'guide.add', guide: { id, recipe, numbers, ...where, ...AS_IT_COMES } }]
}

/** A guide with some of its numbers changed. */
export const changeGuide = (guide: Guide, numbers: Readonly<Record<string, GuideNumber>>): Operation[] => [
  { kind: 'guide.set', id: guide.id, patch: { numbers: { ...guide.numbers, ...numbers } } },
]

/** A guide begun on another frame, or shown, dimmed or locked otherwise. */
export const moveGuide = (
  id: string,
  patch: Partial<Pick<Guide, 'from' | 'shown' | 'dimmed' | 'locked'>>,
): Operation[] => [{ kind: 'guide.set', id, patch }]

/** The same guide once more, from a frame on, with nothing laid by it yet. */
export const copyGuide = (guide: Guide, id: string, from: number): Operation[] => [
  { kind: 'guide.add', guide: { ...guide, id, from, ...AS_IT_COMES } },
]

/** Takes a guide away; what was laid on the sheet by it stays. */
export const removeGuide = (id: string): Operation[] => [{ kind: 'guide.remove', id }]
