import { z } from 'zod'

/** Gaps between lines up to so many paper pixels count as closed. */
export const Filling = z.object({ gapPx: z.number().min(0).max(40).catch(6) })
export type Filling = z.infer<typeof Filling>
