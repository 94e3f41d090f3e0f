import {
  applyBatch,
  AS_IT_COMES,
  columnOf,
  currentTake,
  FIRST,
  freshDocument,
  get,
  layGuide,
  newLayer,
  recipeShot,
  type Batch,
  type Drawing,
  type Guide,
  type Operation,
  type ShotDocument,
} from '@unhurried/core/document'
import { RECIPES, type NumbersOf, type PlanOf, type RecipeName } from '@unhurried/core/motion'
import { drawnWith } from './hand.ts'
import type { Recording } from './voice.ts'
import type { Mark } from './tilda.ts'

/** A shot as it would be drawn at the desk: batches to commit in order, and the stroke samples they use. */
export interface Drawn {
  readonly batches: readonly Batch[]
  readonly samples: ReadonlyMap<string, Uint8Array>
  readonly recordings: readonly Recording[]
}

/** A shot of the demo: its paper, rate and length. */
export interface StudyPaper {
  readonly width: number
  readonly height: number
  readonly fps: number
  readonly frames: number
  readonly paper: string
}

/** A study with its paper. */
export interface Whole {
  readonly paper: StudyPaper
  readonly drawn: Drawn
}

/** A guide of a study with its plan, and the drawings that were laid for it. */
export interface Laying<R extends RecipeName> {
  readonly plan: PlanOf<R>
  readonly drawings: readonly string[]
}

/** A shot being made as one would at the desk: step by step, with the strokes of every drawing. */
export class Study {
  readonly #batches: Batch[] = []
  readonly #samples = new Map<string, Uint8Array>()
  readonly #recordings: Recording[] = []
  #made = 0
  document: ShotDocument

  constructor(
    readonly name: string,
    readonly paper: StudyPaper,
    layer: string,
  ) {
    const { frames, ...format } = paper
    this.document = freshDocument(format, frames, layer)
  }

  /** Throws an Error when the document refuses it. */
  commit(label: string, ops: readonly Operation[]): void {
    const result = applyBatch(this.document, ops)
    if (!result.ok) throw new Error(`${this.name} cannot be drawn: ${result.refusal.code} ${result.refusal.what}`)
    this.document = result.document
    this.#batches.push({ id: `${this.name}-${this.#batches.length + 1}`, label, ops })
  }

  draw(drawing: string, marks: readonly Mark[]): void {
    const done = drawnWith(drawing, marks)
    for (const [id, bytes] of done.samples) this.#samples.set(id, bytes)
    for (const op of done.ops) {
      const isShape = op.kind === 'elements.add' && op.elements[0]?.kind === 'shape'
      this.commit(isShape ? 'painted shape' : 'pen line', [op])
    }
  }

  /** Another layer under or over the others; `order` says where. Answers its id. */
  layer(id: string, name: string, order: number, kind: 'drawn' | 'background' = 'drawn'): string {
    this.commit('new layer', [{ kind: 'layer.add', layer: newLayer(id, name, order, { kind, volume: 'off' }) }])
    return id
  }

  /** One drawing on a layer, shown from the first frame to the last. */
  still(layer: string, marks: readonly Mark[]): void {
    const id = `${layer}-still`
    const drawing: Drawing = { id, layer, number: 1, role: 'key', elements: {}, marks: {} }
    const runs = [{ drawing: id, frames: this.paper.frames }]
    this.commit('new drawing 1', [
      { kind: 'drawing.add', drawing },
      { kind: 'exposure.write', take: FIRST.take, layer, from: 0, runs },
    ])
    this.draw(id, marks)
  }

  /** Whatever a layer shows last is shown to the end. */
  hold(layer: string): void {
    const take = currentTake(this.document)
    const runs = columnOf(take, layer)
    const last = runs.reduce((found, run, i) => (run.drawing === null ? found : i), -1)
    const from = runs.slice(0, last + 1).reduce((sum, run) => sum + run.frames, 0)
    const drawing = runs[last]?.drawing ?? null
    if (from >= take.length || drawing === null) return
    const more = [{ drawing, frames: take.length - from }]
    this.commit('hold longer', [{ kind: 'exposure.write', take: take.id, layer, from, runs: more }])
  }

  /** A guide with some numbers of its own, laid on the sheet. */
  guide<R extends RecipeName>(
    recipe: R,
    some: Partial<NumbersOf<R>>,
    layer: string = FIRST.drawn,
    from = 0,
  ): Laying<R> {
    const shot = recipeShot(this.document)
    const numbers = { ...RECIPES[recipe].defaults(shot), ...some } as NumbersOf<R>
    const guide: Guide = {
      id: `${this.name}-${recipe}-${++this.#made}`,
      recipe,
      numbers: { ...numbers } as Guide['numbers'],
      take: FIRST.take,
      layer,
      from,
      ...AS_IT_COMES,
    }
    this.commit(`guide: ${recipe}`, [{ kind: 'guide.add', guide }])
    const step = layGuide(this.document, currentTake(this.document), guide, () => `${guide.id}-${++this.#made}`, 'stay')
    if (!step.ok) throw new Error(`${this.name} cannot be laid: ${step.code}`)
    this.commit(`${recipe} on the sheet`, step.ops)
    const plan = (RECIPES[recipe] as { plan(numbers: NumbersOf<R>, at: typeof shot): PlanOf<R> }).plan(numbers, shot)
    return { plan, drawings: get(this.document.guides, guide.id).laid.drawings }
  }

  /** All that was done, to be committed in order. */
  get drawn(): Drawn {
    return { batches: this.#batches, samples: this.#samples, recordings: this.#recordings }
  }

  /** Keeps the bytes of a picture that is brought in. */
  keep(id: string, bytes: Uint8Array): void {
    this.#samples.set(id, bytes)
  }

  /** Has a recording or clip stored beside the shot. */
  store(recording: Recording): void {
    this.#recordings.push(recording)
  }

  /** Lays a recording of one's own from a frame (from 0) on. */
  hear(name: string, recording: Recording, from: number): void {
    this.store(recording)
    const { id: media, seconds } = recording
    const sound = { id: `${this.name}-${name}`, name, media, seconds, order: 0, from, skip: 0, use: seconds }
    this.commit(name, [{ kind: 'sound.add', sound: { ...sound, gain: 1, muted: false, mine: true, source: '' } }])
  }

  /** The paper and all that was done on it. */
  get whole(): Whole {
    return { paper: this.paper, drawn: this.drawn }
  }
}
