import type { Operation } from './operations/index.ts'

/** Ids of the stored stroke samples that operations bring onto drawings: what must be stored before they can be. */
export function samplesUsed(ops: readonly Operation[]): string[] {
  return ops.flatMap(op => {
    if (op.kind === 'elements.add') return op.elements.map(element => element.samples)
    return op.kind === 'drawing.add' ? Object.values(op.drawing.elements).map(element => element.samples) : []
  })
}
