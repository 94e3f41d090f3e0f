import { z } from 'zod'

/** Everything the server may answer instead of what was asked for. */
export const ERROR_CODES = [
  'bad-request',
  'not-signed-in',
  'wrong-sign-in',
  'not-allowed',
  'not-found',
  /** it lies in the bin, and can be neither read nor changed there */
  'removed',
  /** the journal is not the one this desk knows: the shot has to be opened anew */
  'moved-on',
  'already-set-up',
  'wrong-origin',
  'wrong-host',
  'unsupported-encoding',
  'too-large',
  /** the part that was asked for lies behind the end */
  'outside-it',
  'too-many-requests',
  /** too much at the moment: to be tried again */
  'busy',
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
