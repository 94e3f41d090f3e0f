import { MODEL_LIMITS, modelFault } from '@unhurried/core/models'
import { z } from 'zod'
import { Id, MediaId, Name } from './pieces.ts'

const Place = z.strictObject({ x: z.number(), y: z.number() }).readonly()

const View = z
  .strictObject({
    id: Id,
    name: Name,
    media: MediaId,
    widthPx: z.number(),
    heightPx: z.number(),
    low: Place,
    high: Place,
  })
  .readonly()

/** What a figure of a film looks like from all sides. */
export const Model = z
  .strictObject({
    name: Name,
    views: z.array(View).max(MODEL_LIMITS.views).readonly(),
    heights: z
      .array(z.strictObject({ id: Id, name: Name, share: z.number() }).readonly())
      .max(MODEL_LIMITS.heights)
      .readonly(),
  })
  .readonly()
  .superRefine((model, about) => {
    const fault = modelFault(model)
    if (fault !== null) about.addIssue({ code: 'custom', message: `must not hold ${fault}` })
  })

/** A model sheet as it is kept; `turn` goes up with every change, and whoever changes it says which one was changed. */
export const ModelCard = z.object({ id: Id, turn: z.number().int(), model: Model })
export const Models = z.object({ models: z.array(ModelCard) })
/** The most bytes of a request that keeps one. */
export const LARGEST_MODEL = 64 * 1024

/** `turn` is 0 for one that is new. */
export const KeepModel = z.strictObject({ turn: z.number().int().min(0), model: Model })

export type ModelCard = z.infer<typeof ModelCard>
