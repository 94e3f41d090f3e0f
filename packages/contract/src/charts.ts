import { MOST_TICKS, PRESETS } from '@unhurried/core/chart'
import { z } from 'zod'
import { Id } from './pieces.ts'

const parent = z
  .number()
  .int()
  .min(-2)
  .max(MOST_TICKS - 1)

export const Preset = z.enum(PRESETS)

export const ChartTick = z
  .strictObject({
    at: z.strictObject({ num: z.number().int().min(1).max(4096), den: z.number().int().min(2).max(4096) }).readonly(),
    left: parent,
    right: parent,
    ratio: z.enum(['1/2', '1/3', '2/3']),
    depth: z.number().int().min(0).max(MOST_TICKS),
    drawing: Id.nullable(),
  })
  .readonly()

export const Ticks = z.array(ChartTick).max(MOST_TICKS).readonly()

export const Chart = z.strictObject({ id: Id, layer: Id, from: Id, to: Id, preset: Preset, ticks: Ticks }).readonly()
