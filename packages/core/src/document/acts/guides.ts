import { MOST_TICKS } from '../../chart/halves.ts'
import { wishTicks, type Wish } from '../../chart/wish.ts'
import type { Cycle } from '../../time/cycle.ts'
import { lengthOf, slice, type Run } from '../../time/exposure.ts'
import { expectedOf, RECIPES, type RecipeName } from '../../motion/table.ts'
import type { Plan } from '../../motion/recipe.ts'
import { guidePlan, recipeShot } from '../model/guides.ts'
import type { Drawing, Guide, GuideNumber, Mark, ShotDocument, Take } from '../model/model.ts'
import type { Operation } from '../operations/index.ts'
import { columnOf, freeNumber, marksOf } from '../model/selectors.ts'
import { settleAll, stretchChange, type LayerChange } from './changes.ts'
import { touchesCycle } from './layerForm.ts'
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
 * Lays a guide on the sheet in one step: a numbered sheet with its role for every planned drawing, their exposures, charts
 * between its keys, its marks placed (and planted) where they are planned, and its beats. What loops is linked to the end of
 * the shot where nothing else lies there, and the take is played in its loop unless it has one. The layer has a timing of its
 * own. What lies there already, and the length of the shot, are kept unless the manner says otherwise.
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
  const runs = plan.exposures.map(({ drawing, frames }): Run => ({
    drawing: (drawings[drawing] as Drawing).id,
    frames,
  }))
  const linked = plan.loops && isFreeFrom(take, guide)
  const change = linked
    ? linkedToTheEnd(take, guide, { id: newId(), pattern: runs })
    : putAt(take, guide, plan.frames, runs, manner)
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
  const loop: Operation[] =
    linked && take.loop === null
      ? [{ kind: 'loop.set', take: take.id, loop: { from: guide.from, to: guide.from + plan.frames } }]
      : []
  return {
    ok: true,
    ops: [...step.ops, ...chartsFor(guide, plan, drawings, newId), ...beats, ...loop],
    frame: guide.from,
  }
}

/** Exposures one after the other from where a guide begins; behind the end of the shot empty frames lead up to it. */
function putAt(take: Take, guide: Guide, frames: number, laid: readonly Run[], manner: Manner): LayerChange {
  const from = Math.min(guide.from, take.length)
  const to = Math.min(guide.from + frames, take.length)
  const runs = guide.from > from ? [{ drawing: null, frames: guide.from - from }, ...laid] : laid
  return stretchChange(take, guide.layer, from, to, () => runs, manner)
}

/** Whether the layer of a guide is empty from its first frame to the end of the shot. */
const isFreeFrom = (take: Take, { layer, from }: Guide): boolean =>
  from < take.length &&
  !touchesCycle(take, layer, from, take.length) &&
  slice(columnOf(take, layer), from, take.length).every(run => run.drawing === null)

/** A pattern repeated from where a guide begins to the end of the shot, once at least. */
function linkedToTheEnd(
  take: Take,
  { layer, from }: Guide,
  { id, pattern }: Pick<Cycle, 'id' | 'pattern'>,
): LayerChange {
  const frames = Math.max(lengthOf(pattern), take.length - from)
  const cycle: Cycle = { id, layer, from, to: null, offset: 0, pattern }
  return { layer, from, to: take.length, stretch: [{ drawing: null, frames }], cycle }
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
    const places = Object.entries(expectedOf(guide.recipe, plan, i).marks).flatMap(
      ([name, { x, y, planted = false }]) => {
        const id = marks.get(name)
        return id === undefined ? [] : [[id, { x: tenth(x), y: tenth(y), planted }] as const]
      },
    )
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
