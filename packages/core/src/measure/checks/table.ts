import type { Survey } from '../survey.ts'
import { SEVERITIES, type Check, type Finding } from './check.ts'
import { attention } from './attention.ts'
import { ceiling } from './ceiling.ts'
import { flashes } from './flashes.ts'
import { exposed } from './exposed.ts'
import { flight } from './flight.ts'
import { ground } from './ground.ts'
import { launch } from './launch.ts'
import { lines } from './lines.ts'
import { model } from './model.ts'
import { framed } from './framed.ts'
import { paint } from './paint.ts'
import { pace } from './pace.ts'
import { alike, together, weight } from './parts.ts'
import { planted } from './planted.ts'
import { poses } from './poses.ts'
import { present } from './present.ts'
import { contact, drag, size, still } from './said.ts'
import { seam } from './seam.ts'
import { stands } from './stands.ts'
import { volume } from './volume.ts'
import { arc, way } from './way.ts'

/** Every question that is asked of a shot, in the order they are told. */
const TABLE = {
  flashes,
  exposed,
  framed,
  present,
  lines,
  paint,
  ground,
  volume,
  way,
  arc,
  pace,
  together,
  alike,
  weight,
  planted,
  size,
  model,
  launch,
  drag,
  flight,
  contact,
  still,
  poses,
  stands,
  seam,
  ceiling,
  attention,
} as const

export type CheckName = keyof typeof TABLE
export const CHECKS: Readonly<Record<CheckName, Check>> = TABLE
export const CHECK_NAMES = Object.keys(TABLE) as CheckName[]

/** A finding, and the check that has it. */
export interface Found extends Finding {
  readonly check: CheckName
}

/** What one check finds in a shot. */
export const findingsOf = (survey: Survey, check: CheckName): Found[] =>
  CHECKS[check].inspect(survey).map((finding): Found => ({ ...finding, check }))

/** Findings of several checks as they are told: the gravest first, then in the order of time, then of the checks. */
export function inOrder(found: readonly Found[]): Found[] {
  const grave = ({ severity }: Finding) => SEVERITIES.indexOf(severity)
  const place = ({ check }: Found) => CHECK_NAMES.indexOf(check)
  return [...found].sort((a, b) => grave(b) - grave(a) || a.from - b.from || place(a) - place(b))
}

/** What all checks (or some) find in a shot, in order. */
export const findings = (survey: Survey, names: readonly CheckName[] = CHECK_NAMES): Found[] =>
  inOrder(names.flatMap(check => findingsOf(survey, check)))
