import { z } from 'zod'

/** How far round the pointer lines are pushed, paper pixels. */
export const Pushing = z.object({ width: z.number().min(1).max(400).catch(90) })
export type Pushing = z.infer<typeof Pushing>
