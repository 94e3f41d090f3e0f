import { elementsInOrder, kindOf, type Drawing } from '@unhurried/core/document'
import { IDENTITY, type Point } from '@unhurried/core/geometry'
import type { DrawingFacts, Shape } from '@unhurried/core/raster'
import { wrap, type Remote } from 'comlink'
import { computed, shallowRef, triggerRef, watch, type Ref } from 'vue'
import type { Measured, MeasureProtocol } from '../protocols/measure.ts'

/** Strokes come in bursts; measuring starts when the hand rests. */
const REST_MS = 120

/** What is to be measured, and how. */
interface Wanted {
  /** the drawings, those in the hand first */
  readonly drawings: Readonly<Ref<readonly Drawing[]>>
  /** outlines open by no more than so many pixels count as closed */
  readonly closedGapPx: () => number
  readonly bytes: (id: string) => Uint8Array | undefined
  /** where enclosed empty space is marked on a drawing */
  readonly spacesOn: (drawing: Drawing) => Point[]
  /** hears when all that is wanted is known */
  readonly done: () => void
}

/** Silhouettes of drawings, measured from their pixels in a worker and kept until a drawing changes. */
export function makeShapes({ drawings, closedGapPx, bytes, spacesOn, done }: Wanted) {
  // Keyed by the drawing as a value: a changed drawing is another one and measured anew.
  const known = shallowRef(new WeakMap<Drawing, Measured>())
  const broken = shallowRef(false)
  let worker: Worker | null = null
  let remote: Remote<MeasureProtocol> | null = null
  let round = 0
  let timer: ReturnType<typeof setTimeout> | undefined

  watch(
    drawings,
    () => {
      clearTimeout(timer)
      timer = setTimeout(() => void measureAll(), REST_MS)
    },
    { immediate: true },
  )
  // Another gap counts as closed: everything is measured anew.
  watch(closedGapPx, () => {
    known.value = new WeakMap()
    void measureAll()
  })

  function connect(): Remote<MeasureProtocol> {
    worker = new Worker(new URL('../workers/measure.worker.ts', import.meta.url), { type: 'module' })
    // A worker that dies would leave its callers waiting for ever: the next drawing gets a new one.
    worker.onerror = () => {
      worker?.terminate()
      worker = null
      remote = null
      broken.value = true
    }
    return wrap<MeasureProtocol>(worker)
  }

  async function measureAll(): Promise<void> {
    const mine = ++round
    for (const drawing of drawings.value) {
      if (known.value.has(drawing)) continue
      remote ??= connect()
      const strokes = elementsInOrder(drawing).flatMap(element => kindOf(element).silhouette(element, bytes) ?? [])
      const pictures = Object.values(drawing.elements).flatMap(element => {
        if (element.kind !== 'picture') return []
        const stored = bytes(element.picture)
        return stored
          ? [{ id: element.picture, bytes: stored, matrix: element.matrix ?? IDENTITY, cut: element.cut }]
          : []
      })
      const measured = await remote.measure(strokes, pictures, spacesOn(drawing), closedGapPx())
      known.value.set(drawing, measured)
      broken.value = false
      triggerRef(known)
      // Something changed meanwhile: a newer round goes on with the newer drawings.
      if (mine !== round) return
    }
    if (mine === round) done()
  }

  /** by the id of their drawings */
  const of = <T>(what: (measured: Measured) => T) =>
    computed<ReadonlyMap<string, T>>(
      () =>
        new Map(
          drawings.value.flatMap(drawing => {
            const measured = known.value.get(drawing)
            return measured ? [[drawing.id, what(measured)] as const] : []
          }),
        ),
    )
  const shapes = of<Shape>(measured => measured.shape)
  const facts = of<DrawingFacts>(measured => measured.facts)
  const shapeOf = (drawing: Drawing | null): Shape | null => (drawing && known.value.get(drawing)?.shape) || null

  return { shapes, facts, shapeOf, broken }
}
