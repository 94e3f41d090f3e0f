import { z } from 'zod'
import { KEEPS } from '../../strokes/figures.ts'

/** How a round is pulled, the radius of the body at rest in paper pixels, and whether it is painted. */
export const Round = z.object({
  keeps: z.enum(KEEPS).catch('free'),
  radius: z.number().min(1).max(4000).catch(60),
  painted: z.boolean().catch(false),
})
