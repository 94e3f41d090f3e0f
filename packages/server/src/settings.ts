import { z } from 'zod'

const Flag = z
  .enum(['0', '1', 'true', 'false'])
  .default('0')
  .transform(v => v === '1' || v === 'true')

/** Every setting the server reads from its environment. README has the table. */
const Settings = z.object({
  PORT: z.coerce.number().int().min(0).max(65535).default(4610),
  HOST: z.string().default('127.0.0.1'),
  DATABASE_URL: z.string().regex(/^postgres(ql)?:\/\//, 'must start with postgres://'),
  /** the address browsers use; changes from pages of any other origin are refused */
  PUBLIC_ORIGIN: z.url().optional(),
  CLIENT_FOLDER: z.string().optional(),
  DEMO: Flag,
  SIGN_INS_PER_MINUTE: z.coerce.number().int().min(1).default(20),
  LOG_LEVEL: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
})

export type Settings = z.infer<typeof Settings>

/** Reads the settings; throws one sentence naming every variable that is missing or wrong. */
export function readSettings(environment: Record<string, string | undefined>): Settings {
  const result = Settings.safeParse(environment)
  if (result.success) return result.data
  const faults = result.error.issues.map(issue => `${issue.path.join('.')}: ${issue.message}`)
  throw new Error(`The server cannot start with these settings: ${faults.join('; ')}`)
}
