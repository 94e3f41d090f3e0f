import { MOST_TICKS, valueOf } from '../../chart/halves.ts'
import { wishTicks, type Wish } from '../../chart/wish.ts'
import type { Plan } from '../../motion/recipe.ts'
import { expectedOf } from '../../motion/table.ts'
import { periodOf, type Cycle } from '../../time/cycle.ts'
import type { LoopRange } from '../../time/loop.ts'
import { lengthOf, overwrite, placed, slice, type Run } from '../../time/exposure.ts'
import { guidePlan, plannedPath } from '../model/guides.ts'
import type { Beat, Drawing, Guide, Mark, MarkPlace, ShotDocument, Take } from '../model/model.ts'
import { columnOf, cyclesOf, exposedDrawing, freeNumber, isBlank, marksOf } from '../model/selectors.ts'
import { find, get, type Table } from '../model/table.ts'
import { refuse, type Operation } from '../operations/index.ts'
import { cycleChange, inTurn, settleAll, stretchChange, type LayerChange } from './changes.ts'
import { moveCycle } from './cycles.ts'
import { touchesCycle } from './layerForm.ts'
import { layPath } from './paths.ts'
import { proposed, type Proposal } from './proposal.ts'
import { roomOf, type Manner } from './room.ts'

/** What was laid by a guide and is still there, and what laying it again would do. */
export interface LaidAlready {
  /** its drawings in the order of its plan; null where one is gone */
  readonly drawings: readonly (Drawing | null)[]
  /** drawings that nobody has drawn on yet: they go along with the plan */
  readonly blank: number
  /** drawings that were drawn: they keep their roles and the places of their marks unless all is asked for */
  readonly drawn: number
}

/** What was laid by a guide before. */
export function laidAlready(document: ShotDocument, { laid, layer }: Guide): LaidAlready {
  const drawings = laid.drawings.map(id => {
    const drawing = find(document.drawings, id)
    return drawing?.layer === layer ? drawing : null
  })
  const there = drawings.filter(drawing => drawing !== null)
  const blank = there.filter(isBlank).length
  return { drawings, blank, drawn: there.length - blank }
}

/** Which of what was laid before goes along with a plan that has changed. */
export type Along = 'blank' | 'all'

/**
 * Lays a guide on the sheet in one step: a numbered sheet with its role for every planned drawing, their exposures, charts
 * between its keys, its marks placed (and planted) where they are planned, and its beats; a layer that moves as a whole gets its path. What loops is linked to the end of
 * the shot where nothing else lies there, and the take is played in its loop unless it has one. The layer has a timing of its
 * own. What lies there already, and the length of the shot, are kept unless the manner says otherwise.
 *
 * Laid again, its sheets are the same ones: those that nobody has drawn on go along with the plan, and so do the times of all; what
 * was drawn keeps its role and its marks, unless `along` says all. Sheets it has no more use for go if they are blank.
 */
export function layGuide(
  document: ShotDocument,
  take: Take,
  guide: Guide,
  newId: () => string,
  manner: Manner,
  along: Along = 'blank',
): Proposal {
  const cycle = linkedBefore(document, take, guide)
  // A loop that was set by laying follows what is laid; any other is the animator's.
  const sets = take.loop === null || (cycle !== null && isRound(take.loop, cycle))
  const unused = laidAlready(document, guide).drawings.slice(guidePlan(document, guide).drawings.length)
  const step = inTurn(document, take.id, [
    (now, here) => (cycle && cycle.from !== guide.from ? movedThere(now, here, guide, cycle, manner) : NOTHING),
    (now, here) => (needsSheets(now, here, guide) ? onTheSheet(now, here, guide, newId, manner, along) : NOTHING),
    (now, here) => proposed(pathLaid(now, here, guide)),
    (now, here) => proposed(sets ? roundOnce(now, here, get(now.guides, guide.id)) : []),
    now => proposed(withoutUse(now, unused)),
  ])
  return step.ok ? { ...step, frame: guide.from } : step
}

const NOTHING: Proposal = proposed([])

/** Whether a guide asks for drawings: one that only lets its layer go needs none where the layer shows something already. */
export function needsSheets(document: ShotDocument, take: Take, guide: Guide): boolean {
  if (!guidePlan(document, guide).onlyMoves) return true
  const shown = exposedDrawing(document, take, guide.layer, guide.from)
  return shown === null || guide.laid.drawings.includes(shown.id)
}

/** The way of its layer, where its plan has one. */
function pathLaid(document: ShotDocument, take: Take, guide: Guide): Operation[] {
  const path = plannedPath(guidePlan(document, guide), guide.from)
  return path ? layPath(take, guide.layer, path) : []
}

/** Whether the layer of a guide moves as its plan would have it. */
export const movesAsPlanned = (document: ShotDocument, take: Take, guide: Guide): boolean =>
  Boolean(guidePlan(document, guide).path) && pathLaid(document, take, guide).length === 0

/** The linked cycle that a guide was laid as, while it shows nothing else; null where there is none. */
function linkedBefore(document: ShotDocument, take: Take, guide: Guide): Cycle | null {
  const ids = idsOf(laidAlready(document, guide))
  const isIts = (run: Run) => run.drawing !== null && ids.has(run.drawing)
  return cyclesOf(take, guide.layer).find(({ pattern }) => pattern.every(isIts)) ?? null
}

const idsOf = ({ drawings }: LaidAlready): Set<string> => new Set(drawings.flatMap(drawing => drawing?.id ?? []))

/** Whether a loop is the first round of a cycle. */
const isRound = (loop: LoopRange, cycle: Cycle): boolean =>
  loop.from === cycle.from && loop.to === cycle.from + periodOf(cycle)

/** The cycle brought to where its guide begins now. */
function movedThere(document: ShotDocument, take: Take, { from }: Guide, cycle: Cycle, manner: Manner): Proposal {
  const to = cycle.to === null ? null : cycle.to + from - cycle.from
  return moveCycle(document, take, cycle, { from, to }, roomOf(manner))
}

/** The first round of what was linked becomes the loop of the take. */
function roundOnce(document: ShotDocument, take: Take, guide: Guide): Operation[] {
  const cycle = linkedBefore(document, take, guide)
  if (!cycle || (take.loop && isRound(take.loop, cycle))) return []
  const loop = { from: cycle.from, to: Math.min(take.length, cycle.from + periodOf(cycle)) }
  return [{ kind: 'loop.set', take: take.id, loop }]
}

/** Blank sheets that nothing holds any more are taken away. */
function withoutUse(document: ShotDocument, sheets: readonly (Drawing | null)[]): Operation[] {
  return sheets
    .filter(sheet => sheet !== null && isBlank(sheet))
    .map((sheet): Operation => ({ kind: 'drawing.remove', id: (sheet as Drawing).id }))
    .filter(op => refuse(document, op) === null)
}

/** Sheets, exposures, charts, marks and beats of a guide; and what it remembers of them. */
function onTheSheet(
  document: ShotDocument,
  take: Take,
  guide: Guide,
  newId: () => string,
  manner: Manner,
  along: Along,
): Proposal {
  const plan = guidePlan(document, guide)
  const before = laidAlready(document, guide)
  const marks = marksFor(document, guide, plan, newId)
  const sheets = sheetsFor(document, guide, plan, marks.ids, before, newId)
  const drawings = sheets.map(sheet => sheet.drawing)
  const runs = plan.exposures.map(({ drawing, frames }): Run => ({
    drawing: (drawings[drawing] as Drawing).id,
    frames: plan.onlyMoves ? heldFrames(take, guide, frames) : frames,
  }))
  const change = changeFor(document, take, guide, plan, runs, newId, manner)
  const first: Operation[] = [
    ...marks.made.map((mark): Operation => ({ kind: 'mark.add', mark })),
    ...sheets.flatMap(({ drawing, isNew }): Operation[] => (isNew ? [{ kind: 'drawing.add', drawing }] : [])),
    ...sheets.flatMap(sheet => broughtAlong(sheet, along)),
  ]
  const settled = (losing: boolean) => settleAll(document, take, [change], manner, { first, losing })
  const tried = settled(false)
  // Blank sheets that the plan has no more use for may go.
  const spare = before.drawings.slice(plan.drawings.length)
  const goes = (id: string) => spare.some(sheet => sheet?.id === id && isBlank(sheet))
  const step = !tried.ok && tried.code === 'would-cover' && tried.drawings.every(goes) ? settled(true) : tried
  if (!step.ok) return step
  const beats = beatsFor(document, guide, plan, newId)
  const laid = { drawings: drawings.map(({ id }) => id), beats: beats.ids }
  return proposed([
    ...step.ops,
    ...chartsGone(document, guide),
    ...chartsFor(guide, plan, drawings, newId),
    ...beats.ops,
    { kind: 'guide.set', id: guide.id, patch: { laid } },
  ])
}

/** Frames that what lies on a layer that only moves is shown: as long as nothing else is, however long the plan is. */
function heldFrames(take: Take, guide: Guide, planned: number): number {
  const ids = new Set(guide.laid.drawings)
  const isOther = (run: Run) => run.drawing !== null && !ids.has(run.drawing)
  const later = [
    take.length,
    ...placed(columnOf(take, guide.layer)).flatMap(run => (isOther(run) ? run.start : [])),
    ...cyclesOf(take, guide.layer).map(cycle => cycle.from),
  ].filter(start => start > guide.from)
  return later.length > 0 ? Math.min(...later) - guide.from : planned
}

/** How the sheet changes: in place of what was laid before, or where the guide begins. */
function changeFor(
  document: ShotDocument,
  take: Take,
  guide: Guide,
  plan: Plan<unknown>,
  runs: readonly Run[],
  newId: () => string,
  manner: Manner,
): LayerChange {
  const cycle = linkedBefore(document, take, guide)
  if (cycle) return cycleChange(take, cycle, { ...cycle, offset: 0, pattern: runs })
  const ids = idsOf(laidAlready(document, guide))
  const shown = placed(columnOf(take, guide.layer)).filter(run => run.drawing !== null && ids.has(run.drawing))
  const [first, last] = [shown[0], shown[shown.length - 1]]
  if (first && last) return putInPlace(take, guide, runs, ids, first.start, last.start + last.frames, manner)
  if (plan.loops && !plan.onlyMoves && isFreeFrom(take, guide))
    return linkedToTheEnd(take, guide, { id: newId(), pattern: runs })
  return putAt(take, guide, lengthOf(runs), runs, manner)
}

/** Exposures in place of those that were laid on frames [a, b), wherever the guide begins now. */
function putInPlace(
  take: Take,
  guide: Guide,
  runs: readonly Run[],
  ids: ReadonlySet<string>,
  a: number,
  b: number,
  manner: Manner,
): LayerChange {
  const from = Math.min(a, guide.from)
  const to = Math.min(take.length, Math.max(b, guide.from === a ? b : guide.from + lengthOf(runs)))
  const cleared = (stretch: readonly Run[]): Run[] =>
    stretch.map(run => (run.drawing !== null && ids.has(run.drawing) ? { ...run, drawing: null } : run))
  return stretchChange(
    take,
    guide.layer,
    from,
    to,
    stretch => {
      if (guide.from === a) return runs
      const empty = cleared(stretch)
      const at = guide.from - from
      const room = Math.max(0, at + lengthOf(runs) - lengthOf(empty))
      return overwrite(room > 0 ? [...empty, { drawing: null, frames: room }] : empty, at, [...runs])
    },
    manner,
  )
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

/** A sheet for a planned drawing: a new one, or the one that was laid before, with what the plan has for it now. */
interface Sheet {
  readonly drawing: Drawing
  readonly isNew: boolean
  readonly role: Drawing['role']
  readonly places: Table<MarkPlace>
}

function sheetsFor(
  document: ShotDocument,
  guide: Guide,
  plan: Plan<unknown>,
  marks: ReadonlyMap<string, string>,
  before: LaidAlready,
  newId: () => string,
): Sheet[] {
  const taken: number[] = []
  return plan.drawings.map(({ frame, role }, i): Sheet => {
    const places = Object.fromEntries(
      Object.entries(expectedOf(guide.recipe, plan, i).marks).flatMap(([name, { x, y, planted = false }]) => {
        const id = marks.get(name)
        return id === undefined ? [] : [[id, { x: tenth(x), y: tenth(y), planted }] as const]
      }),
    )
    const there = before.drawings[i]
    if (there) return { drawing: there, isNew: false, role, places }
    const number = freeNumber(document, guide.layer, guide.from + frame, taken)
    taken.push(number)
    return {
      drawing: { id: newId(), layer: guide.layer, number, role, elements: {}, marks: places },
      isNew: true,
      role,
      places,
    }
  })
}

/** What a sheet that was there before gets of the plan. */
function broughtAlong({ drawing, isNew, role, places }: Sheet, along: Along): Operation[] {
  if (isNew || (along === 'blank' && !isBlank(drawing))) return []
  const own = Object.entries(places).filter(([mark, place]) => {
    const now = find(drawing.marks, mark)
    return !now || now.x !== place.x || now.y !== place.y || now.planted !== place.planted
  })
  return [
    ...(drawing.role === role ? [] : [{ kind: 'drawing.set', id: drawing.id, patch: { role } } as const]),
    ...(own.length ? [{ kind: 'marks.place', drawing: drawing.id, places: Object.fromEntries(own) } as const] : []),
  ]
}

/** Beats of a plan: those that were laid before are moved, what is too few is added, what is too many goes unless a key is pinned to it. */
function beatsFor(document: ShotDocument, guide: Guide, plan: Plan<unknown>, newId: () => string) {
  const there = guide.laid.beats.flatMap(id => find(document.beats, id) ?? [])
  const pinned = new Set(Object.values(document.takes).flatMap(take => Object.values(take.pins)))
  const ids: string[] = []
  const ops = plan.beats.flatMap(({ frame, name }, i): Operation[] => {
    const beat: Omit<Beat, 'id'> = { name, frame: guide.from + frame }
    const known = there[i]
    const id = known?.id ?? newId()
    ids.push(id)
    if (!known) return [{ kind: 'beat.add', beat: { id, ...beat } }]
    return known.name === name && known.frame === beat.frame ? [] : [{ kind: 'beat.set', id, patch: beat }]
  })
  const spare = there.slice(plan.beats.length)
  ids.push(...spare.filter(beat => pinned.has(beat.id)).map(beat => beat.id))
  ops.push(...spare.filter(beat => !pinned.has(beat.id)).map(({ id }): Operation => ({ kind: 'beat.remove', id })))
  return { ids, ops }
}

/** Charts between two drawings that were laid by a guide before: its new ones take their place. */
function chartsGone(document: ShotDocument, { laid, layer }: Guide): Operation[] {
  const ids = new Set(laid.drawings)
  return Object.values(document.charts)
    .filter(chart => chart.layer === layer && chart.part === null && ids.has(chart.from) && ids.has(chart.to))
    .map(({ id }): Operation => ({ kind: 'chart.remove', id }))
}

/** A chart that would have a tick farther off than this share of the way is left out: the marks say where drawings belong. */
const MOST_OFF = 0.045

/** A chart put by hand at some shares, to the nearest that halves can give, or halves and thirds. */
function chartNear(points: readonly number[], thirds: boolean) {
  const wish: Wish = { ease: 'hand', strength: 0.5, thirds, points }
  return { wish, given: wishTicks(wish, points.length) }
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
    const found = [false, true]
      .map(thirds => chartNear(shares, thirds))
      .find(({ given }) => given.every((tick, i) => Math.abs(valueOf(tick.at) - (shares[i] as number)) <= MOST_OFF))
    if (!found) return []
    const { wish, given } = found
    const ticks = given.map((tick, i) => ({
      ...tick,
      drawing: (drawings[from + 1 + i] as Drawing).id,
    }))
    const keys = { from: (drawings[from] as Drawing).id, to: (drawings[to] as Drawing).id }
    return [{ kind: 'chart.add', chart: { id: newId(), layer, ...keys, part: null, wish, ticks } }]
  })
}
