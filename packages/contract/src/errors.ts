import { z } from 'zod'

/** Everything the server may answer instead of what was asked for. */
export const ERROR_CODES = [
  'bad-request',
  'not-signed-in',
  'wrong-sign-in',
  'not-allowed',
  'not-found',
  'already-set-up',
  'wrong-origin',
  'too-large',
  'too-many-requests',
  'server-fault',
] as const

/** What a failed request is answered with. `details` names each field that is wrong. */
export const ErrorReply = z.object({
  code: z.enum(ERROR_CODES),
  message: z.string(),
  details: z.array(z.object({ field: z.string(), problem: z.string() })),
})
export type ErrorReply = z.infer<typeof ErrorReply>
export type ErrorCode = (typeof ERROR_CODES)[number]
