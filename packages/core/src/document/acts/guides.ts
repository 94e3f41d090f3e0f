import { MOST_TICKS } from '../../chart/halves.ts'
import { wishTicks, type Wish } from '../../chart/wish.ts'
import { expectedOf, RECIPES, type RecipeName } from '../../motion/table.ts'
import type { Plan } from '../../motion/recipe.ts'
import { guidePlan, recipeShot } from '../model/guides.ts'
import type { Drawing, Guide, GuideNumber, Mark, ShotDocument, Take } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'
import { freeNumber, marksOf } from '../model/selectors.ts'
import { settleAll, stretchChange } from './changes.ts'
import type { Proposal } from './proposal.ts'
import type { Manner } from './room.ts'

/** A guide as it comes, for a layer of a take, from a frame on. */
export function freshGuide(
  document: ShotDocument,
  recipe: RecipeName,
  where: Pick<Guide, 'take' | 'layer' | 'from'>,
  id: string,
): Operation[] {
  const numbers = { ...RECIPES[recipe].defaults(recipeShot(document)) }
  return [{ kind: 'guide.add', guide: { id, recipe, numbers, shown: true, ...where } }]
}

/** A guide with some of its numbers changed. */
export const changeGuide = (guide: Guide, numbers: Readonly<Record<string, GuideNumber>>): Operation[] => [
  { kind: 'guide.set', id: guide.id, patch: { numbers: { ...guide.numbers, ...numbers } } },
]

/** A guide begun on another frame, or shown or hidden. */
export const moveGuide = (id: string, patch: Partial<Pick<Guide, 'from' | 'shown'>>): Operation[] => [
  { kind: 'guide.set', id, patch },
]

/** Takes a guide away; what was laid on the sheet by it stays. */
export const removeGuide = (id: string): Operation[] => [{ kind: 'guide.remove', id }]

/**
 * Lays a guide on the sheet in one step: a numbered sheet with its role at the start of every planned exposure, charts
 * between its keys, its marks placed where they are planned, and its beats. The layer has a timing of its own. What lies
 * there already, and the length of the shot, are kept unless the manner says otherwise.
 */
export function layGuide(
  document: ShotDocument,
  take: Take,
  guide: Guide,
  newId: () => string,
  manner: Manner,
): Proposal {
  const plan = guidePlan(document, guide)
  const marks = marksFor(document, guide, plan, newId)
  const drawings = sheetsFor(document, guide, plan, marks.ids, newId)
  const from = Math.min(guide.from, take.length)
  const to = Math.min(guide.from + plan.frames, take.length)
  const laid = plan.drawings.map(({ frames }, i) => ({ drawing: (drawings[i] as Drawing).id, frames }))
  // Behind the end of the shot empty frames lead up to it.
  const runs = guide.from > from ? [{ drawing: null, frames: guide.from - from }, ...laid] : laid
  const change = stretchChange(take, guide.layer, from, to, () => runs, manner)
  const first: Operation[] = [
    ...marks.made.map((mark): Operation => ({ kind: 'mark.add', mark })),
    ...drawings.map((drawing): Operation => ({ kind: 'drawing.add', drawing })),
  ]
  const step = settleAll(document, take, [change], manner, { first })
  if (!step.ok) return step
  const beats = plan.beats.map(({ frame, name }): Operation => ({
    kind: 'beat.add',
    beat: { id: newId(), name, frame: guide.from + frame },
  }))
  return { ok: true, ops: [...step.ops, ...chartsFor(guide, plan, drawings, newId), ...beats], frame: guide.from }
}

/** The marks of a plan on its layer: those of their names that are there, and new ones. */
function marksFor(document: ShotDocument, { layer }: Guide, plan: Plan<unknown>, newId: () => string) {
  const known = marksOf(document, layer)
  const made: Mark[] = []
  const ids = plan.marks.map(name => {
    const there = known.find(mark => mark.name === name && mark.kind === 'point')
    if (there) return [name, there.id] as const
    const order = (known.at(-1)?.order ?? 0) + made.length + 1
    const mark: Mark = { id: newId(), layer, name, order, kind: 'point' }
    made.push(mark)
    return [name, mark.id] as const
  })
  return { made, ids: new Map(ids) }
}

const tenth = (px: number): number => Math.round(px * 10) / 10

function sheetsFor(
  document: ShotDocument,
  guide: Guide,
  plan: Plan<unknown>,
  marks: ReadonlyMap<string, string>,
  newId: () => string,
): Drawing[] {
  const taken: number[] = []
  return plan.drawings.map(({ frame, role }, i) => {
    const number = freeNumber(document, guide.layer, guide.from + frame, taken)
    taken.push(number)
    const places = Object.entries(expectedOf(guide.recipe, plan, i).marks).flatMap(([name, { x, y }]) => {
      const id = marks.get(name)
      return id === undefined ? [] : [[id, { x: tenth(x), y: tenth(y), planted: false }] as const]
    })
    return { id: newId(), layer: guide.layer, number, role, elements: {}, marks: Object.fromEntries(places) }
  })
}

/** Charts put by hand at the shares the plan wishes, to the nearest that halves can give. */
function chartsFor(
  { layer }: Guide,
  plan: Plan<unknown>,
  drawings: readonly Drawing[],
  newId: () => string,
): Operation[] {
  return plan.charts.flatMap(({ from, to, shares }): Operation[] => {
    if (shares.length === 0 || shares.length > MOST_TICKS) return []
    const wish: Wish = { ease: 'hand', strength: 0.5, thirds: false, points: shares }
    const ticks = wishTicks(wish, shares.length).map((tick, i) => ({
      ...tick,
      drawing: (drawings[from + 1 + i] as Drawing).id,
    }))
    const keys = { from: (drawings[from] as Drawing).id, to: (drawings[to] as Drawing).id }
    return [{ kind: 'chart.add', chart: { id: newId(), layer, ...keys, part: null, wish, ticks } }]
  })
}
