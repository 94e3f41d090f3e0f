import { z } from 'zod'

const Flag = z
  .enum(['0', '1', 'true', 'false'])
  .default('0')
  .transform(v => v === '1' || v === 'true')

/** The address of a place, without anything behind it; a slash at the end does no harm. */
const Origin = z
  .string()
  .refine(
    text => /^https?:\/\/[^/?#\s]+\/?$/i.test(text) && URL.canParse(text),
    'must be an address like https://desk.example',
  )
  .transform(text => new URL(text).origin)

/** Every setting the server reads from its environment. README has the table. */
const Settings = z.object({
  PORT: z.coerce.number().int().min(0).max(65535).default(4610),
  HOST: z.string().default('127.0.0.1'),
  DATABASE_URL: z.string().regex(/^postgres(ql)?:\/\//, 'must start with postgres://'),
  /** the address browsers use; changes from pages of any other origin are refused */
  PUBLIC_ORIGIN: Origin.optional(),
  /** further names the server answers to, with their port, separated by commas */
  ALLOWED_HOSTS: z
    .string()
    .default('')
    .transform(text => text.split(',').flatMap(host => host.trim() || []))
    .pipe(
      z.array(z.string().regex(/^[A-Za-z0-9.[\]:-]+$/, 'must be names like desk.example:4610, separated by commas')),
    ),
  /** a proxy in front says over what, and for whom, a request came */
  TRUST_PROXY: Flag,
  CLIENT_FOLDER: z.string().optional(),
  DEMO: Flag,
  SIGN_INS_PER_MINUTE: z.coerce.number().int().min(1).default(20),
  /** days that films and shots lie in the bin before they are gone */
  BIN_DAYS: z.coerce.number().int().min(1).max(3650).default(30),
  /** megabytes that one recording or clip may have, and all of a film together */
  MEDIA_MB: z.coerce.number().int().min(1).max(4096).default(256),
  MEDIA_FILM_MB: z.coerce.number().int().min(1).max(1_048_576).default(2048),
  LOG_LEVEL: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
})

export type Settings = z.infer<typeof Settings>

/** Reads the settings; throws one sentence naming every variable that is missing or wrong. */
export function readSettings(environment: Record<string, string | undefined>): Settings {
  const result = Settings.safeParse(environment)
  if (result.success && result.data.TRUST_PROXY && !result.data.PUBLIC_ORIGIN) {
    throw new Error(
      'The server cannot start with these settings: TRUST_PROXY needs PUBLIC_ORIGIN, the address of the proxy',
    )
  }
  if (result.success) return result.data
  const faults = result.error.issues.map(issue => `${issue.path.join('.')}: ${issue.message}`)
  throw new Error(`The server cannot start with these settings: ${faults.join('; ')}`)
}
