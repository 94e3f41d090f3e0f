import { MOST_TICKS, RATIOS } from '@unhurried/core/chart'
import { z } from 'zod'
import { Id, Wish } from './pieces.ts'

const parent = z
  .number()
  .int()
  .min(-2)
  .max(MOST_TICKS - 1)

export const ChartTick = z
  .strictObject({
    at: z.strictObject({ num: z.number().int().min(1).max(8192), den: z.number().int().min(2).max(4096) }).readonly(),
    left: parent,
    right: parent,
    ratio: z.enum(RATIOS),
    depth: z.number().int().min(0).max(MOST_TICKS),
    drawing: Id.nullable(),
  })
  .readonly()

export const Ticks = z.array(ChartTick).max(MOST_TICKS).readonly()

export const Chart = z
  .strictObject({ id: Id, layer: Id, from: Id, to: Id, part: Id.nullable(), wish: Wish, ticks: Ticks })
  .readonly()
