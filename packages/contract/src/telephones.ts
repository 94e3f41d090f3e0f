import { z } from 'zod'
import { Id, RowId } from './pieces.ts'

/** What a telephone may send with one code, and for how long. */
export const TELEPHONE = {
  minutes: 15,
  photos: 40,
  /** bytes of one photograph; the telephone makes them smaller than this before it sends them */
  photoBytes: 8 * 1024 * 1024,
} as const

/** A photograph that a telephone has sent: whether the desk has taken it. */
const SentPhoto = z.object({ id: Id, taken: z.boolean() })

/** A telephone that may send photographs, as the desk knows it. The token is told once, when it is opened. */
export const Telephone = z.object({ id: RowId, token: z.string(), seconds: z.number() })
export type Telephone = z.infer<typeof Telephone>

/** What has come from a telephone, in the order it came, and for how many seconds more it may send. */
export const FromTelephone = z.object({ seconds: z.number(), photos: z.array(SentPhoto) })
export type FromTelephone = z.infer<typeof FromTelephone>

/** Where a telephone sends to, as it is told to whoever holds it. */
export const AtTelephone = FromTelephone.extend({ shot: z.string(), film: z.string() })
export type AtTelephone = z.infer<typeof AtTelephone>
