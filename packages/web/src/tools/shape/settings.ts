import { z } from 'zod'

/** How much the edge lags behind the hand to be steadier, 0–1. */
export const Edge = z.object({ smoothing: z.number().min(0).max(1).catch(0.35) })
