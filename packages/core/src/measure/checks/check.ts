import type { Point } from '../../geometry/point.ts'
import type { ShotDocument } from '../../document/model/model.ts'
import type { Survey } from '../survey.ts'

/** note: worth knowing. look: worth a look. wrong: hardly meant. */
export const SEVERITIES = ['note', 'look', 'wrong'] as const
export type Severity = (typeof SEVERITIES)[number]

/** What a check has to say, and where. */
export interface Finding {
  readonly severity: Severity
  /** id */
  readonly layer: string
  /** frames it is seen on: from, and up to but not with */
  readonly from: number
  readonly to: number
  /** ids: the drawing it is about, then those it was held against */
  readonly drawings: readonly string[]
  /** ids of the marks it was read by; none: by silhouettes */
  readonly marks: readonly string[]
  /** what was measured, by name */
  readonly figures: Readonly<Record<string, number>>
  /** its place on the drawing, paper pixels, or null: all of it */
  readonly at: Point | null
  readonly words: string
}

/** What must be there before a check can say anything. */
export type Need = 'shapes' | 'charts' | 'marks'

/** One question asked of a whole shot. Pure; it never blocks anything. */
export interface Check {
  readonly words: string
  /** what it asks, in a sentence */
  readonly asks: string
  readonly needs: readonly Need[]
  /** whether it is asked of a shot at all; always, where nothing is said */
  isAsked?(document: ShotDocument): boolean
  /** its findings in the order of layers and of time */
  inspect(survey: Survey): Finding[]
}

const SHARE = new Intl.NumberFormat('en', { style: 'percent' })
/** A share as it is read: 1.074 is "107 %". */
export const percent = (share: number): string => SHARE.format(share).replace('%', ' %')
