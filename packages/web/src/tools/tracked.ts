import type { Point } from '@unhurried/core/geometry'
import { z } from 'zod'
import type { RawSample } from '../paint/pen.ts'
import { toPaper } from '../paint/view.ts'
import { TAKES, type Cut } from '../strokes/edits.ts'
import type { PaperPort } from './hand.ts'

/** Settings of a round tip that takes something off: its width in paper pixels, and what it takes. */
export const Rubbing = z.object({
  width: z.number().min(1).max(160).catch(14),
  takes: z.enum(TAKES).catch('all'),
})
export type Rubbing = z.infer<typeof Rubbing>

/** How the track of a rubber is shown. */
export const rubStyle = (width: number) => ({
  colour: 'rgba(164, 77, 36, 0.35)',
  width,
  dash: [],
  close: false,
})

/** Follows the pointer with a track on the paper. */
export function tracked(paper: PaperPort, follow: (track: readonly Point[]) => void) {
  const track: Point[] = []
  return {
    track,
    move(raws: readonly RawSample[]) {
      for (const raw of raws) track.push(toPaper(paper.matrix, raw))
      follow(track)
    },
  }
}

/** Commits cuts of drawings as one step. Whether they are done, or there was nothing to cut. */
export function commitCuts({ shot, kit }: PaperPort, words: string, cuts: readonly Cut[]): boolean {
  const ops = cuts.flatMap(cut => cut.ops)
  const samples = new Map(cuts.flatMap(cut => [...cut.samples]))
  return ops.length === 0 || shot.commit(`${words} ${kit.changedWords}`, ops, { samples }) === null
}
