import { z } from 'zod'

export const Box = z.object({ painted: z.boolean().catch(false) })
