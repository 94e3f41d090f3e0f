import { z } from 'zod'
import { kept } from '../local/kept.ts'
import { Aids } from '../paint/aids.ts'
import { KeptLooks } from '../paint/looks.ts'
import { MOST_STANDS, Over, Stand } from '../paint/stand.ts'

/** What this machine remembers of a shot that is no business of anyone else's; what cannot be read counts as nothing. */
const KeptOfShot = z.object({
  looks: KeptLooks,
  deferred: z.array(z.string()).readonly().catch([]),
  aids: Aids,
  /** what stands beside the paper, and the model sheet that is laid over it */
  stands: z.array(Stand).max(MOST_STANDS).readonly().catch([]),
  over: Over.nullable().catch(null),
  /** other layers whose drawings show through too, and how much of the light table's strength they get */
  lit: z
    .record(z.string(), z.number().gt(0).max(1).nullable().catch(null))
    .transform(
      lit => Object.fromEntries(Object.entries(lit).filter(([, share]) => share !== null)) as Record<string, number>,
    )
    .readonly()
    .catch({}),
})
export type KeptOfShot = z.infer<typeof KeptOfShot>

/** Reads and writes it. */
export function keptFor(shot: string) {
  const own = kept(`shot ${shot}`)
  const read = (): KeptOfShot => KeptOfShot.parse(own.read() ?? {})
  return {
    read,
    /** Keeps some of it; the rest stays as it was kept. */
    write: (some: Partial<KeptOfShot>) => own.write({ ...read(), ...some }),
  }
}
