import type { Box, Point } from '../../geometry/point.ts'
import type { Operation } from '../../document/operations/index.ts'
import type { Survey } from '../survey.ts'

/** note: worth knowing. look: worth a look. wrong: hardly meant. */
export const SEVERITIES = ['note', 'look', 'wrong'] as const
export type Severity = (typeof SEVERITIES)[number]

/** What a check has to say, and where. */
export interface Finding {
  readonly severity: Severity
  /** id; null: the picture as a whole */
  readonly layer: string | null
  /** frames it is seen on: from, and up to but not with */
  readonly from: number
  readonly to: number
  /** ids: the drawing it is about, then those it was held against */
  readonly drawings: readonly string[]
  /** ids of the marks it was read by; none: by silhouettes */
  readonly marks: readonly string[]
  /** what was measured, by name */
  readonly figures: Readonly<Record<string, number>>
  /** which of the series of its layer it is about, where there are several; one that is none of them is about none */
  readonly what?: string
  /** its place, paper pixels: on the drawing, or in the picture where that is said; null: all of it */
  readonly at: Point | null
  readonly isInPicture?: boolean
  /** the part of the picture it is about, paper pixels */
  readonly within?: Box
  readonly words: string
}

/** How a finding can be put right in one step. */
export interface Fix {
  /** what is done, as it is told on a button and in the history */
  readonly words: string
  readonly ops: readonly Operation[]
  /** samples of strokes that come with it, by their ids */
  readonly samples?: ReadonlyMap<string, Uint8Array>
}

/** What was measured on a frame: on the one on which a drawing appears. */
export interface SeriesValue {
  readonly frame: number
  /** id; null: the picture as a whole */
  readonly drawing: string | null
  readonly value: number
}

/** What a check measures over the frames, to be looked at as a plot; `planned` is what was wanted there, where that was said. */
export interface Series {
  /** ids; layer null: the picture as a whole; mark null: by silhouettes */
  readonly layer: string | null
  readonly mark: string | null
  /** tells it from the others of its layer, where findings are about one of them */
  readonly what?: string
  readonly name: string
  readonly unit: string
  readonly values: readonly SeriesValue[]
  readonly planned: readonly SeriesValue[]
  /** it is only told: where the check begins to speak is about others */
  readonly isOnlyTold?: true
}

/** What must be there before a check can say anything. */
export type Need = 'shapes' | 'charts' | 'marks' | 'frames'

/** One question asked of a whole shot. Pure; it never blocks anything. */
export interface Check {
  readonly words: string
  /** what it asks, in a sentence */
  readonly asks: string
  readonly needs: readonly Need[]
  /** whether it is asked of a shot at all; always, where nothing is said */
  isAsked?(of: Pick<Survey, 'document' | 'models'>): boolean
  /** its findings in the order of layers and of time */
  inspect(survey: Survey): Finding[]
  /** does in pieces what takes long, and keeps it, so that asking is quick: whoever asks can rest between them */
  prepare?(survey: Survey): Iterable<unknown>
  /** what it measures, over the frames; nothing, where there is nothing to plot */
  series?(survey: Survey): Series[]
  /** what is seen of it under the picture, where that is no plot: when parts move, or which are there */
  readonly view?: 'onsets' | 'parts' | 'ranked'
  /** several findings about one drawing can be put right together: one changes nothing that another is about */
  readonly fixesApart?: true
  /** how a finding of it can be put right in one step; null where the hand has to */
  fix?(survey: Survey, finding: Finding, newId: () => string): Fix | null
  /** another way to put it right, where there is one */
  otherFix?(survey: Survey, finding: Finding, newId: () => string): Fix | null
  /** values at which it begins to say something, in the unit of its series */
  limits?(survey: Survey): readonly number[]
}

const SHARE = new Intl.NumberFormat('en', { style: 'percent' })
/** A share as it is read: 1.074 is "107 %". */
export const percent = (share: number): string => SHARE.format(share).replace('%', ' %')
