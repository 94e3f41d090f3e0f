import { z } from 'zod'

/** How strokes are gathered: with a loop or a box, whole or cut where it crosses them. */
export const Gathering = z.object({ by: z.enum(['loop', 'box']).catch('loop'), parts: z.boolean().catch(false) })
export type Gathering = z.infer<typeof Gathering>
