import { needPositive } from '../errors.ts'
import { isAnimated, ROLES, type Layer, type Role, type ShotDocument, type Take } from '../document/model/model.ts'
import { exposures, isBlank, layersInOrder } from '../document/model/selectors.ts'
import { get } from '../document/model/table.ts'

/** What one layer of a take asks to be drawn. */
export interface LayerBudget {
  readonly layer: Layer
  /** frames on which something is shown */
  readonly frames: number
  /** sheets: each counted once however often and long it is shown */
  readonly drawings: number
  readonly byRole: Readonly<Record<Role, number>>
  readonly drawn: number
  readonly left: number
  /** exposures that show a drawing again, and so cost nothing */
  readonly reused: number
  /** drawings held so long that they rest (see `holdFrom`) */
  readonly held: number
  /** sheets if everything that moves went to ones: a new sheet for every frame, but holds and drawings shown again stay */
  readonly onOnes: number
}

/**
 * A drawing held for this many frames or more rests: a quarter of a second, whatever the rate. Throws a UsageError on a
 * rate that is not above 0.
 */
export function holdFrom(fps: number): number {
  needPositive(fps, 'fps')
  return Math.ceil(fps / 4)
}

/** The budget of every animated layer, topmost first. Backgrounds, references, guides and paint under lines are not. */
export function budgetOf(document: ShotDocument, take: Take): LayerBudget[] {
  return layersInOrder(document)
    .reverse()
    .filter(isAnimated)
    .map(layer => layerBudget(document, take, layer))
}

function layerBudget(document: ShotDocument, take: Take, layer: Layer): LayerBudget {
  const rest = holdFrom(document.format.fps)
  const longest = new Map<string, number>()
  let [frames, shown] = [0, 0]
  for (const run of exposures(take, layer.id)) {
    const id = run.drawing as string
    longest.set(id, Math.max(longest.get(id) ?? 0, run.frames))
    frames += run.frames
    shown++
  }
  const sheets = [...longest.keys()].map(id => get(document.drawings, id))
  const byRole = Object.fromEntries(ROLES.map(role => [role, sheets.filter(d => d.role === role).length]))
  const drawn = sheets.filter(d => !isBlank(d)).length
  const held = [...longest.values()].filter(n => n >= rest).length
  const onOnes = [...longest.values()].reduce((sum, n) => sum + (n >= rest ? 1 : n), 0)
  return {
    layer,
    frames,
    drawings: sheets.length,
    byRole: byRole as Record<Role, number>,
    drawn,
    left: sheets.length - drawn,
    reused: shown - sheets.length,
    held,
    onOnes,
  }
}

/** Budgets of all layers added up. */
export function totalBudget(budgets: readonly LayerBudget[]): Omit<LayerBudget, 'layer'> {
  const sum = (of: (budget: LayerBudget) => number) => budgets.reduce((total, budget) => total + of(budget), 0)
  return {
    frames: sum(b => b.frames),
    drawings: sum(b => b.drawings),
    byRole: Object.fromEntries(ROLES.map(role => [role, sum(b => b.byRole[role])])) as Record<Role, number>,
    drawn: sum(b => b.drawn),
    left: sum(b => b.left),
    reused: sum(b => b.reused),
    held: sum(b => b.held),
    onOnes: sum(b => b.onOnes),
  }
}
