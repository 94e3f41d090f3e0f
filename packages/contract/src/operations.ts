import type { Batch as CoreBatch, Operation as CoreOperation } from '@unhurried/core/document'
import { z } from 'zod'
import { Chart, Preset, Ticks } from './charts.ts'
import * as p from './pieces.ts'

/** The most operations in one batch and elements in one operation: a paste of a very full drawing still fits. */
const MOST_OPERATIONS = 500
const MOST_ELEMENTS = 5000

const ElementPatch = z
  .strictObject({
    matrix: p.Matrix.nullable(),
    swatch: p.Id,
    width: p.LineWidth,
    z: z.number().min(-1e9).max(1e9),
  })
  .partial()
  .readonly()

const Changes = z
  .array(z.strictObject({ id: p.Id, patch: ElementPatch }).readonly())
  .min(1)
  .max(MOST_ELEMENTS)
  .readonly()

const ids = z.array(p.Id).min(1).max(MOST_ELEMENTS).readonly()
const op = <K extends CoreOperation['kind'], S extends z.ZodRawShape>(kind: K, shape: S) =>
  z.strictObject({ kind: z.literal(kind), ...shape }).readonly()

export const Operation = z.discriminatedUnion('kind', [
  op('format.set', { patch: p.Format.unwrap().partial().readonly() }),
  op('layer.add', { layer: p.Layer }),
  op('layer.set', { id: p.Id, patch: z.strictObject({ name: p.Name, order: z.number() }).partial().readonly() }),
  op('layer.remove', { id: p.Id }),
  op('drawing.add', { drawing: p.Drawing }),
  op('drawing.set', { id: p.Id, patch: z.strictObject({ number: p.SheetNumber, role: p.Role }).partial().readonly() }),
  op('drawing.remove', { id: p.Id }),
  op('elements.add', { drawing: p.Id, elements: z.array(p.Element).min(1).max(MOST_ELEMENTS).readonly() }),
  op('elements.set', { drawing: p.Id, changes: Changes }),
  op('elements.remove', { drawing: p.Id, ids }),
  op('chart.add', { chart: Chart }),
  op('chart.set', { id: p.Id, patch: z.strictObject({ preset: Preset, ticks: Ticks }).partial().readonly() }),
  op('chart.remove', { id: p.Id }),
  op('exposure.write', { take: p.Id, layer: p.Id, from: p.Frame, runs: p.Runs }),
  op('frames.insert', { take: p.Id, at: p.Frame, count: p.FrameCount, fill: p.tableOf(p.Runs, 40) }),
  op('frames.remove', { take: p.Id, at: p.Frame, count: p.FrameCount }),
  op('loop.set', { take: p.Id, loop: p.Loop }),
])

export const Batch = z
  .strictObject({
    id: p.Id,
    label: p.Name,
    ops: z.array(Operation).min(1).max(MOST_OPERATIONS).readonly(),
  })
  .readonly()

type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never

/** The schemas and core's types describe the same values; a difference does not compile. */
export const OPERATION_AGREES: Same<z.infer<typeof Operation>, CoreOperation> = true
export const BATCH_AGREES: Same<z.infer<typeof Batch>, CoreBatch> = true
